"""The figures a chosen box was worked out by, kept with the job, so that a correction later does not change it."""

from __future__ import annotations

from pydantic import Field

from fardo.core.make.made import Allowances
from fardo.core.plan.cut_by import CutBy as Figures
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

    def to_core(self) -> Figures:
        a, b, c = (Length.of_mm(max(-_MOST, min(_MOST, side))) for side in self.trim_mm)
        lengths = {name: Length.of_mm(getattr(self, f"{name}_mm")) for name in _NAMES}
        step = None if self.step_mm is None else Length.of_mm(self.step_mm)
        return Figures(Length.of_mm(self.caliper_mm), (a, b, c), Allowances(step=step, **lengths))


_NAMES = ("thumb", "slip", "tab", "refold", "overlap", "lid", "floated", "guard", "seams")


def write_cut_by(figures: Figures) -> CutBy:
    """As a job keeps them."""
    a, b, c = (side.mm for side in figures.trim)
    lengths = {f"{name}_mm": getattr(figures.allowances, name).mm for name in _NAMES}
    step = figures.allowances.step.mm if figures.allowances.step else None
    return CutBy(caliper_mm=figures.caliper.mm, trim_mm=(a, b, c), step_mm=step, **lengths)
