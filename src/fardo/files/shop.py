"""The shop file: what a shop brings to every job. The starting values are in ``start/shop.toml``."""

from __future__ import annotations

import tomllib
from fractions import Fraction
from importlib.resources import files
from typing import Annotated, Any, Literal
from urllib.parse import urlsplit

from pydantic import BeforeValidator, Field, model_validator

from fardo.core.board.strength import Trust
from fardo.core.fill.material import Fill, FillForm
from fardo.core.make.allowances import ALLOWANCES, Allowances
from fardo.core.make.soft import SoftGates
from fardo.core.make.stock import Pattern, Stock
from fardo.core.plan.shop import Shop, Supplies, Tape
from fardo.core.protect.cushion import read_fragility
from fardo.core.quantity import Length, Units, on_the_tape, read_decimal
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import read_postcode
from fardo.files.boards import BoardEntry, read_board
from fardo.files.channel import ChannelEntry, read_channel
from fardo.files.family import AllowanceName, WayName, with_allowances
from fardo.files.house_rules import HouseRuleEntry, read_rule
from fardo.files.materials import MOST_LEFT, MaterialEntry, read_materials
from fardo.files.stock import BoxEntry, DesignEntry, PatternEntry, PouchEntry, read_box, read_design, read_pouch
from fardo.files.typed import ExtraEntry, Measure, Strict, Weight, to_length, to_mass, to_money, to_sizes

_ALLOWANCE_MOST = Length.of_mm(200)
_DEEPEST = Length.of_mm(1000)
_MOST_RATE = 1_000_000


def _as_the_tape(said: Any) -> Any:
    """A thirty-second, which no tape shows and a fence was once let go by, is a sixteenth."""
    return "1/16 in" if said == "1/32 in" else said


FenceStep = Annotated[Literal["1/16 in", "1/8 in", "1 mm", "2 mm"], BeforeValidator(_as_the_tape)]


class FillEntry(Strict):
    """A kind of fill. What it comes in, and how many litres one of it fills."""

    name: str = Field(min_length=1, max_length=80)
    weight_per_litre: Weight
    price_per_100_litres: str
    form: FillForm = "sheets"
    each_litres: float | None = Field(
        None, gt=0, le=10_000, description="that a sheet, a pillow, a pad or a sack fills"
    )
    left: float | None = Field(None, ge=0, le=MOST_LEFT, description="litres there are; nothing: it is not counted")


class TapeEntry(Strict):
    weight_per_m: Weight
    price_per_100_m: str
    left: float | None = Field(None, ge=0, le=MOST_LEFT, description="metres there are; nothing: it is not counted")


class SoftEntry(Strict):
    """The gates before a bag or a mailer."""

    heaviest: Weight = Field(description="all that goes in bare")
    fragility: str = Field(max_length=40, description="the least sturdy class that goes in a mailer bare")


class WireEntry(Strict):
    """A carrier that is live quotes too, beside its tariff."""

    carrier: str = Field(min_length=1, max_length=80, description="as its tariff has it")
    address: str = Field(min_length=1, max_length=200, description="https, or http on this machine")


class GapEntry(Strict):
    bears: int = Field(ge=1, le=1000, description="what bears no more than so many g")
    gap: Measure


def _from_start(name: str) -> Any:
    """What a shop that was set up before there was such a setting has of it."""
    return lambda: tomllib.loads(_start())[name]


