"""Plans looked over from outside: of goods that are arranged, divided, in a bag and in cells.

`benchmarks.plans_checked` prints the same for every kind of goods and every job of the demo.
"""

from __future__ import annotations

from dataclasses import replace

import pytest

from fardo.arranging import Whole, cheapest_here
from fardo.core.plan.alternatives import alternatives
from fardo.core.plan.job import Job
from fardo.core.plan.parcels import plans_in_parcels
from fardo.core.plan.picture import best_plans, price_ways
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import Ship
from fardo.files.kind import shipped_kinds, start_job
from fardo.files.shop import starting_shop
from fardo.files.understood import understand
from tests.made_up import services, shop
from tests.plans_checked import faults_of

EVERY = Carriers(services())


def job_of_kind(code: str, parcels: int = 1) -> Job:
    kind = next(kind for kind in shipped_kinds() if kind.code == code)
    begun = start_job(kind, "", starting_shop())
    answers = dict.fromkeys(begun.questions, "none")
    said = {"ship": Ship(to="73120", residential=True), "answers": answers, "parcels_at_most": parcels}
    return understand(begun.model_copy(update=said), shop(), "10440")


@pytest.mark.parametrize(
    ("kind", "parcels"), [("spinning-wheel", 2), ("table-loom", 1), ("cards-stationery", 1), ("pottery", 1)]
)
def test_nothing_is_wrong_with_what_is_proposed(kind: str, parcels: int) -> None:
    job = job_of_kind(kind, parcels)
    found = [one.answer for one in cheapest_here(Whole(job, shop(), EVERY), "quick")[:2]]
    plans = best_plans(job, found, shop(), EVERY, plans_in_parcels(job, shop(), EVERY, 12))
    for one in alternatives(plans, shop(), job.value):
        assert list(faults_of(one.plan, job)) == []


def test_a_plan_that_is_wrong_is_found_out() -> None:
    """The look-over itself: a part left out, a cent too much, a box too small."""
    job = job_of_kind("table-loom")
    plan = next(plan for plan in price_ways(job, shop(), EVERY).plans if not plan.boxed.made.soft)
    boxed = plan.boxed
    more = replace(plan, quote=replace(plan.quote, lines=plan.quote.lines[:-1]))
    assert any("its lines come to" in fault for fault in faults_of(more, job))
    inside = boxed.made.inside
    small = replace(plan, boxed=replace(boxed, made=replace(boxed.made, inside=(inside[0].half(), *inside[1:]))))
    assert any("do not go into" in fault for fault in faults_of(small, job))
    larger = replace(boxed.made, outside=(boxed.made.outside[0] * 3, *boxed.made.outside[1:]))
    assert any(
        "fardo price asks" in fault for fault in faults_of(replace(plan, boxed=replace(boxed, made=larger)), job)
    )
    fewer = replace(job, load=replace(job.must_load(), units=job.must_load().units[1:]))
    assert any("is to be sent" in fault for fault in faults_of(plan, fewer))
