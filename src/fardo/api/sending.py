"""What became of a parcel, in words: closed against its plan, priced again, labelled, handed over."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from fractions import Fraction
from typing import Literal

from pydantic import BaseModel, Field

from fardo.api.context import AppContext, Today
from fardo.api.packing import to_pack_of
from fardo.api.parts import amount_of
from fardo.api.picture import view_knots
from fardo.api.views import KnotView
from fardo.core.pack.closed import Advice, Closed, ClosedPrice, doubts, longest_first, price_closed
from fardo.core.pack.fetch import NOTHING_USED, StockUsed, stock_used
from fardo.core.pack.packing_step import done_otherwise
from fardo.core.pack.steps import packing_steps
from fardo.core.plan.picture import Picture
from fardo.core.plan.progress import NOT_BEGUN, Sending, tie_all
from fardo.core.plan.shop import Shop
from fardo.core.quantity import TAPE, ZERO, Length, Mass, Units, show_length, show_mass, show_sizes
from fardo.files.job import JobFile
from fardo.files.sending import SendingEntry, StockTaken, closed_of
from fardo.store.faults import Conflict
from fardo.store.sending import NOTHING_TAKEN, StoredSending, taken_of


def ticks_of(job: JobFile, picture: Picture) -> tuple[str, ...]:
    """By what the ticks of a job's packing steps are kept, in the box that was chosen; none where none is."""
    to_pack = to_pack_of(job, picture) if picture.job.box is not None else None
    return tuple(step.tick for step in packing_steps(to_pack)) if to_pack is not None else ()


def sending_of_each(
    keys: Sequence[str], steps: Mapping[str, Sequence[str]], context: AppContext
) -> tuple[dict[str, Sending], dict[str, str]]:  # fmt: skip
    """How far each of these jobs is at the bench and after it.

    Args:
        steps: by what the ticks of each are kept.

    Returns:
        Each job's; and of which what is kept cannot be read, with why.
    """
    done, (kept, broken) = context.ticks.done_of_each(keys), context.sendings.of_each(keys)
    labelled = context.labels.sold_of(keys)
    found = {
        key: sending_of(
            steps.get(key, ()), done.get(key, frozenset()), kept.get(key, StoredSending()).sending, key in labelled
        )
        if key in done or key in kept or key in labelled
        else NOT_BEGUN
        for key in keys
    }
    return found, broken


def sending_of(steps: Sequence[str], done: frozenset[str], entry: SendingEntry, labelled: bool) -> Sending:
    """How far a job is.

    Args:
        steps: by what its ticks are kept, as it is planned today.
        done: that are ticked, of whatever plan.
        labelled: whether it has a label.
    """
    ticked = [step for step in steps if step in done]
    over = entry.handed_over
    return Sending(
        ticked=len(ticked), steps=len(steps), otherwise=done_otherwise(steps, done),
        closed=entry.closed is not None and entry.closed.weight not in (None, ""),
        numbered=labelled or bool(entry.number.strip()),
        handed_over=over.on.isoformat() if over else "",
        expected=over.expected.isoformat() if over and over.expected else "",
    )  # fmt: skip


def used_by(job: JobFile, entry: SendingEntry, picture: Picture, units: Units) -> StockUsed:
    """What a job's parcel uses of the stock: nothing until it is closed or handed over.

    Args:
        picture: of the job, with what it took off the stock.
    """
    packed = closed_of(entry.closed, units) != Closed() or entry.handed_over is not None
    return stock_used(picture.current.boxed) if packed and job.chosen.box and picture.current else NOTHING_USED


def renew_taken(key: str, context: AppContext) -> None:
    """Takes off the stock what a closed parcel uses by its job as it now is, and puts back what it does not.

    The box may have been in hand by mistake when the parcel was weighed. A job that has no box at this moment keeps
    what it took.
    """
    kept, job = context.sendings.of(key), context.jobs.get(key).job
    if kept.taken == NOTHING_TAKEN or job.chosen.box is None:
        return
    picture = context.today.with_back(kept.taken).draw_up(job)
    if picture.current is None:
        return
    used = used_by(job, kept.sending, picture, context.today.shop.units)
    if taken_of(used).boxes.keys() != kept.taken.boxes.keys():
        with suppress(Conflict):  # who changes it meanwhile takes what is right then
            context.sendings.change(key, kept.revision, kept.sending, used)


class AdviceView(BaseModel):
    """What can be done about a parcel that costs more than planned."""

    deed: Literal["press", "take out", "other service", "pay"]
    says: str
    saves: str = Field(description="against what it costs as it is; for pay, what is paid more")


