"""House rules: when each holds, what follows from it, and that it is named where it decides."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

import pytest

from fardo.core.plan.house import NO_HOUSE, About, House, Rule, When, house_for
from fardo.core.plan.job import Job
from fardo.core.plan.picture import PricedWays, price_ways
from fardo.core.quantity import Money
from fardo.core.refusal import BadInput
from fardo.files.house_rules import HouseRuleEntry, read_rule
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.core.test_whole_cost import EVERY, block
from tests.made_up import inches, shop

USD = "USD"


def ruled(rule: dict[str, Any], **said: Any) -> tuple[Job, PricedWays]:
    """A jug to a home in a shop with that one rule."""
    at = replace(shop(), rules=(read_rule(HouseRuleEntry(**{"name": "the rule", **rule}), "in", USD, "rules[0]"),))
    content = {"ship": {"to": "73120"}, "parts": [block("jug", "8 x 6 x 6")], **said}
    job = understand(JobFile.model_validate(content), at, "10440")
    return job, price_ways(job, at, EVERY)


ABOUT = About("concertina", "Makers' market", Money(50_000, USD), 3, "73120", "US", "2026-12-03")


@pytest.mark.parametrize(
    ("when", "holds"),
    [
        (When(), True),
        (When(kind="concertina"), True),
        (When(kind="table-loom"), False),
        (When(channel="Makers' market"), True),
        (When(channel="door"), False),
        (When(value_from=Money(50_000, USD)), True),
        (When(value_from=Money(50_001, USD)), False),
        (When(things=(3, 3)), True),
        (When(things=(4, None)), False),
        (When(things=(0, 2)), False),
        (When(to=("9", "731")), True),
        (When(to=("9",)), False),
        (When(country="US"), True),
        (When(country="FR"), False),
        (When(season=("11-15", "01-05")), True),
        (When(season=("12-04", "01-05")), False),
        (When(season=("06-01", "12-03")), True),
        (When(season=("12-03", "12-03")), True),
        (When(season=("12-05", "12-05")), False),
        (When(season=("06-01", "12-02")), False),
        (When(kind="concertina", things=(4, None)), False),
    ],
)
def test_a_rule_holds_where_all_that_it_says_does(when: When, holds: bool) -> None:
    assert when.holds(ABOUT) is holds


def test_a_value_or_a_day_that_nobody_said_meets_no_rule_that_asks_for_one() -> None:
    nobody = replace(ABOUT, value=None, day=None)
    assert not When(value_from=Money(1, USD)).holds(nobody)
    assert not When(season=("01-01", "12-31")).holds(nobody)


def test_dear_goods_go_in_a_box_in_a_box_and_the_others_say_why_not() -> None:
    rule = {"value_from": "400", "ways": ["boxed-twice"]}
    _, found = ruled(rule, value="400.00")
    assert [way.way for way in found.ways] == ["boxed-twice"]
    assert dict(found.cannot)["tray"].startswith("house rule the rule: box in a box")
    _, below = ruled(rule, value="399.99")
    assert len(below.ways) > 3


def test_a_barred_carrier_is_refused_by_the_rules_name() -> None:
    _, found = ruled({"bar": ["Oddbarrow"]})
    assert not any(plan.quote.carrier == "Oddbarrow" for way in found.ways for plan in way.plans)
    no = next(one for one in found.ways[0].refused if one.carrier == "Oddbarrow")
    assert no.why == "house rule the rule: not by Oddbarrow"


@pytest.mark.parametrize(("up_to", "first"), [("500.00", "Oddbarrow"), ("0.01", "Wendlefirth Post")])
def test_a_preferred_carrier_comes_first_up_to_so_much_more(up_to: str, first: str) -> None:
    _, found = ruled({"prefer": ["Oddbarrow"], "prefer_up_to": up_to})
    best = found.plans[0]
    assert best.quote.carrier == first
    assert (best.favoured_by == "the rule") == (first == "Oddbarrow")


def test_no_loose_fill_cover_and_signature() -> None:
    job, _ = ruled({"no_loose_fill": True, "cover": True, "signature": True}, value="20.00")
    assert job.load is not None
    assert job.load.fill.loose is False
    assert job.journey is not None
    assert job.journey.signature
    assert job.journey.cover_from == Money(1, USD)
    plain, _ = ruled({"kind": "other"}, value="20.00")
    assert plain.journey is not None
    assert not plain.journey.signature


def test_rough_handling_adds_gap_on_every_side_and_tape() -> None:
    rough, many = ruled({"more_gap": "1/2 in", "tape_times": 1.5})
    _, few = ruled({"kind": "other"})
    assert rough.load is not None
    assert rough.load.units[0].part.gap.wall == inches("1/2")
    a, b = many.way("slotted"), few.way("slotted")
    assert a is not None
    assert b is not None
    assert [x.inches - y.inches for x, y in zip(a.boxed.made.inside, b.boxed.made.inside, strict=True)] == [1, 1, 1]
    same = shop().tape.price_per_100_m.share(Fraction(a.boxed.made.tape.nm * 3, 2 * 10**11))
    assert a.boxed.tape == same


def test_so_many_things_go_in_the_box_that_the_ladder_names() -> None:
    _, found = ruled({"things_from": 1, "things_to": 2, "box": "shelf 14 x 10 x 6"})
    assert {way.item for way in found.ways} == {"shelf 14 x 10 x 6"}
    assert "it goes in shelf 14 x 10 x 6" in dict(found.cannot)["slotted"]


@pytest.mark.parametrize(("said", "allowed", "most"), [(1, 3, 3), (2, 3, 2), (5, 3, 3)])
def test_parcels_at_most(said: int, allowed: int, most: int) -> None:
    assert House((Rule("three", parcels_at_most=allowed),)).parcels_at_most(said) == most
    assert NO_HOUSE.parcels_at_most(said) == said


def test_a_job_leaves_a_rule_out_by_its_name() -> None:
    job, found = ruled({"ways": ["boxed-twice"]}, rules_left_out=["the rule"])
    assert len(found.ways) > 3
    assert [rule.name for rule in job.house.left_out] == ["the rule"]
    assert job.house.rules == ()


def test_of_several_rules_the_most_holds() -> None:
    rules = (Rule("a", more_gap=inches("1/4")), Rule("b", more_gap=inches("1/2"), tape=Fraction(2)))
    house = house_for(rules, ABOUT)
    assert (house.more_gap, house.tape) == (inches("1/2"), Fraction(2))


def test_what_follows_is_told_in_words() -> None:
    rule = read_rule(
        HouseRuleEntry(name="dear", ways=["boxed-twice"], bar=["Oddbarrow"], prefer=["Quillmere Courier"],
                       prefer_up_to="2.50", parcels_at_most=2, no_loose_fill=True, cover=True, signature=True,
                       more_gap="1/2 in", tape_times=1.5),
        "in", USD, "rules[0]",
    )  # fmt: skip
    assert rule.does("in") == (
        "only box in a box, floated, not by Oddbarrow, by Quillmere Courier first, up to 2.50 more, "
        "at most 2 parcels, no loose fill, covered in full, signature on delivery, 1/2 in more gap on every side, "
        "1.5 times the tape"
    )


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"first_day": "11-15"}, "rules[3].last_day"),
        ({"last_day": "11-15"}, "rules[3].first_day"),
        ({"things_from": 5, "things_to": 2}, "rules[3].things_to"),
        ({"value_from": "dear"}, "rules[3].value_from"),
        ({"more_gap": "much"}, "rules[3].more_gap"),
        ({"prefer_up_to": "little"}, "rules[3].prefer_up_to"),
    ],
)
def test_what_is_wrong_with_a_rule_names_its_field(wrong: dict[str, Any], field: str) -> None:
    with pytest.raises(BadInput) as refused:
        read_rule(HouseRuleEntry(**{"name": "wrong", **wrong}), "in", USD, "rules[3]")
    assert refused.value.field == field
