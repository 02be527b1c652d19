"""The complete picture of a job: every way to box it with its prices, the one looked at, what to do next.

Screen, command and tests draw it with the one function here, so that they agree on boards, ways and prices.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from fardo.core.arrange.ask import Arrangement
from fardo.core.make import WAYS, Made
from fardo.core.plan.box import LookedAt, box_for, boxes_at_hand, by_other_school, kept_for
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.cautions import lifting
from fardo.core.plan.cut_by import CutBy, cut_by
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.load import not_in_one, with_packed
from fardo.core.plan.made_over import with_what_can_be_made_over
from fardo.core.plan.needed import inside_of
from fardo.core.plan.not_here import NotHere, not_here
from fardo.core.plan.own_against_bought import own_against_bought
from fardo.core.plan.parts import CheckedPart, WrapUsed, check_parts, wrap_used
from fardo.core.plan.price import Plan, price, price_other_ways
from fardo.core.plan.progress import BoxChoice, Knot, KnotState, PriceChoice, tie_knots
from fardo.core.plan.shop import Shop
from fardo.core.plan.trim import best_trim, flat_trim
from fardo.core.quantity import Money
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.service import Quote, Refused, Service, compare
from fardo.core.tariff.steps import Cheaper
from fardo.core.why import Why

_MOST_AT_HAND = 12


@dataclass(frozen=True, slots=True)
class WayPriced:
    """A way worked out, and what services say to it.

    Args:
        plans: cheapest in all first.
        refused: who does not take it.
        others: what else people weigh up, a store that packs, luggage; only of the current way and the one looked at.
        not_so: which of those do not take it.
        today: what the chosen service asks by its tariff of today, where the job keeps an earlier one.
        cut_by: what a box of that way is worked out by now; None for one that is not cut from sheet.
        kept: the figures the job keeps for it, or None.
        other_school: the same box by the other school, where the way has one.
    """

    boxed: Boxed
    plans: tuple[Plan, ...] = ()
    refused: tuple[Refused, ...] = ()
    others: tuple[Plan, ...] = ()
    not_so: tuple[Refused, ...] = ()
    today: Quote | None = None
    cut_by: CutBy | None = None
    kept: CutBy | None = None
    other_school: Made | None = None

    @property
    def way(self) -> str:
        return self.boxed.made.way

    @property
    def item(self) -> str:
        """Which of several boxes there; nothing where it is cut."""
        return self.boxed.made.item

    @property
    def cheapest(self) -> Money | None:
        return self.plans[0].costs.total if self.plans and not self.boxed.too_large else None

    @property
    def cut_by_others(self) -> bool:
        """Whether it is worked out by other figures than a new box would be."""
        return self.kept is not None and self.kept != self.cut_by


@dataclass(frozen=True, slots=True)
class PricedWays:
    """Every way to box a job with what services say to it.

    Args:
        ways: cheapest in all first, those with no sum last.
        cannot: the ways it cannot be boxed, and why.
        problems: what cannot be read or be.
        services: that are asked.
        earlier: the chosen one, where the job keeps an earlier version of its tariff.
    """

    ways: tuple[WayPriced, ...]
    cannot: tuple[tuple[str, str], ...]
    problems: tuple[BadInput, ...]
    services: tuple[Service, ...]
    earlier: Service | None

    @property
    def cheapest(self) -> Plan | None:
        """Of every way and service."""
        best = self.ways[0] if self.ways else None
        return best.plans[0] if best is not None and best.cheapest is not None else None

    @property
    def plans(self) -> list[Plan]:
        """Of every way that can be made by every service, the best first."""
        return _plans_of(self.ways)

    def way(self, name: str | None) -> WayPriced | None:
        return next((way for way in self.ways if way.way == name), None)

    def reasons(self) -> Iterator[str]:
        """Why it is not sent in each of them."""
        why_not = dict(self.cannot)
        for name in WAYS:
            way = self.way(name)
            if name in why_not:
                yield f"{WAYS[name].TITLE}: {why_not[name]}"
            elif way is not None and way.boxed.too_large:
                yield f"{WAYS[name].TITLE}: {way.boxed.too_large}"
            elif way is not None:
                yield from (f"{WAYS[name].TITLE}: {r.carrier} {r.service}: {r.why}" for r in way.refused)


@dataclass(frozen=True, slots=True)
class Picture:
    """What follows from a job in a shop, complete.

    Args:
        carriers: of the shop.
        earlier: the chosen service, where the job keeps an earlier version of its tariff.
        inside: the arrangement in the inside that holds it all, and why that is so large; None while it cannot be read.
        ways, cannot, problems: as `PricedWays` has them.
        looked_at: None where no box is.
        current: the way that was chosen, or the one looked at, or the cheapest in all, or any.
        at_hand: where a box is looked at, each box there of its way, the cheapest in all first.
        plan: what the chosen service asks for the current box; where none is chosen, the cheapest.
        trim: what to take off a side or the weight for the most that the plan's service would ask less.
        parts: each with its cushion checked for the whole parcel's weight.
        wrap: what is cut and used for all of it.
        cautions: what to say before it is packed and lifted, beside what must not ship at all.
        knots: how far it is.
        next_move: in words.
        not_here: where a box is looked at, what is sold ready for such goods.
    """

    job: Job
    shop: Shop
    carriers: Carriers
    earlier: Service | None
    inside: tuple[Arrangement, Why] | None
    ways: tuple[WayPriced, ...]
    cannot: tuple[tuple[str, str], ...]
    problems: tuple[BadInput, ...]
    looked_at: LookedAt | None
    current: WayPriced | None
    at_hand: tuple[WayPriced, ...]
    plan: Plan | None
    trim: Cheaper | None
    parts: tuple[CheckedPart, ...]
    wrap: WrapUsed
    cautions: tuple[str, ...]
    knots: tuple[Knot, ...]
    next_move: str
    not_here: tuple[NotHere, ...] = ()

    def way(self, name: str) -> WayPriced | None:
        return next((way for way in self.ways if way.way == name), None)

    @property
    def plans(self) -> list[Plan]:
        """Of every way that can be made by every service, the best first."""
        return _plans_of(self.ways)

    def is_chosen(self, plan: Plan) -> bool:
        box, was = self.job.box, self.job.price
        is_box = box is not None and box.is_met_by(choice_of_box(plan.boxed.made))
        return is_box and was is not None and plan.quote.called == was.called

    def version_of(self, quote: Quote) -> int | None:
        """Of the tariff that a quote is by."""
        chosen = self.job.price
        if self.earlier is not None and chosen is not None and quote.called == chosen.called:
            return chosen.tariff
        return self.carriers.versions.get(quote.carrier)

    def more_than_cheapest(self, way: WayPriced) -> tuple[Money, WayPriced] | None:
        """By how much a way costs more in all than the first, and which that is; None where it does not."""
        first = next((one for one in self.ways if one.cheapest is not None), None)
        if first is None or way.cheapest is None or first.cheapest is None or way.cheapest <= first.cheapest:
            return None
        return way.cheapest - first.cheapest, first

    def beside(self, way: WayPriced) -> str:
        """Whether a way beats the others by what it costs in all, and what is cut against the box that is bought."""
        said = []
        others = [one for one in self.ways if one is not way and one.cheapest]
        if way.cheapest and others and way is self.ways[0]:
            next_best = others[0]
            if next_best.cheapest and way.cheapest < next_best.cheapest:
                saved = next_best.cheapest - way.cheapest
                said.append(f"{saved} less in total than the next, {WAYS[next_best.way].TITLE.lower()}.")
        bought = self.way("shelf")
        if bought and WAYS[way.way].NEEDS == "sheet":
            in_all = (way.cheapest, bought.cheapest) if way.cheapest and bought.cheapest else None
            said.append(own_against_bought(way.boxed, bought.boxed, in_all))
        return " ".join(said)


def draw_up(job: Job, shop: Shop, carriers: Carriers, looked_at: LookedAt | None = None) -> Picture:
    """Works a job out as far as it can be read; never raises for what a person may type.

    Args:
        looked_at: the box of which everything is wanted; a chosen one goes before it in the docket.
    """
    found = price_ways(job, shop, carriers, looked_at)
    current = _current(found, job, looked_at)
    whole = {looked_at.way if looked_at else None, current.way if current else None}
    ways = tuple(
        _with_other_ways(way, job.journey, found.services, shop.exchange)
        if job.journey is not None and way.way in whole
        else way
        for way in found.ways
    )
    current = next((way for way in ways if current is not None and way.way == current.way), None)
    looked = next((way for way in ways if looked_at is not None and way.way == looked_at.way), current)
    plan = _plan_of(current, job)
    made = current.boxed.made if current is not None else None
    parts = check_parts(job, shop, current.boxed if current is not None else None)
    knots, next_move = _tied(job, found.problems, current, plan)
    return Picture(
        job, shop, carriers, found.earlier, _inside(job, shop),
        ways, found.cannot, found.problems, looked_at, current,
        _at_hand(looked, job, shop, found.services) if looked_at is not None else (), plan,
        _trim(job, plan, found.services, shop), parts, wrap_used(job, shop, made),
        _cautions(job, current, parts), knots, next_move, _not_here(job, shop, found) if looked_at is not None else (),
    )  # fmt: skip


def _not_here(job: Job, shop: Shop, found: PricedWays) -> tuple[NotHere, ...]:
    if job.load is None or not_in_one(job.load):
        return ()
    best = next((way.cheapest for way in found.ways if way.cheapest is not None), None)
    return not_here(job, shop, found.services, best)


def _inside(job: Job, shop: Shop) -> tuple[Arrangement, Why] | None:
    if job.load is None or not_in_one(job.load):
        return None
    grade = shop.grades.get(job.board or shop.default_grade, shop.grade(None))
    return inside_of(job.load, grade, shop)


def price_ways(job: Job, shop: Shop, carriers: Carriers, looked_at: LookedAt | None = None) -> PricedWays:
    """Every way to box a job as far as it can be read; never raises for what a person may type.

    Args:
        looked_at: of its way that box, where it holds the goods; else the chosen one or the best.
    """
    services, earlier = services_for(job, carriers)
    if job.load is not None and (why := not_in_one(job.load)):
        return PricedWays((), tuple((name, why) for name in job.ways), job.problems, services, earlier)
    by_today = [one for one in carriers.services if earlier is not None and one.called == earlier.called]
    ways: list[WayPriced] = []
    cannot: list[tuple[str, str]] = []
    problems = list(job.problems)
    for name in WAYS if job.load is not None else ():
        if name not in job.ways:
            continue
        if why := job.house.against_way(name):
            cannot.append((name, why))
            continue
        try:
            boxed = _box_looked_at(name, job, shop, looked_at)
        except BadInput as problem:
            problems.append(problem)
        except NoAnswer as none:
            cannot.append((name, str(none)))
        else:
            way = _priced(boxed, job, shop, services, by_today)
            settled = job.house.item or _is_asked_for(way, job, looked_at)
            ways.append(way if settled else _cheapest_there(way, job, shop, services))
    ways.sort(key=_cheapest_first)
    return PricedWays(
        tuple(ways),
        tuple(with_what_can_be_made_over(cannot, (way.boxed.made for way in ways))),
        tuple(problems),
        services,
        earlier,
    )


def _cheapest_first(way: WayPriced) -> tuple[bool, bool, bool, int]:
    """By the sum where there is one, a box that is trusted with less than all of it weighs after those that are not,
    what leaves the value uncovered after what covers it; what cannot be made last, by what the box itself costs.
    """
    too_large = way.boxed.too_large is not None
    if way.plans and not too_large:
        return False, way.boxed.strength.overloaded, *way.plans[0].rank
    return True, too_large, False, way.boxed.own.minor


def best_plans(
    job: Job, arrangements: Iterable[Arrangement], shop: Shop, carriers: Carriers, several: Sequence[Plan] = ()
) -> list[Plan]:
    """The plans for a job, best first: as it is arranged already, and in each further arrangement that holds.

    Args:
        several: plans in more parcels than one.

    Raises: BadInput or NoAnswer where it cannot be read; NoAnswer, with every reason, where no box can be cut or no
    service takes one.
    """
    load = job.must_load()
    job.must_go()
    packed = (with_packed(load, answer) for answer in arrangements)
    loads = [load, *(one for one in packed if one.packed is not None and one.packed is not load.packed)]
    found = [price_ways(replace(job, load=one), shop, carriers) for one in loads]
    plans = _best_first([*(plan for one in found for plan in one.plans), *several])
    if plans:
        return _each_once(plans)
    if found[-1].problems:
        raise found[-1].problems[0]
    if job.several:
        raise NoAnswer(f"{job.several}: divide it into {job.parcels_least} parcels or more.")
    raise NoAnswer(f"No way was found to send it. {'; '.join(found[-1].reasons()) or 'no services are known'}.")


def _best_first(plans: Iterable[Plan]) -> list[Plan]:
    return sorted(plans, key=lambda plan: (plan.overloaded, *plan.rank))


def _plans_of(ways: Iterable[WayPriced]) -> list[Plan]:
    return _best_first(plan for way in ways if way.cheapest for plan in way.plans)


def _each_once(plans: Iterable[Plan]) -> list[Plan]:
    """Without those that differ in nothing that anybody pays or makes: the same boxes at the same sum."""
    kept: dict[tuple[object, ...], Plan] = {}
    for plan in plans:
        boxes = tuple((one.made.way, one.made.item, tuple(sorted(one.made.outside))) for one in plan.boxes)
        kept.setdefault((plan.quote.called, plan.costs.total, boxes), plan)
    return list(kept.values())


def services_for(job: Job, carriers: Carriers) -> tuple[tuple[Service, ...], Service | None]:
    """The services that are asked about a job, and the chosen one where it keeps an earlier version of its tariff."""
    was, day = job.price, job.journey.day if job.journey else None
    earlier = carriers.earlier(was.called, day) if was else None
    return carriers.with_earlier(earlier), earlier


def choice_of_box(made: Made) -> BoxChoice:
    return BoxChoice(made.way, made.school, made.grade.code, made.cut_to, made.item)


def choice_of(quote: Quote) -> PriceChoice:
    return PriceChoice(quote.carrier, quote.service, quote.rate_plan, quote.amount, quote.billing.billed)


def _box_looked_at(name: str, job: Job, shop: Shop, looked_at: LookedAt | None) -> Boxed:
    """That which is looked at or was chosen, while it holds the goods; else the best of the way."""
    if job.house.item:
        return box_for(f"{name}/{job.house.item}", job, shop)
    wanted = looked_at.item if looked_at is not None and looked_at.way == name else ""
    if wanted:
        with suppress(NoAnswer):
            return box_for(f"{name}/{wanted}", job, shop)
    return box_for(name, job, shop)


def _is_asked_for(way: WayPriced, job: Job, looked_at: LookedAt | None) -> bool:
    """Whether somebody looks at or chose that very box of several there."""
    if looked_at is not None and looked_at.way == way.way and looked_at.item:
        return looked_at.item == way.item
    return job.box is not None and (job.box.way, job.box.item) == (way.way, way.item)


def _cheapest_there(way: WayPriced, job: Job, shop: Shop, services: Iterable[Service]) -> WayPriced:
    """Of a way's boxes there the cheapest in all."""
    return min((way, *_at_hand(way, job, shop, services)), key=_cheapest_first)