class ShopFile(Strict):
    """Everything a shop can set. Lengths are millimetres and weights grams where they are numbers."""

    name: str = Field("", max_length=120)
    town: str = Field("", max_length=120)
    postcode: str = Field("", max_length=20)
    address: str = Field("", max_length=300, description="lines of the shop's address above its town")
    return_address: str = Field(
        "", max_length=300, description="where parcels come back to, line by line; the shop's address unless given"
    )
    units: Literal["in", "cm"] = "in"
    paper: Literal["letter", "a4"] = "letter"
    currency: str
    rates: dict[str, str] = Field(
        default_factory=_from_start("rates"), max_length=40, validate_default=True,
        description="what one of another currency costs in the shop's",
    )  # fmt: skip
    labour_per_hour: str
    pack_minutes: int = Field(ge=0, le=600)
    wrap_minutes: int = Field(2, ge=0, le=120, description="for each layer put on")
    gap: Measure
    allowances: dict[AllowanceName, Measure] = Field(
        default_factory=dict, max_length=60,
        description="what is added when a box is made, by its name; what is left out starts as told",
    )  # fmt: skip
    kerf: Measure = Field("1/8 in", description="what the shop's saw takes at every cut")
    offcut_least: Measure = Field("12 in", description="the shorter side of an off-cut that is worth keeping")
    used_percent: int = Field(70, ge=1, le=100, description="of its strength that a used box is trusted with")
    recut_percent: int = Field(50, ge=1, le=100, description="of its strength that a re-cut box is trusted with")
    damp_percent: int = Field(50, ge=1, le=100, description="of its strength that is left in damp air")
    stack_safety: int = Field(5, ge=1, le=50, description="so much less may stand on it for long than when it is tried")
    dear_from: str = Field("1000.00", description="goods of such a value are dear: no used box without a warning")
    cover_from: str = Field("100.00", description="from such a value on what does not cover it comes after what does")
    sign_from: str = Field("500.00", description="from such a value on a signature is asked for")
    country: str = Field("", pattern=r"^([A-Z]{2})?$", description="code of the shop's own")
    rules: list[HouseRuleEntry] = Field(default_factory=list, max_length=100, description="of the house")
    channels: list[ChannelEntry] = Field(default_factory=list, max_length=20, description="where it sells")
    minutes: dict[WayName, Annotated[int, Field(ge=0, le=600)]] = Field(
        default_factory=dict, max_length=60, description="to make a box, by its way; what is left out starts as told"
    )
    fence_step: FenceStep
    fill: FillEntry = Field(description="the usual one")
    fills: list[FillEntry] = Field(
        default_factory=_from_start("fills"), max_length=20, validate_default=True, description="others"
    )
    soft: SoftEntry = Field(
        default_factory=_from_start("soft"), validate_default=True,
        description="what may travel in a bag or mailer as it is",
    )  # fmt: skip
    tape: TapeEntry
    boards: list[BoardEntry] = Field(min_length=1, max_length=40)
    default_board: str
    bubbles: Literal["out", "in"] = Field("out", description="which way they look; out: the smooth side to the goods")
    cushion_factor: float = Field(3.0, ge=1, le=20, description="C of the cushion check, of what fills the gap")
    gaps: list[GapEntry] = Field(default_factory=_from_start("gaps"), max_length=12, validate_default=True)
    materials: list[MaterialEntry] = Field(
        default_factory=_from_start("materials"), min_length=1, max_length=200, validate_default=True
    )
    boxes: list[BoxEntry] = Field(
        default_factory=_from_start("boxes"), max_length=2000, validate_default=True,
        description="new ones on the shelf, used ones in the stash",
    )  # fmt: skip
    mailers: list[PouchEntry] = Field(
        default_factory=_from_start("mailers"), max_length=500, validate_default=True,
        description="mailers and bags that are there",
    )  # fmt: skip
    patterns: list[PatternEntry] = Field(
        default_factory=list, max_length=200, description="re-cut boxes that worked, to be made again"
    )
    designs: list[DesignEntry] = Field(default_factory=list, max_length=100, description="blanks of the shop's own")
    printer: str = Field(
        "", max_length=200, description="address of the label printer: https, or http on this machine; nothing for none"
    )
    copies_days: int = Field(
        30, ge=1, le=3650, description="a copy of the shop is made each day it is served, and kept for so many days"
    )
    wires: list[WireEntry] = Field(default_factory=list, max_length=12, description="carriers asked over the network")
    habits: list[ExtraEntry] = Field(
        default_factory=_from_start("habits"), max_length=20, validate_default=True,
        description="what goes into every parcel unless it is taken off the list",
    )  # fmt: skip

    @model_validator(mode="before")
    @classmethod
    def _of_before(cls, content: Any) -> Any:
        return with_allowances(content, "allowances")

    def to_core(self) -> Shop:
        """Raises BadInput naming the first field that cannot be used."""
        units: Units = self.units
        if self.postcode:
            read_postcode(self.postcode, "postcode")
        grades = {
            board.code: read_board(board, units, self.currency, f"boards[{n}]") for n, board in enumerate(self.boards)
        }
        if self.default_board not in grades:
            raise BadInput(
                "not a board of this shop", read=self.default_board, allowed=", ".join(grades), field="default_board"
            )
        for n, wire in enumerate(self.wires):
            _check_address(wire.address, f"wires[{n}].address", "a carrier is asked")
        if self.printer:
            _check_address(self.printer, "printer", "a printer is reached")
        for n, habit in enumerate(self.habits):
            if habit.size is not None:
                to_sizes(habit.size, units, f"habits[{n}].size")
        return Shop(
            units=units,
            currency=self.currency,
            labour_per_hour=to_money(self.labour_per_hour, self.currency, "labour_per_hour"),
            pack_minutes=Fraction(self.pack_minutes),
            wrap_minutes=Fraction(self.wrap_minutes),
            gaps=tuple(
                sorted(
                    (entry.bears, to_length(entry.gap, units, f"gaps[{n}].gap", zero=True, most=_ALLOWANCE_MOST))
                    for n, entry in enumerate(self.gaps)
                )
            ),
            cushion_factor=Fraction(str(self.cushion_factor)),
            default_gap=to_length(self.gap, units, "gap", zero=True, most=_ALLOWANCE_MOST),
            allowances=Allowances.of(
                {name: _allowance(name, said, units) for name, said in self.allowances.items()},
                step=on_the_tape(to_length(self.fence_step, units, "fence_step"), units),
            ),
            exchange=Exchange(self.currency, {code: _rate(code, text) for code, text in self.rates.items()}),
            trust=Trust(
                Fraction(self.used_percent, 100),
                Fraction(self.recut_percent, 100),
                Fraction(self.damp_percent, 100),
                Fraction(self.stack_safety),
            ),
            dear_from=to_money(self.dear_from, self.currency, "dear_from"),
            cover_from=to_money(self.cover_from, self.currency, "cover_from"),
            sign_from=to_money(self.sign_from, self.currency, "sign_from"),
            channels=tuple(read_channel(one, units, f"channels[{n}]") for n, one in enumerate(self.channels)),
            country=self.country,
            rules=tuple(read_rule(one, units, self.currency, f"rules[{n}]") for n, one in enumerate(self.rules)),
            soft=SoftGates(
                to_mass(self.soft.heaviest, units, "soft.heaviest"),
                read_fragility(self.soft.fragility, "soft.fragility"),
            ),
            making=tuple((way, Fraction(said)) for way, said in self.minutes.items()),
            kerf=to_length(self.kerf, units, "kerf", zero=True, most=_ALLOWANCE_MOST),
            offcut_least=to_length(self.offcut_least, units, "offcut_least", most=_DEEPEST),
            fills=tuple(
                _fill(entry, units, self.currency, path)
                for entry, path in ((self.fill, "fill"), *((one, f"fills[{n}]") for n, one in enumerate(self.fills)))
            ),
            tape=Tape(
                to_mass(self.tape.weight_per_m, units, "tape.weight_per_m", zero=True),
                to_money(self.tape.price_per_100_m, self.currency, "tape.price_per_100_m"),
            ),
            grades=grades,
            default_grade=self.default_board,
            materials=read_materials(self.materials, units, self.currency, grades),
            bubbles=self.bubbles,
            supplies=Supplies(
                {one.code: Fraction(str(one.left)) for one in self.materials if one.left is not None},
                {one.name: Fraction(str(one.left)) for one in (self.fill, *self.fills) if one.left is not None},
                None if self.tape.left is None else Fraction(str(self.tape.left)),
            ),
            stock=Stock(
                tuple(read_box(box, units, self.currency, grades, f"boxes[{n}]") for n, box in enumerate(self.boxes)),
                tuple(read_pouch(one, units, self.currency, f"mailers[{n}]") for n, one in enumerate(self.mailers)),
                tuple(read_design(one, units, grades, f"designs[{n}]") for n, one in enumerate(self.designs)),
                tuple(
                    Pattern(one.name, one.box, to_sizes(one.inside, units, f"patterns[{n}].inside"))
                    for n, one in enumerate(self.patterns)
                ),
            ),
        )


