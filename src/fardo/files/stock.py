"""What is there to pack in: boxes on the shelf and in the stash, mailers and bags, designs of the shop's own."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from fardo.core.board.grade import Grade
from fardo.core.board.wear import WearCode
from fardo.core.cut.drawing import Line
from fardo.core.make.stock import OwnBlank, Pouch, StockBox
from fardo.core.quantity import Length, Units, show_sizes
from fardo.core.refusal import BadInput
from fardo.files.blank_in import LONGEST_MM, blank_of
from fardo.files.boards import CALIPER_MOST
from fardo.files.typed import Measure, Strict, TypedSizes, Weight, to_length, to_mass, to_money, to_sizes


class BoxEntry(Strict):
    """A box that is there: new on the shelf, or used in the stash."""

    name: str = Field(min_length=1, max_length=80)
    inside: TypedSizes = Field(description="its longer opening side first, height last")
    board: str = Field(max_length=20)
    price: str = Field("0.00", description="of one")
    count: int = Field(1, ge=0, le=100_000)
    used: bool = False
    carrier: str = Field("", max_length=80, description="whose container it is; only that carrier's services take it")
    worn: list[WearCode] = Field(default_factory=list, max_length=4, description="what is so of a used one")
    hollow: TypedSizes | None = Field(None, description="that a maker's own inserts leave in it for the bare goods")


class PatternEntry(Strict):
    """A box made over that worked, to be made again from another of its kind."""

    name: str = Field(min_length=1, max_length=80)
    box: str = Field(min_length=1, max_length=80, description="name of the box it is made from")
    inside: TypedSizes = Field(description="after the folds, its longer side first")


class FoundBoxEntry(Strict):
    """A used box found for one job."""

    name: str = Field("", max_length=80)
    inside: TypedSizes | None = Field(None, description="its longer opening side first, height last")
    board: str | None = Field(None, max_length=20, description="the shop's usual one unless given")
    worn: list[WearCode] = Field(default_factory=list, max_length=4, description="what is so of it")
    hollow: TypedSizes | None = Field(None, description="that a maker's own inserts leave in it for the bare goods")


class ReadyBoxEntry(Strict):
    """A box or a case that is sold ready for a kind of goods, and is asked for in shops."""

    name: str = Field(min_length=1, max_length=80)
    inside: TypedSizes
    where: str = Field("", max_length=120, description="where one gets it")


class PouchEntry(Strict):
    """A mailer or a bag that is there, measured flat, inside its seams."""

    name: str = Field(min_length=1, max_length=80)
    kind: Literal["flat", "rigid", "padded", "bag"]
    width: Measure
    length: Measure = Field(description="it opens at one end of it")
    wall: Measure = Field("1/64 in", description="thickness of one side")
    thickest: Measure | None = Field(None, description="what a flat or rigid one takes at most")
    weight: Weight
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


def read_box(box: BoxEntry, units: Units, currency: str, grades: dict[str, Grade], path: str) -> StockBox:
    if box.board not in grades:
        raise BadInput("not a board of this shop", read=box.board, allowed=", ".join(grades), field=f"{path}.board")
    length, width, height = to_sizes(box.inside, units, f"{path}.inside")
    inside = max(length, width), min(length, width), height
    hollow = None if box.hollow in (None, "") else to_sizes(box.hollow, units, f"{path}.hollow")
    if hollow is not None and any(a > b for a, b in zip(sorted(hollow), sorted(inside), strict=True)):
        raise BadInput(
            "larger than the box around it", read=show_sizes(hollow, units, "nearest").text,
            allowed=f"within {show_sizes(inside, units, 'nearest').text}", field=f"{path}.hollow",
        )  # fmt: skip
    return StockBox(
        box.name, inside, grades[box.board], to_money(box.price, currency, f"{path}.price"), box.count, box.used,
        box.carrier, frozenset(box.worn), hollow,
    )  # fmt: skip


def read_pouch(entry: PouchEntry, units: Units, currency: str, path: str) -> Pouch:
    return Pouch(
        entry.name, entry.kind,
        to_length(entry.width, units, f"{path}.width"), to_length(entry.length, units, f"{path}.length"),
        to_length(entry.wall, units, f"{path}.wall", zero=True, most=CALIPER_MOST),
        None if entry.thickest is None else to_length(entry.thickest, units, f"{path}.thickest"),
        to_mass(entry.weight, units, f"{path}.weight", zero=True),
        to_money(entry.price, currency, f"{path}.price"), entry.count, entry.carrier,
    )  # fmt: skip


def read_design(entry: DesignEntry, units: Units, grades: dict[str, Grade], path: str) -> OwnBlank:
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