def _at_hand(way: WayPriced | None, job: Job, shop: Shop, services: Iterable[Service]) -> tuple[WayPriced, ...]:
    """Each box there of a way, the cheapest in all first; where there are many, the first few by size."""
    if way is None:
        return ()
    boxes = boxes_at_hand(way.way, job, shop, _MOST_AT_HAND)
    priced = [_priced(boxed, job, shop, services, []) if boxed.made.item != way.item else way for boxed in boxes]
    if boxes and all(one is not way for one in priced):
        priced.append(way)
    return tuple(sorted(priced, key=_cheapest_first))


def _priced(
    boxed: Boxed, job: Job, shop: Shop, services: Iterable[Service], by_today: list[Service]
) -> WayPriced:  # fmt: skip
    made, journey, exchange = boxed.made, job.journey, shop.exchange
    grade = shop.grades.get(made.grade.code, made.grade)
    kept = kept_for(made.way, job, grade)
    now = cut_by(made.way, grade, shop.allowances) if WAYS[made.way].NEEDS == "sheet" else None
    way = WayPriced(boxed, cut_by=now, kept=kept, other_school=by_other_school(boxed, kept, shop))
    if journey is None:
        return way
    plans, refused = price(boxed, journey, services, exchange)
    today: list[Quote] = []
    if by_today:
        today, _ = compare(by_today, parcel_of(boxed, journey), journey.day, exchange)
    return replace(way, plans=tuple(plans), refused=tuple(refused), today=today[0] if today else None)