def _fill(entry: FillEntry, units: Units, currency: str, path: str) -> Fill:
    return Fill(
        entry.name, to_mass(entry.weight_per_litre, units, f"{path}.weight_per_litre", zero=True),
        to_money(entry.price_per_100_litres, currency, f"{path}.price_per_100_litres"), entry.form,
        None if entry.each_litres is None else Fraction(str(entry.each_litres)),
    )  # fmt: skip


def _allowance(name: str, said: str | float, units: Units) -> Length:
    one = ALLOWANCES[name]
    return to_length(said, units, f"allowances.{name}", zero=one.zero, most=one.most)


def starting_shop() -> ShopFile:
    """The shop as it is before anyone has changed it."""
    return ShopFile.model_validate(tomllib.loads(_start()))


def _start() -> str:
    return files("fardo.files").joinpath("start/shop.toml").read_text("utf-8")


def _check_address(address: str, field: str, at: str) -> None:
    """What is declared, bought and printed does not go over a network in clear, except inside this machine."""
    parts = urlsplit(address)
    here = parts.hostname in ("127.0.0.1", "localhost", "::1")
    if not parts.hostname or parts.scheme not in ("https", "http") or (parts.scheme == "http" and not here):
        allowed = "https://..., or http:// on this machine"
        raise BadInput(f"not an address {at} at", read=address, allowed=allowed, field=field)


def _rate(code: str, text: str) -> Fraction:
    field = f"rates.{code}"
    if not (len(code) == 3 and code.isascii() and code.isupper()):
        raise BadInput("not a currency", read=code, allowed="three capital letters, such as EUR", field="rates")
    return read_decimal(text, most=_MOST_RATE, more_than_least=True, example="1.08", field=field)
