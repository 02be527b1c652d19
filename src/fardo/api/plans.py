"""The plans of a job as one table, the alternatives among them, and one unfolded to its lines, for the screen."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from pydantic import BaseModel, Field

from fardo.api import views
from fardo.api.context import Today
from fardo.api.quotes import view_plan, view_refused
from fardo.core.plan.alternatives import Alternative, Habit, alternatives, margin_of
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job
from fardo.core.plan.ladder import Rung, ladder
from fardo.core.plan.parts import CheckedPart, check_parts
from fardo.core.plan.picture import Picture, WayPriced, choice_of_box
from fardo.core.plan.price import Plan
from fardo.core.plan.table import Asked, boxed_in, first_of_each, tabled
from fardo.core.quantity import Units, show_length, show_mass, show_sizes
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.service import Refused
from fardo.files.cut_by import write_cut_by
from fardo.files.job import Chosen, ChosenBox, ChosenPrice, JobFile

MOST_ROWS = 200


class PlanKey(BaseModel):
    """Which plan."""

    way: str = Field(max_length=40)
    item: str = Field("", max_length=200, description="which of several boxes there")
    carrier: str = Field(max_length=80)
    service: str = Field(max_length=80)
    programme: str = Field(max_length=40)


class PlanRow(BaseModel):
    """A row of the table."""

    key: PlanKey
    box: str
    outside: str
    carrier: str
    service: str
    programme: str
    days: tuple[int, int]
    billed: str
    costs: views.CostsView
    packing: str = Field(description="what the box costs: board, wrap, fill, tape and time")
    total: str
    more: str = Field(description="more than the cheapest; nothing for the cheapest itself")
    uncovered: str = Field(description="of the declared value, what nothing covers")
    placeholder: bool = Field(description="its prices are invented, until the shop enters the carrier's own")
    overloaded: bool = Field(description="whether its box is trusted with less than what is in it")
    best: list[str] = Field(description="what it is best at: cheapest, safest, fastest...")
    best_of_service: bool
    best_of_box: bool
    chosen: bool
    house_rule: str = Field(description="the rule by which it comes first; nothing where none does")
    packs: bool = Field(description="it packs too, so that the box costs nothing")


class AlternativeView(BaseModel):
    """What else one would choose, and why."""

    aims: list[str]
    key: PlanKey
    box: str
    service: str
    days: tuple[int, int]
    total: str
    why: str
    gives_up: str
    saved: str = Field(description="what it saves on the habit; nothing where it saves none")
    chosen: bool


class PlanTable(BaseModel):
    """Every way to send a job."""

    rows: list[PlanRow] = Field(description="as sorted and filtered")
    left_out: int = Field(description="rows beyond those shown")
    others: list[PlanRow] = Field(description="what else people weigh up: a shop that packs, luggage, one's own van")
    alternatives: list[AlternativeView]
    habit: str = Field(description="what everything side by side in the next ready box would cost, in words")
    refused: list[views.RefusedView] = Field(description="services that take it in no box, with the first reason")
    others_refused: list[views.RefusedView]


class PartInPlan(BaseModel):
    """A part, as this plan's box keeps it."""

    name: str
    says: str


class PlanUnfolded(BaseModel):
    """One plan down to its lines, its box and its parts."""

    key: PlanKey
    box: str
    board: str
    outside: str
    inside: str
    weighs: str
    air_percent: int
    minutes: int
    cuts: int = Field(description="pieces that are cut")
    fill: str = Field(description="what fills the room that is left")
    margin: str = Field(description="of cushion and strength")
    parts: list[PartInPlan]
    quote: views.QuoteView


