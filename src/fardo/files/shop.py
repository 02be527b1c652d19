"""The shop file: what a shop brings to every job. The starting values are in ``start/shop.toml``."""

from __future__ import annotations

import tomllib
from collections.abc import Callable
from fractions import Fraction
from importlib.resources import files
from typing import Any, Literal
from urllib.parse import urlsplit

from pydantic import Field

from fardo.core.board.grade import Grade, Sheet, trim_measured
from fardo.core.cut.drawing import Line
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS
from fardo.core.make.made import Allowances
from fardo.core.make.stock import OwnBlank, Pouch, Stock, StockBox
from fardo.core.plan.shop import Shop, Tape
from fardo.core.protect.fill import Fill
from fardo.core.protect.material import Material
from fardo.core.quantity import ZERO, Length, Mass, Money, Units
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import read_postcode
from fardo.files.blank_in import LONGEST_MM, blank_of
from fardo.files.typed import ExtraEntry, Measure, Strict, TypedSizes, to_length, to_mass, to_sizes

_CALIPER_MOST = Length.of_mm(50)
_ALLOWANCE_MOST = Length.of_mm(200)
MOST_SHEETS = 60
_DEEPEST = Length.of_mm(1000)


class SheetEntry(Strict):
    length: Measure
    width: Measure
    flutes: Literal["length", "width"] = Field("width", description="the side of the sheet they run along")
    count: int | None = Field(None, ge=0, le=100_000, description="how many are in stock; nothing said: enough")
    offcut: bool = Field(False, description="left over of a sheet")


def write_sheet(sheet: Sheet, was: SheetEntry | None) -> SheetEntry:
    """A sheet as the shop keeps it; one that was there keeps its sizes as they were typed."""
    if was is not None:
        return was.model_copy(update={"count": sheet.count})
    flutes: Literal["length", "width"] = "length" if sheet.flutes_along else "width"
    return SheetEntry(
        length=sheet.length.mm, width=sheet.width.mm, flutes=flutes, count=sheet.count, offcut=sheet.offcut
    )


class MeasuredCut(Strict):
    """A box that was cut on this board: the inside its cut sheet promised, and what the tape said."""

    way: str = Field(max_length=20)
    promised: TypedSizes
    measured: TypedSizes


class BoardEntry(Strict):
    code: str = Field(min_length=1, max_length=20)
    name: str = Field(max_length=80)
    walls: int = Field(ge=1, le=3)
    caliper: Measure
    edge_crush: int = Field(ge=1, le=1000, description="lb per inch")
    weight_per_m2: Measure
    price_per_m2: str
    sheets: list[SheetEntry] = Field(min_length=1, max_length=MOST_SHEETS)
    measured: list[MeasuredCut] = Field(
        default_factory=list, max_length=40, description="boxes that were cut and measured; their way is corrected"
    )


class FillEntry(Strict):
    name: str = Field(max_length=80)
    weight_per_litre: Measure
    price_per_100_litres: str


class TapeEntry(Strict):
    weight_per_m: Measure
    price_per_100_m: str


FormName = Literal[
    "surface", "bag", "stuffing", "corner", "face", "edge", "tube", "wrap", "pad", "box", "liner"
]  # fmt: skip


class MaterialEntry(Strict):
    """What things are wrapped in, as the shop buys it."""

    code: str = Field(min_length=1, max_length=40)
    name: str = Field(min_length=1, max_length=80)
    form: FormName = Field(description="how it is put on")
    thickness: Measure = Field(description="of one layer, pressed lightly")
    sold: Literal["m2", "m", "litre", "each"]
    weight_per: Measure = Field(description="of one square metre, metre, litre or piece")
    price_per_100: str
    width: Measure | None = Field(None, description="of the roll; nothing where it is cut to any width")
    overlap: int = Field(0, ge=0, le=100, description="per cent of a length, where it meets itself")
    bubbly: bool = Field(False, description="it has a smooth and a bubble side")
    cushions: bool = Field(False, description="its thickness counts against a blow")
    inner: Measure | None = Field(None, description="the widest tube it goes over")
    reach: Measure | None = Field(None, description="how far a corner guard goes along the face")
    board: str | None = Field(None, max_length=20, description="what an inner box is made of")


class BoxEntry(Strict):
    """A box that is there: new on the shelf, or used in the stash."""

    name: str = Field(min_length=1, max_length=80)
    inside: TypedSizes = Field(description="its longer opening side first, height last")
    board: str = Field(max_length=20)
    price: str = Field("0.00", description="of one")
    count: int = Field(1, ge=0, le=100_000)
    used: bool = False
    carrier: str = Field("", max_length=80, description="whose container it is; only that carrier's services take it")


