"""The allowances a chosen box was worked out by, kept with the job, so that a correction later does not change it."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from fardo.core.board.grade import Grade
from fardo.core.make.made import Allowances
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length
from fardo.files.typed import Strict

_MOST = 1000.0  # mm: beyond it nothing is an allowance


class CutBy(Strict):
    """In millimetres. `trim_mm` is what such a box comes out smaller than reckoned, as the shop had measured it."""

    caliper_mm: float = Field(gt=0, le=50)
    trim_mm: tuple[float, float, float] = Field(description="length, width, height")
    thumb_mm: float = Field(ge=0, le=_MOST)
    slip_mm: float = Field(ge=0, le=_MOST)
    tab_mm: float = Field(gt=0, le=_MOST)
    refold_mm: float = Field(ge=0, le=_MOST)
    overlap_mm: float = Field(gt=0, le=_MOST)
    lid_mm: float = Field(gt=0, le=_MOST)
    floated_mm: float = Field(gt=0, le=_MOST)
    guard_mm: float = Field(gt=0, le=_MOST)
    seams_mm: float = Field(ge=0, le=_MOST)
    step_mm: float | None = Field(None, gt=0, le=_MOST)


_NAMES = ("thumb", "slip", "tab", "refold", "overlap", "lid", "floated", "guard", "seams")


def cut_by(way: str, grade: Grade, allowances: Allowances) -> CutBy:
    """What a box of that way is worked out by now."""
    a, b, c = (side.mm for side in grade.trim(way))
    lengths = {f"{name}_mm": getattr(allowances, name).mm for name in _NAMES}
    step = allowances.step.mm if allowances.step else None
    return CutBy(caliper_mm=grade.caliper.mm, trim_mm=(a, b, c), step_mm=step, **lengths)


def by(kept: CutBy, way: str, grade: Grade, shop: Shop) -> tuple[Grade, Shop]:
    """Board and shop as they were when a box of that way was chosen."""
    a, b, c = (Length.of_mm(max(-_MOST, min(_MOST, side))) for side in kept.trim_mm)
    lengths = {name: Length.of_mm(getattr(kept, f"{name}_mm")) for name in _NAMES}
    step = None if kept.step_mm is None else Length.of_mm(kept.step_mm)
    was = replace(shop.allowances, step=step, **lengths)
    was_board = replace(grade, caliper=Length.of_mm(kept.caliper_mm), trims=((way, (a, b, c)),))
    return was_board, replace(shop, allowances=was)