def view_table(picture: Picture, plans: Sequence[Plan], asked: Asked, habit: Habit | None, orders: int) -> PlanTable:
    """The table of plans as the page gets it.

    Args:
        plans: of the job, the best first.
        orders: how many like it a saving is told for.
    """
    best = alternatives(plans, picture.shop, picture.job.value)
    rows = tabled(plans, asked)
    others = list(_others(picture))
    marks = _Marks(plans, best, picture)
    taken = {plan.quote.called for plan in plans}
    refused = (no for way in picture.ways for no in way.refused if (no.carrier, no.service, no.rate_plan) not in taken)
    return PlanTable(
        rows=[marks.row(plan) for plan in rows[:MOST_ROWS]],
        left_out=max(len(rows) - MOST_ROWS, 0),
        others=[marks.row(plan) for plan in others],
        alternatives=[_alternative(one, habit, orders, picture) for one in best],
        habit=f"{habit.box}, {habit.plan.quote.carrier} {habit.plan.quote.service}: {habit.plan.costs.total}"
        if habit is not None else "",
        refused=view_refused(_once(refused)),
        others_refused=view_refused(_once(no for way in picture.ways for no in way.not_so)),
    )  # fmt: skip


def _others(picture: Picture) -> Iterator[Plan]:
    """Other ways to send it, of the box that is current."""
    if picture.current is not None:
        yield from picture.current.others


def _once(refused: Iterator[Refused]) -> list[Refused]:
    kept: dict[tuple[str, str, str], Refused] = {}
    for no in refused:
        kept.setdefault((no.carrier, no.service, no.rate_plan), no)
    return list(kept.values())


class _Marks:
    """What is said of rows beside their figures."""

    def __init__(self, plans: Sequence[Plan], best: Sequence[Alternative], picture: Picture) -> None:
        self._picture = picture
        self._first = plans[0] if plans else None
        self._best = {id(one.plan): one.aims for one in best}
        self._of_service = {id(plan) for plan in first_of_each(plans, lambda plan: plan.quote.called)}
        self._of_box = {id(plan) for plan in first_of_each(plans, boxed_in)}

    def row(self, plan: Plan) -> PlanRow:
        quote, made, units = plan.quote, plan.boxed.made, self._picture.shop.units
        more = plan.more_than(self._first) if self._first is not None else None
        return PlanRow(
            key=key_of(plan), box=boxed_in(plan), outside=show_sizes(made.outside, units, "up").text,
            carrier=quote.carrier, service=quote.service, programme=quote.rate_plan, days=quote.days,
            billed=" + ".join(show_mass(one.billed, units, "up").text for one in (quote.billing, *quote.beside)),
            costs=views.CostsView(**{name: str(amount) for name, amount in plan.costs.named}),
            packing=str(plan.own), total=str(plan.costs.total), more=f"{more}" if more is not None else "",
            uncovered=str(quote.uncovered) if quote.uncovered is not None else "",
            placeholder=quote.placeholder, overloaded=plan.overloaded,
            best=list(self._best.get(id(plan), ())), best_of_service=id(plan) in self._of_service,
            best_of_box=id(plan) in self._of_box, chosen=self._picture.is_chosen(plan), packs=quote.packs,
            house_rule=plan.favoured_by,
        )  # fmt: skip


def key_of(plan: Plan) -> PlanKey:
    quote, made = plan.quote, plan.boxed.made
    return PlanKey(
        way=made.way, item=made.item, carrier=quote.carrier, service=quote.service, programme=quote.rate_plan
    )  # fmt: skip


def _alternative(one: Alternative, habit: Habit | None, orders: int, picture: Picture) -> AlternativeView:
    plan = one.plan
    return AlternativeView(
        aims=list(one.aims), key=key_of(plan), box=boxed_in(plan), service=f"{plan.quote.carrier} {plan.quote.service}",
        days=plan.quote.days, total=str(plan.costs.total), why=one.why, gives_up=one.gives_up,
        saved=habit.saved_by(plan, orders) if habit is not None else "", chosen=picture.is_chosen(plan),
    )  # fmt: skip


