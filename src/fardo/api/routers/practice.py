"""The practice job: begun, and looked over as it is typed."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import Context
from fardo.api.resource import resource
from fardo.api.routers.jobs import view as view_job
from fardo.api.views import JobView
from fardo.core.plan.practice import practice_goods, practice_steps
from fardo.core.quantity import Length, Units, read_length
from fardo.core.refusal import BadInput
from fardo.files.job import EXAMPLE, JobFile, PartEntry

router = resource("/api/practice", "shop")

_TITLE, _NAME = "Practice: a hand reel", "hand reel"


class PracticeRequest(BaseModel):
    """The practice job as it is typed, and what somebody says the fence is set to first."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "first_cut": "24 1/4"}]})
    job: JobFile
    first_cut: str = Field("", max_length=60)


class TapeView(BaseModel):
    """A tape along a side of the reel."""

    side: Literal["length", "width", "height"]
    ends_mm: float = Field(description="where the side ends on it")


class PracticeStepView(BaseModel):
    """One thing to do."""

    key: str
    title: str
    says: str
    knot: Literal["measure", "protect", "box", "price"] = Field(description="where it is done")
    done: bool
    off: list[str] = Field(description="what is not right yet")


class PracticeView(BaseModel):
    """What there is to do, and what lies on the bench."""

    steps: list[PracticeStepView]
    tapes: list[TapeView]


@router.post("", status_code=201)
def begin(context: Context) -> JobView:
    """Starts a job to practise on: one part, not measured yet."""
    job = JobFile(title=_TITLE, practice=True, value="60.00", parts=[PartEntry(name=_NAME)])
    return view_job(context.jobs.add(job))


@router.post("/steps")
def look_over(request: PracticeRequest, context: Context) -> PracticeView:
    """What there is to do with it, and what is done; saves nothing."""
    today = context.today
    units = today.shop.units
    steps = practice_steps(today.draw_up(request.job), units, _read(request.first_cut, units))
    return PracticeView(
        steps=[PracticeStepView.model_validate(one, from_attributes=True) for one in steps],
        tapes=[TapeView(side=side, ends_mm=ends.mm) for side, ends in practice_goods(units).sides],
    )


def _read(typed: str, units: Units) -> Length | None:
    """What is half typed says nothing yet."""
    try:
        return read_length(typed, units, field="first_cut") if typed.strip() else None
    except BadInput:
        return None
