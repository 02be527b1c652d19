"""What else one would choose than the cheapest, why, what it gives up, and what the habit costs."""

from __future__ import annotations

from fractions import Fraction

import pytest

from fardo.core.plan.alternatives import Alternative, Margin, alternatives, habit, margin_of, packing_weight
from fardo.core.plan.box import box_for, boxes_at_hand
from fardo.core.plan.cost_comparison import Row, side_by_side
from fardo.core.plan.job import Job
from fardo.core.plan.journey import Journey
from fardo.core.plan.picture import price_ways
from fardo.core.plan.price import price
from fardo.core.plan.table import Asked
from fardo.core.protect.cushion import cushion_thickness
from fardo.core.quantity import Money
from fardo.core.tariff.carriers import Carriers
from tests.core.test_price_with_sense import without_cover
from tests.core.test_whole_cost import EVERY, block, called, job_of
from tests.made_up import shop, sizes


def jug(**said: object) -> Job:
    part = {**block("jug", "8 x 6 x 6", weight="3 lb"), "fragility": "delicate", "gap": "2", **said}
    return job_of([part])


def found(job: Job, carriers: Carriers = EVERY) -> dict[str, Alternative]:
    plans = price_ways(job, shop(), carriers).plans
    return {aim: one for one in alternatives(plans, shop()) for aim in one.aims}


def test_each_aim_is_met_best_of_every_plan() -> None:
    plans = price_ways(jug(gap="4"), shop(), EVERY).plans
    by_aim = {aim: one for one in alternatives(plans, shop()) for aim in one.aims}
    assert by_aim["cheapest"].plan is plans[0]
    assert by_aim["fastest"].plan.quote.days[1] == min(plan.quote.days[1] for plan in plans)
    least = min(packing_weight(plan).grams for plan in plans)
    assert packing_weight(by_aim["least material"].plan).grams < least + 25
    assert not any(blank for boxed in by_aim["no cutting"].plan.boxes for blank in boxed.blanks)
    bearable = [plan for plan in plans if plan.costs.total.minor <= 2 * plans[0].costs.total.minor]
    assert by_aim["safest"].margin.least >= min(
        Fraction(2), max(margin_of(p.boxes, shop()).least for p in bearable)
    ) - (Fraction(1, 10))


def test_a_used_box_that_is_here_is_told_where_it_is_worth_it() -> None:
    loom = found(job_of([block("loom", "20 x 16 x 10", weight="14 lb")]))["used boxes"]
    assert all(boxed.made.condition != "new" for boxed in loom.plan.boxes)
    assert "uses a box that is here" in loom.why.lower()
    # A jug in a carton for wool costs three times as much: nobody would.
    assert "used boxes" not in found(jug())


def test_what_is_best_at_several_stands_there_once_with_each_reason() -> None:
    plans = price_ways(jug(gap="4"), shop(), EVERY).plans
    every = alternatives(plans, shop())
    assert len({id(one.plan) for one in every}) == len(every)
    only = alternatives(plans[:1], shop())
    assert len(only) == 1
    assert only[0].aims[:4] == ("cheapest", "safest", "fastest", "least material")
    assert only[0].gives_up == ""
    assert alternatives((), shop()) == ()


def test_the_safest_says_whether_its_value_is_covered_and_says_it_once() -> None:
    plans = price_ways(job_of([block("jug", "8 x 6 x 6")], value="40.00"), shop(), EVERY).plans
    (safest,) = [one for one in alternatives(plans, shop(), Money(4000, "USD")) if "safest" in one.aims]
    assert safest.plan.quote.uncovered is None
    assert ", value covered" in safest.why
    bare = Carriers(tuple(without_cover(one) for one in EVERY.services))
    plans = price_ways(job_of([block("jug", "8 x 6 x 6")], value="40.00"), shop(), bare).plans
    (only,) = alternatives(plans[:1], shop(), Money(4000, "USD"))
    assert f"{only.why} {only.gives_up}".count("40.00 not covered") == 1
    assert "is not covered" not in only.gives_up


def test_what_an_alternative_gives_up_is_its_sum_over_the_cheapest() -> None:
    by_aim = found(jug())
    cheapest, fastest = by_aim["cheapest"], by_aim["fastest"]
    more = fastest.plan.costs.total - cheapest.plan.costs.total
    assert more.minor > 0
    assert fastest.gives_up.startswith(f"Costs {more} more")
    assert f"for {more} more" in cheapest.gives_up
    assert fastest.why == f"Arrives in {fastest.plan.quote.days[0]} to {fastest.plan.quote.days[1]} days."