def view_unfolded(plan: Plan, way: WayPriced, picture: Picture) -> PlanUnfolded:
    """Its lines, its box, and what each part has."""
    boxed, made, units = plan.boxed, plan.boxed.made, picture.shop.units
    return PlanUnfolded(
        key=key_of(plan), box=boxed_in(plan), board="" if made.soft else made.grade.name,
        outside=show_sizes(made.outside, units, "up").text, inside=show_sizes(made.inside, units, "down").text,
        weighs=show_mass(boxed.weights.total, units, "up").text, air_percent=round(boxed.air * 100),
        minutes=round(boxed.minutes), cuts=sum(blank.count for blank in boxed.blanks),
        fill=", ".join(fill.fetched(stuffed) for fill, stuffed in boxed.filling.fetched),
        margin=margin_of([boxed], picture.shop).says,
        parts=[_part(part, boxed, picture) for part in check_parts(picture.job, picture.shop, boxed)],
        quote=view_plan(plan, way, picture),
    )  # fmt: skip


def _part(part: CheckedPart, boxed: Boxed, picture: Picture) -> PartInPlan:
    units = picture.shop.units
    said = []
    lies = next((one for one in boxed.placements if one.part == part.part.name), None)
    if part.check is not None:
        asks, has = show_length(part.check.asks, units, "up").text, show_length(part.check.has, units, "down").text
        said.append(f"cushion {has}, {asks} asked")
    if lies is not None and boxed.load.units and not boxed.made.soft and len(boxed.load.units) > 1:
        x, y, z = (show_length(side, units, "nearest").text for side in lies.at)
        said.append(f"at {x} x {y} x {z}")
    return PartInPlan(name=part.part.name, says=", ".join(said) or "as wrapped")


class RungView(BaseModel):
    """So many of a thing and what they go into."""

    least: int
    most: int
    box: str = Field(description="nothing where so many cannot be sent in one parcel")
    way: str
    item: str
    outside: str
    weighs: str
    service: str
    total: str = Field(description="in all, from the fewest to the most")
    why_not: str


def view_rung(rung: Rung, units: Units) -> RungView:
    first, last = rung.first, rung.last
    if first is None or last is None:
        return RungView(least=rung.least, most=rung.most, box="", way="", item="", outside="", weighs="", service="",
                        total="", why_not=rung.why_not)  # fmt: skip
    boxed, sums = last.boxed, dict.fromkeys((str(first.costs.total), str(last.costs.total)))
    return RungView(
        least=rung.least, most=rung.most, box=rung.box, way=boxed.made.way, item=boxed.made.item,
        outside=show_sizes(boxed.made.outside, units, "up").text,
        weighs=show_mass(boxed.weights.total, units, "up").text,
        service=f"{last.quote.carrier} {last.quote.service}", total=" to ".join(sums), why_not="",
    )  # fmt: skip


def rungs_of(job: JobFile, most: int, today: Today) -> list[RungView]:
    """The ladder of the one thing a job is of. Raises NoAnswer for a job of several."""
    if len(job.parts) != 1:
        raise NoAnswer(f"A ladder is of one thing; this job has {len(job.parts)} parts.")

    def of(count: int) -> Job:
        part = job.parts[0].model_copy(update={"count": count})
        return today.understand(job.model_copy(update={"parts": [part], "arrangement": None, "chosen": Chosen()}))

    found = ladder(of, range(1, most + 1), today.shop, today.carriers)
    return [view_rung(rung, today.shop.units) for rung in found]


def chosen_with(plan: Plan, way: WayPriced, picture: Picture, was: Chosen) -> Chosen:
    """What a job keeps once that plan is chosen; a box it has chosen already stays as it was chosen.

    Args:
        was: what it keeps now.
    """
    made, quote, kept = plan.boxed.made, plan.quote, picture.job.box
    a, b, c = made.cut_to
    box = was.box
    if box is None or kept is None or not kept.is_met_by(choice_of_box(made)):
        box = ChosenBox(
            way=made.way, school=made.school, board=made.grade.code, inside_mm=(a.mm, b.mm, c.mm), item=made.item,
            cut_by=write_cut_by(way.cut_by) if way.cut_by else None,
        )  # fmt: skip
    price = ChosenPrice(
        carrier=quote.carrier, service=quote.service, programme=quote.rate_plan, amount=str(quote.amount),
        currency=quote.amount.currency, billed_weight_g=quote.billing.billed.grams, tariff=picture.version_of(quote),
    )  # fmt: skip
    return was.model_copy(update={"box": box, "price": price})
