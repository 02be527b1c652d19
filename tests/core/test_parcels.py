"""A job in several parcels: every division once, the cheapest of few proved, and what must hold of each."""

from __future__ import annotations

from dataclasses import replace
from itertools import product
from random import Random
from types import SimpleNamespace
from typing import Any

import pytest
from hypothesis import settings

from fardo.answers import plan_json
from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.initial_layout import initial_layouts
from fardo.core.make.stock import Stock, StockBox
from fardo.core.plan import parcels as parcels_of_plan
from fardo.core.plan.house import Rule
from fardo.core.plan.job import Job
from fardo.core.plan.load import ask_of, with_packed
from fardo.core.plan.parcels import Parcels, _that_there_are, divisions, plans_in_parcels
from fardo.core.plan.picture import best_plans, draw_up, price_ways
from fardo.core.plan.price import Plan, price_together
from fardo.core.quantity import Money
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, quote
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.core.test_whole_cost import EVERY, block, called, job_of, limited
from tests.made_up import shop, sizes

POST, GROUND = called("Wendlefirth Post", "Parcel"), called("Oddbarrow", "Ground")
FREIGHT = called("Tarnfell Freight", "Pallet line")
_CUT_WAYS = ["slotted", "tray", "part-lid", "overlap", "half-slotted", "halves"]


@pytest.mark.parametrize("count", [1, 5, 12, 23])
def test_equal_things_are_divided_in_as_many_ways_as_the_number_is(count: int) -> None:
    """Partitions into at most three parts: the whole number nearest to (n + 3)^2 / 12 (Andrews, The Theory of
    Partitions, from memory).
    """
    assert len(list(divisions((count,), 3))) == round((count + 3) ** 2 / 12)


@pytest.mark.parametrize(("things", "bell"), [(2, 2), (3, 5), (4, 15), (5, 52)])
def test_unlike_things_are_divided_in_as_many_ways_as_bell_counts(things: int, bell: int) -> None:
    """Bell numbers."""
    every = list(divisions((1,) * things, things))
    assert len(every) == len(set(every)) == bell


def test_even_shares_are_among_them() -> None:
    assert ((8,), (8,), (7,)) in set(divisions((23,), 3))


def by_enumeration(job: Job, carriers: Carriers) -> int:
    """The least sum of every division in two, every box of each part and every service, each priced as it is sent."""
    load, journey, at = job.must_load(), job.must_go(), shop()
    least = 1 << 60
    units = load.units
    for mask in range(1, 2 ** (len(units) - 1)):
        halves = [
            tuple(unit for n, unit in enumerate(units) if (mask >> n) & 1 == side) for side in range(2)
        ]  # fmt: skip
        boxed = []
        for half in halves:
            part = with_packed(load, load.packed) if load.packed else load
            sub = Job(load=type(load)(half, (), part.liner), journey=journey, ways=job.ways)
            layouts = initial_layouts(ask_of(sub.must_load()))[:3]
            found = [
                way.boxed for layout in layouts
                for way in price_ways(Job(load=with_packed(sub.must_load(), layout), journey=journey, ways=job.ways),
                                      at, carriers).ways
            ]  # fmt: skip
            boxed.append([one for one in found if one.too_large is None and not one.strength.overloaded])
        for pair in product(*boxed):
            for plan in price_together(pair, [None, None], journey, carriers.services, at.exchange):
                least = min(least, plan.costs.total.minor)
    return least