class PouchEntry(Strict):
    """A mailer or a bag that is there, measured flat, inside its seams."""

    name: str = Field(min_length=1, max_length=80)
    kind: Literal["flat", "rigid", "padded", "bag"]
    width: Measure
    length: Measure = Field(description="it opens at one end of it")
    wall: Measure = Field("1/64 in", description="thickness of one side")
    thickest: Measure | None = Field(None, description="what a flat or rigid one takes at most")
    weight: Measure
    price: str = Field("0.00", description="of one")
    count: int = Field(1, ge=0, le=100_000)
    carrier: str = Field("", max_length=80, description="whose it is; only that carrier's services take it")


class DesignLine(Strict):
    kind: Literal["cut", "score", "second-score", "slot", "old-fold"]
    from_mm: tuple[float, float]
    to_mm: tuple[float, float]
    folds: int = Field(90, ge=-180, le=180, description="degrees by which a score folds up")


class DesignEntry(Strict):
    """A blank of the shop's own, read in from a drawing, and what box it folds to."""

    name: str = Field(min_length=1, max_length=60)
    board: str = Field(max_length=20)
    inside: TypedSizes
    outside: TypedSizes
    lines: list[DesignLine] = Field(min_length=3, max_length=400)


class WireEntry(Strict):
    """A carrier that is asked over the network too, beside its tariff."""

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
    thumb: Measure
    slip: Measure
    tab: Measure
    refold: Measure = Field("1/4 in", description="what moved corners take of a re-cut box, at the bench")
    overlap: Measure = Field("2 in", description="least of the flaps at the joint of a telescoped stack")
    lid: Measure = Field("3 in", description="depth of a lid that does not reach the table")
    floated: Measure = Field("2 in", description="what an inner box keeps from the outer one; an inch at least")
    guard: Measure = Field("1 in", description="how deep the hollow edges of a folder are")
    seams: Measure = Field("1/2 in", description="what a mailer's seams and closing take of width and of length")
    kerf: Measure = Field("1/8 in", description="what the shop's saw takes at every cut")
    offcut_least: Measure = Field("12 in", description="the shorter side of an off-cut that is worth keeping")
    fence_step: Literal["1/16 in", "1/32 in", "1 mm"]
    fill: FillEntry
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
    designs: list[DesignEntry] = Field(default_factory=list, max_length=100, description="blanks of the shop's own")
    wires: list[WireEntry] = Field(default_factory=list, max_length=12, description="carriers asked over the network")
    habits: list[ExtraEntry] = Field(
        default_factory=_from_start("habits"), max_length=20, validate_default=True,
        description="what goes into every parcel unless it is taken off the list",
    )  # fmt: skip

    def to_core(self) -> Shop:
        """Raises BadInput naming the first field that cannot be used."""
        units: Units = self.units
        money = _money(self.currency)
        if self.postcode:
            read_postcode(self.postcode, "postcode")
        grades = {
            board.code: _grade(board, units, self.currency, f"boards[{n}]") for n, board in enumerate(self.boards)
        }
        if self.default_board not in grades:
            raise BadInput(
                "not a board of this shop", read=self.default_board, allowed=", ".join(grades), field="default_board"
            )
        for n, wire in enumerate(self.wires):
            _check_address(wire.address, f"wires[{n}].address")
        for n, habit in enumerate(self.habits):
            if habit.size is not None:
                to_sizes(habit.size, units, f"habits[{n}].size")
        return Shop(
            units=units,
            currency=self.currency,
            labour_per_hour=money(self.labour_per_hour, "labour_per_hour"),
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
            allowances=Allowances(
                thumb=to_length(self.thumb, units, "thumb", zero=True, most=_ALLOWANCE_MOST),
                slip=to_length(self.slip, units, "slip", zero=True, most=_ALLOWANCE_MOST),
                tab=to_length(self.tab, units, "tab", most=_ALLOWANCE_MOST),
                refold=to_length(self.refold, units, "refold", zero=True, most=_ALLOWANCE_MOST),
                overlap=to_length(self.overlap, units, "overlap", most=_ALLOWANCE_MOST),
                lid=to_length(self.lid, units, "lid", most=_DEEPEST),
                floated=to_length(self.floated, units, "floated", most=_ALLOWANCE_MOST),
                guard=to_length(self.guard, units, "guard", most=_ALLOWANCE_MOST),
                seams=to_length(self.seams, units, "seams", zero=True, most=_ALLOWANCE_MOST),
                step=to_length(self.fence_step, units, "fence_step"),
            ),
            exchange=Exchange(self.currency, {code: _rate(code, text) for code, text in self.rates.items()}),
            kerf=to_length(self.kerf, units, "kerf", zero=True, most=_ALLOWANCE_MOST),
            offcut_least=to_length(self.offcut_least, units, "offcut_least", most=_DEEPEST),
            fill=Fill(
                self.fill.name,
                to_mass(self.fill.weight_per_litre, units, "fill.weight_per_litre", zero=True),
                money(self.fill.price_per_100_litres, "fill.price_per_100_litres"),
            ),
            tape=Tape(
                to_mass(self.tape.weight_per_m, units, "tape.weight_per_m", zero=True),
                money(self.tape.price_per_100_m, "tape.price_per_100_m"),
            ),
            grades=grades,
            default_grade=self.default_board,
            materials=_materials(self.materials, units, self.currency, grades),
            bubbles=self.bubbles,
            stock=Stock(
                tuple(_box(box, units, self.currency, grades, f"boxes[{n}]") for n, box in enumerate(self.boxes)),
                tuple(_pouch(one, units, self.currency, f"mailers[{n}]") for n, one in enumerate(self.mailers)),
                tuple(_design(one, units, grades, f"designs[{n}]") for n, one in enumerate(self.designs)),
            ),
        )


