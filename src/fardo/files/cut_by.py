"""The figures a chosen box was worked out by, kept with the job, so that a correction later does not change it."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, model_validator

from fardo.core.make.allowances import ALLOWANCES, Allowances
from fardo.core.plan.cut_by import CutBy as Figures
from fardo.core.quantity import Length
from fardo.files.family import AllowanceName, with_allowances
from fardo.files.typed import Strict

_MOST = 1000.0  # mm: beyond it nothing is an allowance


class CutBy(Strict):
    """In millimetres. `trim_mm` is what such a box comes out smaller than reckoned, as the shop had measured it."""

    caliper_mm: float = Field(gt=0, le=50)
    trim_mm: tuple[float, float, float] = Field(description="length, width, height")
    allowances_mm: dict[AllowanceName, Annotated[float, Field(ge=0, le=_MOST)]] = Field(
        default_factory=dict, max_length=60, description="each by its name"
    )
    step_mm: float | None = Field(None, gt=0, le=_MOST)

    @model_validator(mode="before")
    @classmethod
    def _of_before(cls, content: Any) -> Any:
        return with_allowances(content, "allowances_mm", "_mm")

    def to_core(self) -> Figures:
        a, b, c = (Length.of_mm(max(-_MOST, min(_MOST, side))) for side in self.trim_mm)
        lengths = {name: Length.of_mm(said) for name, said in self.allowances_mm.items()}
        step = None if self.step_mm is None else Length.of_mm(self.step_mm)
        return Figures(Length.of_mm(self.caliper_mm), (a, b, c), Allowances.of(lengths, step))


def write_cut_by(figures: Figures) -> CutBy:
    """As a job keeps them: every allowance there is, so that none is changed by a starting value either."""
    a, b, c = (side.mm for side in figures.trim)
    allowances = figures.allowances
    return CutBy(
        caliper_mm=figures.caliper.mm, trim_mm=(a, b, c), step_mm=allowances.step.mm if allowances.step else None,
        allowances_mm={name: allowances[one].mm for name, one in ALLOWANCES.items()},
    )  # fmt: skip
