"""What is preferred where room is the same: heavy low, sturdy outside, fragile within; and that it never costs much."""

from __future__ import annotations

import numpy as np
import pytest

from fardo.core.arrange.ask import Arrangement, Ask, balance
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.cost import arrangement_cost, bulk, is_fragile, placement_penalty
from fardo.core.arrange.search import SearchState, improve
from fardo.core.arrange.turn import UNTURNED
from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Box, Cylinder
from fardo.core.quantity import INCH, POUND, ZERO
from tests.arrangement_checked import faults as seen_faults
from tests.made_up import inches


def cube(name: str, side: int, **more) -> Body:
    return Body(name, Box(INCH * side, INCH * side, INCH * side), **more)


def at(x: str, y: str, z: str) -> Laid:
    return Laid(UNTURNED, (inches(x), inches(y), inches(z)))


def stacked(lower: int) -> Arrangement:
    laid = [at("0", "0", "6"), at("0", "0", "6")]
    laid[lower] = at("0", "0", "0")
    return Arrangement((inches("6"), inches("6"), inches("12")), tuple(laid), (lower, 1 - lower))


BRICK, CUSHION = cube("brick", 6, weight=POUND * 9), cube("cushion", 6, weight=POUND)


def test_of_two_ways_to_stack_the_heavy_thing_below_is_worth_more() -> None:
    ask = Ask((CUSHION, BRICK))
    assert arrangement_cost(ask, stacked(lower=1)) < arrangement_cost(ask, stacked(lower=0))
    # 9 of 10 lb with their middle at 3 in of 12, and one at 9: 3.6 in of 12 is 0.3, and half of it counts.
    assert placement_penalty(ask.bodies, stacked(lower=1)) == pytest.approx(0.15)


def test_it_never_costs_more_than_three_hundredths_of_the_room() -> None:
    ask = Ask((CUSHION, BRICK))
    for lower in (0, 1):
        answer = stacked(lower)
        plain = bulk(ask, np.array([side.mm for side in answer.inside]))
        assert plain <= arrangement_cost(ask, answer) <= plain * 1.03


def test_where_nothing_is_weighed_or_fragile_nothing_is_preferred() -> None:
    ask = Ask((cube("one", 6), cube("other", 6)))
    assert placement_penalty(ask.bodies, stacked(lower=0)) == 0.0
    assert arrangement_cost(ask, stacked(lower=0)) == arrangement_cost(ask, stacked(lower=1))


@pytest.mark.parametrize(("fragility", "is_so"), [(25, True), (60, True), (61, False), (None, False)])
def test_fragile_is_what_is_delicate_or_more(fragility: int | None, is_so: bool) -> None:
    assert is_fragile(cube("glass", 3, fragility=fragility)) is is_so


def test_walls_count_that_a_fragile_thing_lies_against() -> None:
    glass = cube("glass", 4, fragility=30, gap=Gap.even(INCH))
    box = (inches("12"), inches("12"), inches("12"))
    # Of four sides and the floor: two sides and the floor; nothing but the floor; nothing.
    for place, walls in ((at("1", "1", "1"), 3), (at("4", "4", "1"), 1), (at("4", "4", "7"), 0)):
        assert placement_penalty((glass,), Arrangement(box, (place,), (0,))) == pytest.approx(walls / 5 / 2)


def test_pressing_leaves_a_fragile_thing_in_the_middle_where_that_costs_nothing() -> None:
    vase = Body("vase", Cylinder(INCH * 4, INCH * 5), Gap.even(INCH.half()), weight=POUND, fragility=30)
    tray = Body("tray", Box(INCH * 16, INCH * 12, INCH * 2), Gap.even(INCH.half()), weight=POUND * 4)
    ask = Ask((tray, vase), inside=(inches("17"), inches("13"), inches("9")))
    found = improve(ask, SearchState(), 8).best
    assert found is not None
    answer = found.answer
    assert seen_faults(ask, answer) == []
    assert answer.inside == ask.inside
    laid = answer.laid[1]
    assert laid is not None
    middle = [
        (corner.nm + size.nm / 2) / side.nm
        for corner, size, side in zip(laid.at, stance(vase, laid.turn).sizes, answer.inside, strict=True)
    ]
    assert middle[:2] == pytest.approx([0.5, 0.5], abs=1e-6)


def test_the_search_lays_the_heavy_thing_below() -> None:
    weights = {"cushion": POUND, "anvil": POUND * 30, "tin": POUND}
    ask = Ask(tuple(cube(name, 6, weight=weight) for name, weight in weights.items()))
    answers = [found.answer for found in improve(ask, SearchState(), 6).found]
    assert answers
    for answer in answers:
        anvil = answer.laid[1]
        assert anvil is not None
        assert anvil.at[2] == ZERO
        assert balance(ask.bodies, answer)[2] <= 0.5
