"""The shop file: what a shop brings to every job. The starting values are in ``start/shop.toml``."""

from __future__ import annotations

import tomllib
from collections.abc import Callable
from fractions import Fraction
from importlib.resources import files
from typing import Literal

from pydantic import Field

from fardo.core.board.grade import Grade, Sheet
from fardo.core.make.made import Allowances
from fardo.core.plan.shop import Shop, Tape
from fardo.core.protect.fill import Fill
from fardo.core.quantity import Length, Mass, Money, Units
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import read_postcode
from fardo.files.typed import Measure, Strict, to_length, to_mass

_CALIPER_MOST = Length.of_mm(50)
_ALLOWANCE_MOST = Length.of_mm(200)


class SheetEntry(Strict):
    length: Measure
    width: Measure


class BoardEntry(Strict):
    code: str = Field(min_length=1, max_length=20)
    name: str = Field(max_length=80)
    walls: int = Field(ge=1, le=3)
    caliper: Measure
    edge_crush: int = Field(ge=1, le=1000, description="lb per inch")
    weight_per_m2: Measure
    price_per_m2: str
    sheets: list[SheetEntry] = Field(min_length=1, max_length=20)


class FillEntry(Strict):
    name: str = Field(max_length=80)
    weight_per_litre: Measure
    price_per_100_litres: str


class TapeEntry(Strict):
    weight_per_m: Measure
    price_per_100_m: str


class ShopFile(Strict):
    """Everything a shop can set. Lengths are millimetres and weights grams where they are numbers."""

    name: str = Field("", max_length=120)
    town: str = Field("", max_length=120)
    postcode: str = Field("", max_length=20)
    units: Literal["in", "cm"] = "in"
    paper: Literal["letter", "a4"] = "letter"
    currency: str
    labour_per_hour: str
    pack_minutes: int = Field(ge=0, le=600)
    gap: Measure
    thumb: Measure
    slip: Measure
    tab: Measure
    fence_step: Literal["1/16 in", "1/32 in", "1 mm"]
    fill: FillEntry
    tape: TapeEntry
    boards: list[BoardEntry] = Field(min_length=1, max_length=40)
    default_board: str

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
        return Shop(
            units=units,
            currency=self.currency,
            labour_per_hour=money(self.labour_per_hour, "labour_per_hour"),
            pack_minutes=Fraction(self.pack_minutes),
            default_gap=to_length(self.gap, units, "gap", zero=True, most=_ALLOWANCE_MOST),
            allowances=Allowances(
                thumb=to_length(self.thumb, units, "thumb", zero=True, most=_ALLOWANCE_MOST),
                slip=to_length(self.slip, units, "slip", zero=True, most=_ALLOWANCE_MOST),
                tab=to_length(self.tab, units, "tab", most=_ALLOWANCE_MOST),
                step=to_length(self.fence_step, units, "fence_step"),
            ),
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
        )


def starting_shop() -> ShopFile:
    """The shop as it is before anyone has changed it."""
    return ShopFile.model_validate(tomllib.loads(files("fardo.files").joinpath("start/shop.toml").read_text("utf-8")))


def _money(currency: str) -> Callable[[str, str], Money]:
    """A reader of amounts of one currency, which names the field in a refusal."""

    def read(text: str, field: str) -> Money:
        try:
            return Money.read(text, currency)
        except BadInput as problem:
            raise problem.under(field) from problem

    return read


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
            )
            for n, sheet in enumerate(board.sheets)
        ),
    )