def test_the_margin_is_the_weakest_of_cushion_and_strength() -> None:
    """T = C x h / G beside what is there; the certificate of 32 ECT single wall, 65 lb and 75 united inches."""
    boxed = box_for("slotted", jug(), shop())
    margin = margin_of([boxed], shop())
    asked = cushion_thickness(boxed.weights.total, 40, shop().cushion_factor)
    kept = min(room for _, room in boxed.slack) + sizes("2 x 2 x 2")[0]
    assert margin.cushion == Fraction(kept.nm, asked.nm)
    united = sum(side.inches for side in boxed.made.outside)
    assert boxed.strength.limits is not None
    gross, most = boxed.strength.limits.gross, boxed.strength.limits.united
    assert margin.strength == min(Fraction(gross.ng, boxed.weights.total.ng), most / united)
    assert margin.least == min(margin.cushion, margin.strength)
    assert Margin(None, Fraction(3)).least == 3


def test_a_box_in_a_box_has_the_distance_between_them_as_cushion_too() -> None:
    once, twice = (margin_of([box_for(way, jug(), shop())], shop()).cushion for way in ("slotted", "boxed-twice"))
    assert once is not None
    assert twice is not None
    assert twice > once


def test_a_bag_has_no_strength_and_is_never_the_safest_beside_a_box() -> None:
    cloth = job_of([{**block("shawl", "9 x 7 x 1", weight="1 lb"), "protect": [{"material": "tissue"}]}])
    by_aim = found(cloth)
    assert by_aim["cheapest"].plan.boxed.made.soft
    assert not by_aim["safest"].plan.boxed.made.soft
    assert "nothing may stand on it" in by_aim["cheapest"].gives_up


def test_what_is_at_risk_is_no_alternative_but_where_nothing_else_is_there() -> None:
    half_covered = Carriers(tuple(without_cover(one) if n % 2 else one for n, one in enumerate(EVERY.services)))
    job = job_of([block("jug", "8 x 6 x 6")], value="640.00")
    plans = price_ways(job, shop(), half_covered).plans
    assert any(plan.at_risk for plan in plans)
    assert not any(one.plan.at_risk for one in alternatives(plans, shop()))
    risky = [plan for plan in plans if plan.at_risk]
    assert alternatives(risky, shop())[0].plan.at_risk
    # Of a table it is left out only where that is asked for.
    assert {plan.at_risk for plan in plans if Asked(show="all").takes(plan)} == {False, True}
    assert {plan.at_risk for plan in plans if Asked(show="all", covered=True).takes(plan)} == {False}


def test_the_habit_is_the_next_ready_box_at_the_counter() -> None:
    usual = habit(jug(), shop(), EVERY)
    assert usual is not None
    assert usual.plan.quote.rate_plan == "counter"
    assert usual.plan.boxed.made.way == "shelf"
    assert usual.plan.boxed.made.item == boxes_at_hand("shelf", jug(), shop(), 1)[0].made.item
    best = price_ways(jug(), shop(), EVERY).plans[0]
    less = usual.plan.costs.total - best.costs.total
    assert usual.saved_by(best).startswith(f"{less} (")
    counter = [one for one in EVERY.services if one.rate_plan == "counter"]
    plans, _ = price(usual.plan.boxed, Journey("10440", "73120", False), counter, shop().exchange)
    assert usual.plan.costs.total == min(plan.costs.total for plan in plans)
    twelve = less.share(Fraction(12))
    assert usual.saved_by(best, 12).startswith(f"{twelve} on 12 orders (")
    assert usual.saved_by(usual.plan) == ""


def test_where_no_ready_box_takes_it_the_habit_is_a_box_cut_around_it() -> None:
    usual = habit(job_of([block("loom", "40 x 12 x 9", weight="20 lb")]), shop(), EVERY)
    assert usual is not None
    assert not usual.plan.boxed.made.taken
    assert "a box cut around it" in usual.box


@pytest.mark.parametrize("carriers", [Carriers(()), Carriers((called("Oddbarrow", "Ground"),))])
def test_without_a_counter_price_the_habit_is_what_is_there(carriers: Carriers) -> None:
    usual = habit(jug(), shop(), carriers)
    assert (usual is not None) == bool(carriers.services)


def test_costs_side_by_side_say_which_is_least_and_how_much_more_the_others_are() -> None:
    five, seven, none = (Money(minor, "USD") for minor in (500, 700, 0))
    assert side_by_side([seven, five]) == Row((False, True), (Money(200, "USD"), None), nothing=False)
    assert side_by_side([five, five]) == Row((False, False), (None, None), nothing=False)
    assert side_by_side([none, none]).nothing
    assert not side_by_side([none, five]).nothing


def test_what_has_less_cushion_than_is_asked_is_not_called_the_safest() -> None:
    plans = price_ways(jug(gap="1"), shop(), EVERY).plans
    every = alternatives(plans, shop())
    assert max(one.margin.cushion or 0 for one in every) < 1
    assert not any("safest" in one.aims for one in every)
