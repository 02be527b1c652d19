"""The plans of a job as one table: the best of each service or of each box, sorted by any column, filtered."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from fardo.core.make import short_title
from fardo.core.plan.price import Plan

Show = Literal["best of each service", "best of each box", "in one box", "all"]
Column = Literal["total", "box", "service", "rate plan", "days", "postage", "surcharges", "cover", "packing", "covered"]

_KEYS: dict[Column, Callable[[Plan], tuple[int | str, ...]]] = {
    "box": lambda plan: (boxed_in(plan).casefold(),),
    "service": lambda plan: (plan.quote.carrier.casefold(), plan.quote.service.casefold()),
    "rate plan": lambda plan: (plan.quote.rate_plan.casefold(),),
    "days": lambda plan: (plan.quote.days[1], plan.quote.days[0]),
    "postage": lambda plan: (plan.costs.postage.minor,),
    "surcharges": lambda plan: (plan.costs.surcharges.minor,),
    "cover": lambda plan: (plan.costs.cover.minor,),
    "packing": lambda plan: (plan.own.minor,),
    "covered": lambda plan: (plan.quote.uncovered.minor if plan.quote.uncovered is not None else 0,),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Asked:
    """What of the table is looked at.

    Args:
        way: of the one box, where one is looked at.
        words: each of them must be in a row.
        covered: only what covers the value.
        days_at_most: on the way.
    """

    show: Show = "best of each service"
    sort: Column = "total"
    way: str = ""
    words: str = ""
    covered: bool = False
    days_at_most: int | None = None

    def takes(self, plan: Plan) -> bool:
        if self.covered and plan.quote.uncovered is not None:
            return False
        if self.show == "in one box" and plan.boxed.made.way != self.way:
            return False
        if self.days_at_most is not None and plan.quote.days[1] > self.days_at_most:
            return False
        quote = plan.quote
        row = f"{boxed_in(plan)} {quote.carrier} {quote.service} {quote.rate_plan}".casefold()
        return all(word in row for word in self.words.casefold().split())


def tabled(plans: Sequence[Plan], asked: Asked) -> list[Plan]:
    """The rows that are asked for.

    Args:
        plans: the best first; equal ones stay in that order.
    """
    rows = [plan for plan in plans if asked.takes(plan)]
    if asked.show == "best of each service":
        rows = first_of_each(rows, lambda plan: plan.quote.called)
    elif asked.show == "best of each box":
        rows = first_of_each(rows, boxed_in)
    return rows if asked.sort == "total" else sorted(rows, key=_KEYS[asked.sort])


def first_of_each(plans: Iterable[Plan], key: Callable[[Plan], Hashable]) -> list[Plan]:
    """Of those alike in something the first."""
    kept: dict[Hashable, Plan] = {}
    for plan in plans:
        kept.setdefault(key(plan), plan)
    return list(kept.values())


def boxed_in(plan: Plan) -> str:
    """Its boxes, in words."""
    each = [
        f"{short_title(one.made.way)}: {one.made.item}" if one.made.item else short_title(one.made.way)
        for one in plan.boxes
    ]
    return each[0] if len(each) == 1 else f"{len(each)} parcels: {', '.join(dict.fromkeys(each))}"
