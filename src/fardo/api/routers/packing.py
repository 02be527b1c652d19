"""How a job is packed: its steps in order, and what is fetched before."""

from __future__ import annotations

from datetime import UTC, datetime
from fractions import Fraction

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import Context
from fardo.api.job_papers import facts_of
from fardo.api.packing import (
    EXAMPLE_TICK,
    PackingView,
    TickView,
    drawn_to_pack,
    inside_mm,
    read_ticks,
    view_fetched,
    view_step,
    view_things,
    view_tick,
)
from fardo.api.resource import resource
from fardo.core.make import called
from fardo.core.pack.fetch import Fetched, to_fetch
from fardo.core.pack.steps import packing_steps
from fardo.core.quantity import show_length
from fardo.files.job_papers import PAPER_TITLES, papers_of

router = resource("/api/jobs/{key}/packing", "packing")


@router.get("")
def packing(key: str, context: Context) -> PackingView:
    """The packing steps of a job in the box that was chosen, or in the best there is while none is."""
    drawn = job, today, picture, to_pack = drawn_to_pack(key, context)
    boxed, shop, steps = to_pack.boxed, today.shop, packing_steps(to_pack)
    fetched = to_fetch(steps, picture.job.shop_for(shop).stock, shop.supplies)
    papers = ["label", *(PAPER_TITLES[name] for name in papers_of(facts_of(key, drawn, context)))]
    papers += ["cut sheet"] if boxed.blanks else []
    return PackingView(
        title=job.title or "Untitled job",
        box=called(boxed.made),
        chosen=picture.job.box is not None,
        minutes=round(boxed.minutes),
        fetch=view_fetched((*fetched, *(Fetched("Papers", name, Fraction(1)) for name in papers)), shop.units),
        steps=[view_step(step, shop.units) for step in steps],
        sides=[show_length(side, shop.units, "nearest").text for side in boxed.arrangement.inside],
        inside_mm=inside_mm(boxed),
        things=view_things(boxed),
        ticks=[view_tick(tick) for tick in context.ticks.of(key)],
    )


class TicksMade(BaseModel):
    """What a device ticked since it last said so."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"ticks": [EXAMPLE_TICK]}]})
    ticks: list[TickView] = Field(max_length=500)


@router.get("/ticks")
def ticks(key: str, context: Context) -> list[TickView]:
    """All ticks of a job, of every device, in the order in which they were made."""
    return [view_tick(one) for one in context.ticks.of(key)]


@router.post("/ticks")
def tick(key: str, made: TicksMade, context: Context) -> list[TickView]:
    """Keeps ticks; one that is known by its name is passed over. All ticks of the job, of every device."""
    return [view_tick(one) for one in context.ticks.keep(key, read_ticks(made.ticks, datetime.now(UTC)))]
