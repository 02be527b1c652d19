"""The cheapest plan and what else one would choose: the safest, the fastest, the least material, without cutting, from
used boxes. Each says why, and what it gives up. Beside them what the habit would cost.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from fardo.core.make import WAYS, halves, shelf, slotted, tray
from fardo.core.plan.box import box_for, boxes_at_hand
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.channel import COUNTER
from fardo.core.plan.job import Job
from fardo.core.plan.picture import services_for
from fardo.core.plan.price import Plan, price
from fardo.core.plan.shop import Shop
from fardo.core.protect.cushion import NO_LIMIT, cushion_thickness
from fardo.core.quantity import ZERO, Mass, Money, show_mass
from fardo.core.refusal import Refusal
from fardo.core.tariff.carriers import Carriers

Aim = Literal["cheapest", "safest", "fastest", "least material", "no cutting", "used boxes", "house rule"]
_A_TRIFLE = Mass.of_grams(25)
_BEARABLE = 2  # times the cheapest: nobody pays more for safety or a used box (starting value)
_READY = 4  # boxes that are tried
_AMPLE = 2  # times what is asked: of two plans with more, the one that is fewer days on the way is safer


@dataclass(frozen=True, slots=True)
class Margin:
    """How much of what is asked a plan's boxes have, at the weakest of them.

    Args:
        cushion: of the cushion that the most fragile part asks for; None where nothing is said to be fragile.
        strength: of the weight and the united inches that the board is certified for; 0 where it has no certificate, as
            a mailer has none.
    """

    cushion: Fraction | None
    strength: Fraction

    @property
    def least(self) -> Fraction:
        return self.strength if self.cushion is None else min(self.cushion, self.strength)

    @property
    def enough(self) -> bool:
        """Whether nothing falls short; less is called safe by nobody."""
        return (self.cushion is None or self.cushion >= 1) and (not self.strength or self.strength >= 1)

    @property
    def says(self) -> str:
        cushion = "" if self.cushion is None else f"cushion {times(self.cushion)} what is asked, "
        certified = f"board certified for {times(self.strength)} its weight and size"
        return cushion + (certified if self.strength else "soft pack")


@dataclass(frozen=True, slots=True)
class Alternative:
    """A plan and what it is best at.

    Args:
        gives_up: against the cheapest, or what the cheapest gives up itself; nothing where it gives up nothing.
    """

    aims: tuple[Aim, ...]
    plan: Plan
    margin: Margin
    why: str
    gives_up: str = ""


@dataclass(frozen=True, slots=True)
class Habit:
    """What one would pay without any planning: everything side by side, the next ready box, the price at the counter.

    Args:
        box: in words.
    """

    plan: Plan
    box: str

    def saved_by(self, plan: Plan, orders: int = 1) -> str:
        """What a plan saves on so many orders, in words; nothing where it saves none."""
        less = self.plan.more_than(plan)
        if less is None:
            return ""
        per_cent = plan.costs.total.saving_on(self.plan.costs.total)
        on = f" on {orders} orders" if orders > 1 else ""
        return f"{less.share(Fraction(orders))}{on} ({per_cent} %)"


def margin_of(boxes: Iterable[Boxed], shop: Shop) -> Margin:
    """The least that any of the boxes has."""
    cushions, strengths = [], []
    for boxed in boxes:
        cushions += _cushions(boxed, shop)
        strengths.append(_strength(boxed, shop))
    return Margin(min(cushions, default=None), min(strengths))


def _cushions(boxed: Boxed, shop: Shop) -> list[Fraction]:
    """There is as a share of what the check asks, of each part that is said to be fragile."""
    made = boxed.made
    spare = ZERO if made.soft else max(min((room for _, room in boxed.slack), default=ZERO), ZERO)
    found = []
    for unit in dict.fromkeys(boxed.load.units):
        part = unit.part
        if part.fragility in (None, NO_LIMIT):
            continue
        if made.has_inserts or part.proven:
            found.append(Fraction(1))  # practice stands over the formula: enough, and nobody knows how much more
            continue
        has = unit.wrap_cushion if made.soft else unit.cushion + spare + made.floated - made.pressed.half()
        found.append(Fraction(has.nm, cushion_thickness(boxed.weights.total, part.fragility, shop.cushion_factor).nm))
    return found


def _strength(boxed: Boxed, shop: Shop) -> Fraction:
    limits = boxed.strength.limits
    if limits is None:
        return Fraction(0)
    left = shop.trust.left(boxed.made.condition) * boxed.made.worn
    united = sum(side.inches for side in boxed.made.outside)
    return min(limits.gross.ng * left / boxed.weights.total.ng, Fraction(limits.united) / united)


def packing_weight(plan: Plan) -> Mass:
    """Board, wrap, fill and tape of all its boxes."""
    of_each = (boxed.weights for boxed in plan.boxes)
    return Mass(sum(one.board.ng + one.wrap.ng + one.fill.ng + one.tape.ng for one in of_each))


def alternatives(plans: Sequence[Plan], shop: Shop, value: Money | None = None) -> tuple[Alternative, ...]:
    """What is best at each aim, the cheapest first; plans that are best at several stand there once.

    Args:
        plans: for a job, the best first.
        value: declared.
    """
    if not plans:
        return ()
    sound = [plan for plan in plans if not plan.overloaded and not plan.at_risk] or plans
    of_boxes: dict[tuple[int, ...], Margin] = {}

    def margin(plan: Plan) -> Margin:
        key = tuple(map(id, plan.boxes))
        if key not in of_boxes:
            of_boxes[key] = margin_of(plan.boxes, shop)
        return of_boxes[key]

    first = min(plans, key=lambda plan: (plan.overloaded, plan.at_risk, plan.costs.total.minor))
    best: list[tuple[Aim, Plan]] = [("cheapest", first)]
    bearable = [plan for plan in sound if plan.costs.total.minor <= first.costs.total.minor * _BEARABLE] or [first]
    safest = min(bearable, key=lambda plan: _risk(plan, margin(plan)))
    if margin(safest).enough:
        best.append(("safest", safest))
    best.append(("fastest", min(sound, key=lambda plan: (plan.quote.days[::-1], plan.costs.total.minor))))
    best.append(("least material", min(bearable, key=_material)))
    _add(best, "no cutting", sound, _uncut)
    _add(best, "used boxes", bearable, _used)
    if plans[0] is not first:
        best.append(("house rule", plans[0]))
    aims: dict[int, list[Aim]] = {}
    for aim, plan in best:
        aims.setdefault(id(plan), []).append(aim)
    chosen = {id(plan): plan for _, plan in best}
    return tuple(
        Alternative(
            tuple(of), chosen[key], margin(chosen[key]), _why(of, chosen[key], margin(chosen[key]), shop, value),
            _gives_up(chosen[key], best, margin),
        )
        for key, of in aims.items()
    )  # fmt: skip


def _add(best: list[tuple[Aim, Plan]], aim: Aim, plans: Sequence[Plan], is_one: Callable[[Plan], bool]) -> None:
    found = next((plan for plan in plans if is_one(plan)), None)
    if found is not None:
        best.append((aim, found))


def _risk(plan: Plan, margin: Margin) -> tuple[bool, int, int, int]:
    """The less the safer: all of it covered, enough cushion and strength, few days in other hands, then the sum."""
    enough = min(margin.least * 10 // 1, 10 * _AMPLE)
    return plan.quote.uncovered is not None, -enough, plan.quote.days[1], plan.costs.total.minor


def _material(plan: Plan) -> tuple[int, int]:
    """What a scale cannot tell apart takes as much."""
    return packing_weight(plan).ng // _A_TRIFLE.ng, plan.costs.total.minor


def _uncut(plan: Plan) -> bool:
    return all(WAYS[boxed.made.way].NEEDS == "stock" and boxed.made.condition != "re-cut" and not boxed.blanks
               for boxed in plan.boxes)  # fmt: skip


def _used(plan: Plan) -> bool:
    return all(boxed.made.condition != "new" for boxed in plan.boxes)


def _why(aims: Sequence[Aim], plan: Plan, margin: Margin, shop: Shop, value: Money | None) -> str:
    said: dict[Aim, Callable[[], str]] = {
        "cheapest": lambda: "costs least",
        "safest": lambda: _safe(plan, margin, value),
        "fastest": lambda: f"arrives in {_days(plan)}",
        "least material": lambda: f"takes {show_mass(packing_weight(plan), shop.units, 'up').text} of packing",
        "no cutting": lambda: "nothing is cut",
        "used boxes": lambda: "uses a box that is here",
        "house rule": lambda: f"{plan.favoured_by}: {plan.quote.carrier} comes first",
    }
    told = "; ".join(said[aim]() for aim in aims)
    return f"{told[0].upper()}{told[1:]}."


def _safe(plan: Plan, margin: Margin, value: Money | None) -> str:
    covered = ", value covered" if plan.quote.uncovered is None else f", {plan.quote.uncovered} not covered"
    return f"{margin.says}{covered if value is not None and value.minor else ''}"


def _gives_up(plan: Plan, best: Sequence[tuple[Aim, Plan]], margin: Callable[[Plan], Margin]) -> str:
    """Of the cheapest: what the others have more of. Of another: what it costs more, and what else it lacks."""
    first = best[0][1]
    by_aim = dict(best)
    said = []
    more = plan.more_than(first)
    if more is not None:
        said.append(f"costs {more} more")
    fastest, safest = by_aim["fastest"], by_aim.get("safest")
    if plan is first and plan.quote.days[1] > fastest.quote.days[1]:
        dearer = fastest.more_than(plan)
        by = f" for {dearer} more" if dearer is not None else ""
        said.append(f"up to {_of_days(plan.quote.days[1])}, the fastest {_days(fastest)}{by}")
    has = round(margin(plan).least, 1)
    if safest is not None and has < round(margin(safest).least, 1) and has < _AMPLE:
        least = f"margin of safety {times(margin(plan).least)}" if has else "nothing may stand on it"
        said.append(f"{least}; the safest has {times(margin(safest).least)} what is asked")
    if plan.quote.uncovered is not None and plan is not safest:  # the safest has said it
        said.append(f"{plan.quote.uncovered} is not covered")
    told = "; ".join(said)
    return f"{told[0].upper()}{told[1:]}." if told else ""


def times(share: Fraction) -> str:
    """A share of what is asked, in words.

    >>> times(Fraction(13, 10)), times(Fraction(0))
    ('1.3 times', '0 times')
    """
    # Down: what is short of enough is not told as enough.
    tenths = share * 10 // 1
    return f"{tenths / 10:g} times"


def _of_days(count: int) -> str:
    return f"{count} day" if count == 1 else f"{count} days"


def _days(plan: Plan) -> str:
    least, most = plan.quote.days
    return _of_days(most) if least == most else f"{least} to {_of_days(most)}"


def habit(job: Job, shop: Shop, carriers: Carriers) -> Habit | None:
    """Everything side by side, in the smallest ready box that takes it, at the counter; where none takes it, in a
    box cut around it. None where nobody would take that.

    Raises: as `Job.must_load` does.
    """
    journey = job.journey
    if journey is None:
        return None
    plain = replace(job, load=replace(job.must_load(), packed=None), box=None, price=None)
    services, _ = services_for(plain, carriers)
    at_counter = [one for one in services if one.rate_plan == COUNTER]
    for calling, paid in ((at_counter, "at the counter"), (services, "by whoever takes it")):
        for boxed, name in _next_boxes(plain, shop):
            plans, _ = price(boxed, journey, calling, shop.exchange)
            if plans and not boxed.strength.overloaded:
                return Habit(plans[0], f"{name} {paid}")
    return None


def _next_boxes(job: Job, shop: Shop) -> Iterator[tuple[Boxed, str]]:
    """Ready boxes, the smallest first, then what is cut for it."""
    with suppress(Refusal):
        for boxed in boxes_at_hand(shelf.NAME, job, shop, _READY):
            yield boxed, f"the next ready box ({boxed.made.item})"
    for way in (slotted.NAME, tray.NAME, halves.NAME):
        with suppress(Refusal):
            boxed = box_for(way, job, shop)
            if boxed.too_large is None:
                yield boxed, "a box cut around it"
