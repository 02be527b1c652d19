"""An arrangement in words: its inside, its air, what it costs in the cheapest way, and what needs fill under it."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, Field

from fardo.api import figure_views
from fardo.api.context import Today
from fardo.api.picture import view_layout
from fardo.api.views import Layout
from fardo.arranging import told
from fardo.core.arrange.ask import Arrangement, Proportion, balance
from fardo.core.arrange.cannot import lacking
from fardo.core.arrange.manual import Fault, faults, hollow_under
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS
from fardo.core.plan.load import Load, air_in, ask_of, saved_room
from fardo.core.quantity import Units, show_length
from fardo.files.arrangement import ArrangementEntry, write_arrangement
from fardo.files.job import JobFile

RunState = Literal["searching", "done", "stopped", "failed"]


class FaultView(BaseModel):
    """What is not kept. `other` is the thing it comes too near, none for a wall or a rule."""

    thing: int
    other: int | None
    says: str


class ArrangedView(BaseModel):
    """One arrangement. `entry` is what a job keeps of it."""

    inside: figure_views.SizesView
    proportion: Proportion
    air_percent: int
    saves_percent: int = Field(description="of the room that everything side by side would take; below 0 it takes more")
    total: str | None = Field(description="the lowest total there is")
    by: str = Field(description="which way and service that is")
    layout: Layout
    entry: ArrangementEntry
    balance: tuple[float, float, float] = Field(description="where the weight lies, shares of length, width, height")
    fill: list[str]
    faults: list[FaultView]
    lacks: list[str] = Field(default_factory=list, description="why it does not go into the box that was asked about")


class RunView(BaseModel):
    """How far a search is, with the best so far: one for each proportion, the cheapest in all first."""

    run: str
    state: RunState
    done: int
    of: int
    says: str = ""
    answers: list[ArrangedView] = Field(default_factory=list)


def view_arranged(
    job: JobFile, load: Load, answer: Arrangement, today: Today, priced: bool = True, inside: Sizes | None = None
) -> ArrangedView:
    """An arrangement as the page gets it.

    Args:
        priced: whether its cheapest way is worked out, which takes longer than all else.
        inside: of the box that was asked about, within its liner; None where the smallest was.
    """
    units, ask = today.shop.units, ask_of(load)
    entry = write_arrangement(load, answer)
    found = faults(ask, answer)
    best = None
    if priced and answer.whole and not found:
        best = today.cheapest(job.model_copy(update={"arrangement": entry}))
    return ArrangedView(
        inside=figure_views.view_sizes(answer.inside, units),
        proportion=answer.proportion,
        air_percent=round(100 * air_in(load, answer)),
        saves_percent=round(100 * saved_room(load, answer)),
        lacks=[told(reason, units) for reason in lacking(replace(ask, inside=inside), answer)],
        total=str(best.costs.total) if best else None,
        by=f"{WAYS[best.boxed.made.way].TITLE}, {best.quote.service}" if best else "",
        layout=view_layout(load, answer),
        entry=entry,
        balance=balance(ask.bodies, answer),
        fill=[f"{show_length(more, units, 'up').text} more under {body.name}"
              for body, more in hollow_under(ask, answer)],
        faults=[FaultView(thing=fault.which, other=fault.other, says=_says(fault, units))
                for fault in found],
    )  # fmt: skip


def _says(fault: Fault, units: Units) -> str:
    return f"{fault.says}: {show_length(fault.short, units, 'up').text} short" if fault.short else fault.says