def _with_other_ways(way: WayPriced, journey: Journey, services: Iterable[Service], exchange: Exchange) -> WayPriced:
    others, not_so = price_other_ways(way.boxed, journey, services, exchange)
    return replace(way, others=tuple(others), not_so=tuple(not_so))


def _current(found: PricedWays, job: Job, looked_at: LookedAt | None) -> WayPriced | None:
    wanted = found.way(job.box.way if job.box else looked_at.way if looked_at else None)
    return wanted or (found.ways[0] if found.ways else None)


def _plan_of(way: WayPriced | None, job: Job) -> Plan | None:
    if way is None:
        return None
    if (chosen := job.price) is None:
        return way.plans[0] if way.plans else None
    return next((plan for plan in (*way.plans, *way.others) if plan.quote.called == chosen.called), None)


def _trim(job: Job, plan: Plan | None, services: Iterable[Service], shop: Shop) -> Cheaper | None:
    if plan is None or job.journey is None or plan.boxed.too_large or job.hazards.never:
        return None
    asked = tuple(services)
    found = [best_trim(plan, job.journey, asked, shop.exchange), flat_trim(plan, job.journey, asked, shop.exchange)]
    return max((one for one in found if one is not None), key=lambda one: one.saves.minor, default=None)


def _cautions(job: Job, way: WayPriced | None, parts: Iterable[CheckedPart]) -> tuple[str, ...]:
    said = [caution for _, caution in job.hazards.cautions if caution not in job.hazards.never]
    if way is not None:
        said += [f"the box: {warning}" for warning in way.boxed.strength.warnings]
        said = [caution for caution in (lifting(way.boxed.weights.total),) if caution] + said
    return (*said, *(part.caution for part in parts if part.caution), *job.left_aside)


def _tied(
    job: Job, problems: Iterable[BadInput], way: WayPriced | None, plan: Plan | None
) -> tuple[tuple[Knot, ...], str]:
    """Whichever way is looked at, these are the same: a box that is not chosen ties nothing."""
    missing = [*job.missing, *(f"{problem.field.rpartition('.')[2]} again" for problem in problems)]
    boxed = choice_of_box(way.boxed.made) if way is not None else None
    asked = choice_of(plan.quote) if plan is not None and job.price is not None else None
    return tie_knots(
        missing, boxed, job.box, asked, job.price,
        guessed=job.guessed, answers=[question.code for question in job.hazards.open],
        protection=job.protection, arranged=_arranged(job), several=job.several,
    )  # fmt: skip


def _arranged(job: Job) -> KnotState | None:
    """Nothing is said of one thing: its extras find their corners by themselves."""
    if job.load is None:
        return "open"
    if job.several:
        return None
    return job.arranged if len(job.load.units) > 1 else None
