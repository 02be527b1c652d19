"""An arrangement in words: its inside, its air, what it costs in the cheapest way, and what needs fill under it."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, Field

from fardo.api import figures
from fardo.api.desk import Today
from fardo.api.picture import view_layout
from fardo.api.views import Layout
from fardo.api.worked import draw_up
from fardo.arranging import told
from fardo.core.arrange.ask import Answer, Proportion, balance
from fardo.core.arrange.cannot import lacking
from fardo.core.arrange.hand import Fault, falls, faults
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS
from fardo.core.plan.load import Load, arrange, ask_of, bodies_of
from fardo.core.quantity import INCH, Units, show_length, volume_nm3
from fardo.files.arrangement import ArrangementEntry, write_arrangement
from fardo.files.job import JobFile

_SINKS = INCH.nm // 2  # less than that is taken up by the fill around it


RunState = Literal["searching", "done", "stopped", "failed"]


class FaultView(BaseModel):
    """What is not kept. `other` is the thing it comes too near, none for a wall or a rule."""

    thing: int
    other: int | None
    says: str


class ArrangedView(BaseModel):
    """One arrangement. `entry` is what a job keeps of it."""

    inside: figures.SizesView
    proportion: Proportion
    air_percent: int
    saves_percent: int = Field(description="of the room that everything side by side would take; below 0 it takes more")
    total: str | None = Field(description="what it costs in all, by the cheapest way there is")
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
    job: JobFile, load: Load, answer: Answer, today: Today, priced: bool = True, inside: Sizes | None = None
) -> ArrangedView:
    """Args: priced: whether its cheapest way is worked out, which takes longer than all else. inside: of the box that
    was asked about, within its liner; None where the smallest was."""
    units, bodies = today.shop.units, bodies_of(load)
    ask = ask_of(load)
    lacks = [told(reason, units) for reason in lacking(replace(ask, inside=inside), answer)]
    beside = volume_nm3(*arrange(replace(load, packed=None)).inside)
    entry = write_arrangement(load, answer)
    found = faults(ask, answer)
    total, by = None, ""
    if priced and answer.whole and not found:
        picture = draw_up(job.model_copy(update={"arrangement": entry}), today)
        best = picture.ways[0] if picture.ways else None
        if best is not None and best.cheapest is not None:
            total, by = str(best.cheapest), f"{WAYS[best.boxed.made.way].TITLE}, {best.plans[0].quote.service}"
    sinking = [
        (body.name, by_how_much)
        for body, by_how_much in zip(bodies, falls(ask, answer), strict=True)
        if by_how_much.nm > _SINKS
    ]
    return ArrangedView(
        inside=figures.view_sizes(answer.inside, units),
        proportion=answer.proportion,
        air_percent=round(100 * (1 - load.volume_nm3 / answer.room_nm3)),
        saves_percent=round(100 * (1 - answer.room_nm3 / beside)),
        lacks=lacks,
        total=total,
        by=by,
        layout=view_layout(load, answer),
        entry=entry,
        balance=balance(bodies, answer),
        fill=[f"{show_length(more, units, 'up').text} more under {name}" for name, more in sinking],
        faults=[FaultView(thing=fault.which, other=fault.other, says=_says(fault, units))
                for fault in found],
    )  # fmt: skip


def _says(fault: Fault, units: Units) -> str:
    return f"{fault.says}: {show_length(fault.short, units, 'up').text} short" if fault.short.nm else fault.says