def test_small_worlds_are_divided_as_by_enumeration() -> None:
    """Up to four things, six ways to box them, three services. 200 of them where HYPOTHESIS_PROFILE is thorough."""
    random = Random(18)
    for _ in range(settings().max_examples // 2):
        things = [
            block(
                f"thing {n}", " x ".join(str(random.randint(2, 22)) for _ in range(3)), 1, f"{random.randint(1, 9)} lb"
            )
            for n in range(random.randint(2, 4))
        ]
        services = [limited(one, str(random.choice([18, 30, 60]))) for one in (POST, GROUND, FREIGHT)]
        world = Carriers(tuple(services[: random.randint(1, 3)]))
        job = job_of(things, ways=random.sample(_CUT_WAYS, random.randint(2, 6)), parcels_at_most=2)
        plans = plans_in_parcels(job, shop(), world)
        least = by_enumeration(job, world)
        assert (plans[0].costs.total.minor if plans else 1 << 60) == least


def test_few_are_divided_in_every_way_and_nothing_is_searched(monkeypatch: pytest.MonkeyPatch) -> None:
    def searched(*_: object) -> None:
        raise AssertionError("a search among few divisions")

    monkeypatch.setattr(Parcels, "_search", searched)
    job = job_of([block("lower", "12 x 9 x 6"), block("upper", "12 x 9 x 5")], ways=["slotted"], parcels_at_most=2)
    assert plans_in_parcels(job, shop(), Carriers((POST,)))


def every_one_once(plan: Plan, job: Job) -> bool:
    told = [(one["part"], one["number"]) for parcel in plan_json(plan)["parcels"] for one in parcel["placements"]]
    wanted = [(unit.part.name) for unit in job.must_load().units]
    return len(told) == len(set(told)) == len(wanted) and sorted(name for name, _ in told) == sorted(wanted)


def test_two_parcels_win_where_one_is_too_long_and_one_wins_where_it_is_cheap() -> None:
    long = [block("pole", "40 x 4 x 4"), block("block", "24 x 18 x 12", 1, "20 lb")]
    world = Carriers((limited(POST, "42"), called("Tarnfell Freight", "Pallet line")))
    apart = job_of([*long, block("chest", "20 x 20 x 16", 1, "30 lb")], parcels_at_most=3)
    first, *_ = best_plans(apart, (), shop(), world, plans_in_parcels(apart, shop(), world))
    assert len(first.boxes) > 1
    assert every_one_once(first, apart)
    asked: list[int] = []

    def nothing_else(one: Job) -> list[Arrangement]:
        asked.append(len(one.must_load().units))
        return []

    more = job_of([*long, block("chest", "20 x 20 x 16", 1, "30 lb"), block("reed", "6 x 4 x 2")], parcels_at_most=2)
    plans_in_parcels(more, shop(), world, arrange_one=nothing_else)
    assert asked  # how what lies in the best parcels may lie otherwise
    assert max(asked) > 1
    small = job_of([block("horn", "8 x 6 x 4"), block("reed", "6 x 4 x 2")], parcels_at_most=3)
    first, *_ = best_plans(small, (), shop(), EVERY, plans_in_parcels(small, shop(), EVERY))
    assert len(first.boxes) == 1


def test_no_parcel_is_heavier_than_is_wished_for() -> None:
    job = job_of(
        [block("book", "12 x 9 x 2", 23, "3 lb")], parcels_at_most=3, wishes={"parcel_weight_at_most": "30 lb"}
    )
    alone = best_plans(job_of([block("book", "12 x 9 x 2", 9, "3 lb")]), (), shop(), EVERY)
    assert alone
    first, *_ = plans_in_parcels(job, shop(), EVERY)
    assert len(first.boxes) == 3
    assert all(float(boxed.weights.total.pounds) <= 30 for boxed in first.boxes)
    assert every_one_once(first, job)
    refused = price_ways(job, shop(), EVERY).ways[0].refused
    assert any("at most 30 lb is wished for" in one.why for one in refused)


def test_a_wish_for_sides_holds_for_every_parcel() -> None:
    """The pole alone is over 40 in all; whichever parcel is asked about first."""
    job = job_of([block("block", "10 x 10 x 10"), block("pole", "34 x 4 x 4")], parcels_at_most=2,
                 wishes={"sides_sum_at_most": "40 in"})  # fmt: skip
    assert plans_in_parcels(job, shop(), EVERY) == []


def test_what_is_held_together_stays_together_and_the_extras_go_once() -> None:
    pair = [
        block("left", "12 x 5 x 4") | {"rules": {"bundle": "pair"}},
        block("right", "12 x 5 x 4") | {"rules": {"bundle": "pair"}},
    ]
    slip = [{"name": "card", "size": ["8 in", "5 in", "1 in"], "weight": "4 oz"}]
    job = job_of([*pair, block("chest", "20 x 14 x 10", 1, "20 lb")], parcels_at_most=3, extras=slip)
    for plan in plans_in_parcels(job, shop(), EVERY):
        held = [{unit.part.name for unit in boxed.load.units} for boxed in plan.boxes]
        assert {"left", "right"} in held
        assert [extra.name for boxed in plan.boxes for extra in boxed.load.extras] == ["card"]


def test_a_box_that_is_there_once_is_taken_for_one_parcel() -> None:
    """Two like things, and one used box that suits either: the other is cut."""
    job = job_of([block("anvil", "22 x 6 x 15", 2, "30 lb")], parcels_at_most=2, ways=["recut", "slotted"],
                 wishes={"parcel_weight_at_most": "40 lb"})  # fmt: skip
    amp = StockBox("amp carton", sizes("18 1/2 x 12 x 21"), shop().grade("C"), Money(0, "USD"), 1, True)
    for count in (1, 2):
        at = replace(shop(), stock=Stock((replace(amp, count=count),)))
        plan = plans_in_parcels(job, at, EVERY)[0]
        ways = sorted(boxed.made.way for boxed in plan.boxes)
        assert ways == (["recut", "recut"] if count == 2 else ["recut", "slotted"])


def test_each_parcel_priced_by_itself_beside_the_others_asks_the_same() -> None:
    """As `fardo price` does it, from outside sizes and weights."""
    job = job_of(
        [block("book", "12 x 9 x 2", 12, "3 lb")], parcels_at_most=2, wishes={"parcel_weight_at_most": "30 lb"}
    )
    plan = plans_in_parcels(job, shop(), EVERY)[0]
    journey = job.must_go()
    first, *rest = (
        Parcel(boxed.made.outside, boxed.weights.total, journey.origin, journey.destination) for boxed in plan.boxes
    )
    service = next(one for one in EVERY.services if one.called == plan.quote.called)
    asked = quote(service, Parcel(first.sizes, first.weight, first.origin, first.destination, beside=tuple(rest)))
    assert isinstance(asked, Quote)
    assert asked.amount == plan.quote.amount


def test_one_thing_moved_after_another_leads_to_what_enumeration_finds(monkeypatch: pytest.MonkeyPatch) -> None:
    """Long with long and flat with flat, typed in turn: no even share and no thing alone begins with that."""
    sizes = ("46 x 4 x 4", "20 x 20 x 2", "46 x 5 x 4", "20 x 20 x 3")
    job = job_of([block(f"thing {n}", size, 1, "6 lb") for n, size in enumerate(sizes)], parcels_at_most=2)
    (best, *_) = Parcels(job, shop(), EVERY).cheapest()
    monkeypatch.setattr(parcels_of_plan, "ENUMERATED", 0)
    (found, *_) = Parcels(job, shop(), EVERY, looked_at=200).cheapest()
    assert found.costs.total == best.costs.total
    told = [{one["part"] for one in parcel["placements"]} for parcel in plan_json(found)["parcels"]]
    assert sorted(map(sorted, told)) == [["thing 0", "thing 2"], ["thing 1", "thing 3"]]


def test_many_unlike_things_are_divided_within_what_may_be_looked_at() -> None:
    sizes = ("20 x 12 x 8", "10 x 10 x 10", "30 x 6 x 6", "14 x 9 x 5", "24 x 18 x 4", "8 x 8 x 3", "40 x 4 x 4")
    job = job_of([block(f"thing {n}", size, 1, "4 lb") for n, size in enumerate(sizes)], parcels_at_most=3)
    parcels = Parcels(job, shop(), EVERY, looked_at=20)
    plans = parcels.cheapest()
    assert plans
    assert all(every_one_once(plan, job) for plan in plans)
    assert plans == sorted(plans, key=lambda plan: (plan.overloaded, *plan.rank))
    again = Parcels(job, shop(), EVERY, looked_at=20).cheapest()
    assert [plan.costs.total for plan in again] == [plan.costs.total for plan in plans]


def test_one_parcel_is_what_a_job_means_unless_more_are_allowed() -> None:
    job = job_of([block("horn", "8 x 6 x 4"), block("reed", "6 x 4 x 2")])
    assert plans_in_parcels(job, shop(), EVERY) == []
    nowhere = understand(
        JobFile.model_validate({"parts": [block("horn", "8 x 6 x 4", 2)], "parcels_at_most": 2}), shop()
    )
    assert plans_in_parcels(nowhere, shop(), EVERY) == []


def test_more_than_go_in_one_parcel_are_a_job_that_is_divided() -> None:
    many = [block("cone", "3 x 3 x 3", 100, "4 oz")]
    job = job_of(many)  # in as many as it takes, though nothing was said of parcels
    assert (job.beyond, job.parcels_at_most, job.parcels_least) == (None, 2, 2)
    assert job.several == "100 things; up to 80 go in one parcel"
    assert draw_up(job, shop(), EVERY).next_move == "Divide it into parcels"
    found = price_ways(job, shop(), EVERY)
    assert found.ways == ()
    assert dict(found.cannot)["slotted"] == "100 things; up to 80 go in one parcel"
    best = plans_in_parcels(job, shop(), EVERY, 6)[0]
    held = [len(boxed.load.units) for boxed in best.boxes]
    assert sum(held) == 100
    assert max(held) <= 80


def test_a_house_rule_of_one_parcel_is_what_more_things_are_told_by() -> None:
    rule = Rule("whole", parcels_at_most=1)
    kept = replace(shop(), rules=(rule,))
    said = {"parts": [block("cone", "3 x 3 x 3", 100, "4 oz")], "ship": {"to": "73120"}}
    job = understand(JobFile.model_validate(said), kept)
    assert job.beyond is not None
    assert "a house rule allows 1 where it takes 2" in job.beyond
    far = job_of([block(f"cone {n}", "3 x 3 x 3", 999, "4 oz") for n in range(9)])
    assert far.beyond is not None
    assert "a job goes in up to 100 where it takes 113" in far.beyond


def test_what_must_part_is_in_no_parcel_together() -> None:
    parts = [block("wheel", "12 x 12 x 3"), block("lamp", "6 x 6 x 8"), block("leg", "14 x 2 x 2", 2)]
    parts[1]["rules"] = {"not_with": ["wheel"]}
    alone = price_ways(job_of(parts), shop(), EVERY)
    assert dict(alone.cannot)["tray"] == "lamp goes in another parcel than wheel"
    plans = plans_in_parcels(job_of(parts, parcels_at_most=3), shop(), EVERY)
    assert plans
    for plan in plans:
        for boxed in plan.boxes:
            assert not {"wheel", "lamp"} <= {unit.part.name for unit in boxed.load.units}


def test_no_box_is_given_to_more_parcels_than_it_is_there_for() -> None:
    """Three of a stock box for twelve parcels: three have it, the others their second best; with neither, none."""

    def offer(name: str, there: int) -> Any:
        taken = (SimpleNamespace(item=SimpleNamespace(name=name, count=there), count=1),)
        return SimpleNamespace(boxed=SimpleNamespace(made=SimpleNamespace(taken=taken)), order=(1,), alone=1)

    cube, cut = offer("cube", 3), offer("cut", 99)
    mixed = _that_there_are([[cube, cut]] * 12)
    assert [one.boxed.made.taken[0].item.name for one in mixed] == ["cube"] * 3 + ["cut"] * 9
    assert _that_there_are([[cube, cut]] * 2) == (cube, cube)
    assert _that_there_are([[cube]] * 12) == ()
