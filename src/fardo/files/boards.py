"""Board as the shop keeps it: its figures, the sheets in stock, and what boxes cut of it came out like."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from fardo.core.board.grade import Grade, Sheet, trim_measured
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length, Mass, Units
from fardo.core.refusal import BadInput
from fardo.files.family import CutWayName
from fardo.files.typed import Measure, Strict, TypedSizes, Weight, to_length, to_mass, to_money, to_sizes

CALIPER_MOST = Length.of_mm(50)
MOST_SHEETS = 200  # sizes of sheets and off-cuts


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

    way: CutWayName
    promised: TypedSizes
    measured: TypedSizes


class BoardEntry(Strict):
    code: str = Field(min_length=1, max_length=20)
    name: str = Field(max_length=80)
    walls: int = Field(ge=1, le=3)
    caliper: Measure
    edge_crush: int = Field(ge=1, le=1000, description="lb per inch")
    weight_per_m2: Weight
    price_per_m2: str
    sheets: list[SheetEntry] = Field(min_length=1, max_length=MOST_SHEETS)
    measured: list[MeasuredCut] = Field(
        default_factory=list, max_length=40, description="boxes that were cut and measured; their way is corrected"
    )


def read_board(board: BoardEntry, units: Units, currency: str, path: str) -> Grade:
    """Raises BadInput naming the field under `path`."""
    return Grade(
        code=board.code,
        name=board.name,
        walls=board.walls,
        caliper=to_length(board.caliper, units, f"{path}.caliper", most=CALIPER_MOST),
        edge_crush=board.edge_crush,
        weight_per_m2=to_mass(board.weight_per_m2, units, f"{path}.weight_per_m2", most=Mass.of_grams(20_000)),
        price_per_m2=to_money(board.price_per_m2, currency, f"{path}.price_per_m2"),
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
    promised = to_sizes(cut.promised, units, f"{path}.promised")
    found = to_sizes(cut.measured, units, f"{path}.measured")
    try:
        return cut.way, trim_measured(promised, found)
    except BadInput as problem:
        raise problem.under(path) from problem