def starting_shop() -> ShopFile:
    """The shop as it is before anyone has changed it."""
    return ShopFile.model_validate(tomllib.loads(_start()))


def _start() -> str:
    return files("fardo.files").joinpath("start/shop.toml").read_text("utf-8")


def _check_address(address: str, field: str) -> None:
    """What is declared and bought does not go over a network in clear, except inside this machine."""
    parts = urlsplit(address)
    here = parts.hostname in ("127.0.0.1", "localhost", "::1")
    if not parts.hostname or parts.scheme not in ("https", "http") or (parts.scheme == "http" and not here):
        allowed = "https://..., or http:// on this machine"
        raise BadInput("not an address a carrier is asked at", read=address, allowed=allowed, field=field)


def _money(currency: str) -> Callable[[str, str], Money]:
    """A reader of amounts of one currency, which names the field in a refusal."""

    def read(text: str, field: str) -> Money:
        try:
            return Money.read(text, currency)
        except BadInput as problem:
            raise problem.under(field) from problem

    return read


def _rate(code: str, text: str) -> Fraction:
    field = f"rates.{code}"
    if not (len(code) == 3 and code.isascii() and code.isupper()):
        raise BadInput("not a currency", read=code, allowed="three capital letters, such as EUR", field="rates")
    try:
        rate = Fraction(text)
    except (ValueError, ZeroDivisionError) as error:
        raise BadInput("not a rate", read=text, allowed="a decimal such as 1.08", field=field) from error
    if not 0 < rate < 1_000_000:
        raise BadInput("not a rate", read=text, allowed="more than nothing, under a million", field=field)
    return rate


def _box(box: BoxEntry, units: Units, currency: str, grades: dict[str, Grade], path: str) -> StockBox:
    if box.board not in grades:
        raise BadInput("not a board of this shop", read=box.board, allowed=", ".join(grades), field=f"{path}.board")
    length, width, height = to_sizes(box.inside, units, f"{path}.inside")
    return StockBox(
        box.name, (max(length, width), min(length, width), height), grades[box.board],
        _money(currency)(box.price, f"{path}.price"), box.count, box.used, box.carrier,
    )  # fmt: skip


def _pouch(entry: PouchEntry, units: Units, currency: str, path: str) -> Pouch:
    return Pouch(
        entry.name, entry.kind,
        to_length(entry.width, units, f"{path}.width"), to_length(entry.length, units, f"{path}.length"),
        to_length(entry.wall, units, f"{path}.wall", zero=True, most=_CALIPER_MOST),
        None if entry.thickest is None else to_length(entry.thickest, units, f"{path}.thickest"),
        to_mass(entry.weight, units, f"{path}.weight", zero=True),
        _money(currency)(entry.price, f"{path}.price"), entry.count, entry.carrier,
    )  # fmt: skip