class ClosedView(BaseModel):
    """A closed parcel against its plan."""

    planned_weight: str
    weight: str = Field(description="by the scale, empty while it is not weighed")
    planned_sides: str
    sides: str = Field(description="by the tape, longest first, empty while it is not measured")
    bulges: str = Field(description="which sides are more than planned, by how much")
    doubts: list[str]
    service: str
    planned_price: str | None
    price: str | None
    currency: str
    more: str | None = Field(description="than planned, negative where less; nothing while one of both is not known")
    refused: str = Field(description="why the service does not take it as it is")
    advice: list[AdviceView]


class SendingView(BaseModel):
    """What became of a job's parcel."""

    revision: int
    sending: SendingEntry
    knots: list[KnotView] = Field(description="all seven")
    next_move: str
    closed: ClosedView | None = Field(description="where a box and a service are chosen")
    taken: list[str] = Field(description="off the stock, each in words")


def view_sending(key: str, job: JobFile, stored: StoredSending, picture: Picture, context: AppContext) -> SendingView:
    """All of it.

    Args:
        job: as it is kept.
        picture: of the job, with what it took off the stock.
    """
    done = context.ticks.done_of_each([key]).get(key, frozenset())
    labelled = bool(context.labels.sold_of([key]))
    sending = sending_of(ticks_of(job, picture), done, stored.sending, labelled)
    knots, move = tie_all(picture.knots, sending)
    boxed = picture.current.boxed if picture.current is not None else None
    return SendingView(
        revision=stored.revision, sending=stored.sending, knots=view_knots(knots),
        next_move=move or picture.next_move,
        closed=_view_closed(stored.sending, picture, context.today) if boxed else None,
        taken=_taken_in_words(stored.taken, context.today.shop),
    )  # fmt: skip


def _taken_in_words(taken: StockTaken, shop: Shop) -> list[str]:
    """Each of what was taken off the stock, with how much of it."""
    fills = {one.name: one for one in shop.fills}
    return [
        *(f"{count} x {name}" for name, count in taken.boxes.items()),
        *(
            f"{amount_of(Fraction(amount, 1000), shop.materials[code].sold, shop.units)} of {shop.materials[code].name}"
            for code, amount in taken.wrap.items() if code in shop.materials
        ),
        *(fills[name].fetched(Fraction(amount, 1000)) for name, amount in taken.fill.items() if name in fills),
        *([f"{amount_of(Fraction(taken.tape, 1000), 'm', shop.units)} of tape"] if taken.tape else []),
    ]  # fmt: skip


def _view_closed(entry: SendingEntry, picture: Picture, today: Today) -> ClosedView | None:
    assert picture.current is not None
    boxed, units, exchange = picture.current.boxed, today.shop.units, today.shop.exchange
    closed, job = closed_of(entry.closed, units), picture.job
    priced = None
    if job.price is not None and job.journey is not None:
        services = today.carriers_for(job).services
        priced = price_closed(closed, boxed, job.journey, job.price.called, services, exchange)
    over = closed.over(boxed, TAPE[units])
    return ClosedView(
        planned_weight=show_mass(boxed.weights.total, units, "up").text,
        weight=show_mass(closed.weight, units, "nearest").text if closed.weight is not None else "",
        planned_sides=show_sizes(longest_first(boxed.made.outside), units, "up").text,
        sides=show_sizes(longest_first(closed.sides), units, "up").text if closed.sides is not None else "",
        bulges=_bulges(over, units) if over is not None else "",
        doubts=list(doubts(closed, boxed)),
        service=f"{job.price.carrier} {job.price.service}" if job.price else "",
        planned_price=str(priced.planned.amount) if priced and priced.planned else None,
        price=str(priced.now.amount) if priced and priced.now else None,
        currency=today.shop.currency,
        more=str(priced.more) if priced and priced.more is not None else None,
        refused=priced.refused if priced else "",
        advice=[_view_advice(one, priced, units) for one in priced.advice] if priced else [],
    )


_SIDES = ("longest side", "second side", "third side")


def _bulges(over: tuple[Length, Length, Length], units: Units) -> str:
    found = [
        f"{side} {show_length(more, units, 'up').text}"
        for side, more in zip(_SIDES, over, strict=True) if more > ZERO
    ]  # fmt: skip
    return ", ".join(found)


def _view_advice(one: Advice, priced: ClosedPrice, units: Units) -> AdviceView:
    saves = str(one.saves)
    if one.deed == "pay":
        return AdviceView(deed="pay", says=f"Pay {saves} more than planned", saves=saves)
    if one.quote is not None:
        says = f"Send it by {one.quote.carrier} {one.quote.service} for {one.quote.amount}"
        return AdviceView(deed=one.deed, says=says, saves=saves)
    assert one.point is not None
    what, by, to = one.point.what, one.point.by, one.point.to
    if isinstance(to, Length):
        says = f"Press and tape the {what} in to {show_length(to, units, 'down').text}"
    else:
        assert isinstance(by, Mass)
        says = f"Take out {show_mass(by, units, 'up').text}, down to {show_mass(to, units, 'down').text}"
    return AdviceView(deed=one.deed, says=says, saves=saves)