def _design(entry: DesignEntry, units: Units, grades: dict[str, Grade], path: str) -> OwnBlank:
    if entry.board not in grades:
        raise BadInput("not a board of this shop", read=entry.board, allowed=", ".join(grades), field=f"{path}.board")
    inside, outside = to_sizes(entry.inside, units, f"{path}.inside"), to_sizes(entry.outside, units, f"{path}.outside")
    for inner, outer in zip(inside, outside, strict=True):
        if outer <= inner:
            raise BadInput(
                "no larger than its inside", read=f"{outer.mm:g} mm", allowed=f"more than {inner.mm:g} mm",
                field=f"{path}.outside",
            )  # fmt: skip
    lines = [Line(one.kind, _point(one.from_mm, path), _point(one.to_mm, path), one.folds) for one in entry.lines]
    try:
        blank = blank_of(entry.name, lines)
    except BadInput as problem:
        raise BadInput(problem.why, read=problem.read, allowed=problem.allowed, field=f"{path}.lines") from problem
    return OwnBlank(entry.name, blank, inside, outside, grades[entry.board])


def _point(at: tuple[float, float], path: str) -> tuple[Length, Length]:
    for value in at:
        if not abs(value) <= LONGEST_MM:
            raise BadInput("a line far out", read=f"{value:g} mm", allowed="within 10 m", field=f"{path}.lines")
    return Length.of_mm(round(at[0], 6)), Length.of_mm(round(at[1], 6))


def _grade(board: BoardEntry, units: Units, currency: str, path: str) -> Grade:
    return Grade(
        code=board.code,
        name=board.name,
        walls=board.walls,
        caliper=to_length(board.caliper, units, f"{path}.caliper", most=_CALIPER_MOST),
        edge_crush=board.edge_crush,
        weight_per_m2=to_mass(board.weight_per_m2, units, f"{path}.weight_per_m2", most=Mass.of_grams(20_000)),
        price_per_m2=_money(currency)(board.price_per_m2, f"{path}.price_per_m2"),
        sheets=tuple(
            Sheet(
                to_length(sheet.length, units, f"{path}.sheets[{n}].length"),
                to_length(sheet.width, units, f"{path}.sheets[{n}].width"),
                sheet.flutes == "length",
                sheet.count,
                sheet.offcut,
            )
            for n, sheet in enumerate(board.sheets)
        ),
        trims=tuple(_trim(one, units, f"{path}.measured[{n}]") for n, one in enumerate(board.measured)),
    )


def _trim(cut: MeasuredCut, units: Units, path: str) -> tuple[str, Sizes]:
    """What boxes of a way come out smaller than they are reckoned, each side; less than nothing where larger."""
    if cut.way not in WAYS or WAYS[cut.way].NEEDS != "sheet":
        allowed = ", ".join(name for name, way in WAYS.items() if way.NEEDS == "sheet")
        raise BadInput("not a way that is cut from sheet", read=cut.way, allowed=allowed, field=f"{path}.way")
    promised = to_sizes(cut.promised, units, f"{path}.promised")
    found = to_sizes(cut.measured, units, f"{path}.measured")
    try:
        return cut.way, trim_measured(promised, found)
    except BadInput as problem:
        raise problem.under(path) from problem


def _materials(
    entries: list[MaterialEntry], units: Units, currency: str, grades: dict[str, Grade]
) -> dict[str, Material]:
    made: dict[str, Material] = {}
    for n, entry in enumerate(entries):
        path = f"materials[{n}]"
        if entry.code in made:
            raise BadInput("twice the same code", read=entry.code, allowed="a code of its own", field=f"{path}.code")
        if entry.form == "box" and entry.board not in grades:
            raise BadInput(
                "not a board of this shop", read=entry.board, allowed=", ".join(grades), field=f"{path}.board"
            )
        made[entry.code] = _material(entry, units, currency, path)
    return made


def _material(entry: MaterialEntry, units: Units, currency: str, path: str) -> Material:
    def optional(name: Literal["width", "inner", "reach"]) -> Length | None:
        value = getattr(entry, name)
        return None if value is None else to_length(value, units, f"{path}.{name}")

    return Material(
        code=entry.code,
        name=entry.name,
        form=entry.form,
        thickness=to_length(entry.thickness, units, f"{path}.thickness", zero=True, most=_ALLOWANCE_MOST),
        sold=entry.sold,
        weight_per=to_mass(entry.weight_per, units, f"{path}.weight_per", zero=True),
        price_per_100=_money(currency)(entry.price_per_100, f"{path}.price_per_100"),
        width=optional("width"),
        overlap=Fraction(entry.overlap, 100),
        bubbly=entry.bubbly,
        inner=optional("inner"),
        reach=optional("reach") or ZERO,
        board=entry.board,
        cushions=entry.cushions,
    )
