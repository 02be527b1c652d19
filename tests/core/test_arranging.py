"""Arranging: the same ask gives the same answer, rules hold, a box is filled or the reason told, hands are felt."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from fardo.core.arrange.ask import Arrangement, Ask, balance, moved_in, proportion_of, quarter_turned
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.cannot import cannot
from fardo.core.arrange.load_on_top import over, overloaded
from fardo.core.arrange.manual import by_hand, drop, faults, locked_or_not, may_stand, unsupported_depths
from fardo.core.arrange.search import SearchState, improve, merge
from fardo.core.arrange.search_start import plan
from fardo.core.arrange.turn import STANDING, TURNS, UNTURNED, about, after, determinant, is_square
from fardo.core.goods.gap import NO_GAP, Gap
from fardo.core.goods.shape import Box, Cylinder, Disc, Ring, Taper, bars
from fardo.core.plan.load import arrange, ask_of, holds, with_packed
from fardo.core.plan.needed import inside_needed
from fardo.core.quantity import INCH, POUND, ZERO, Mass
from fardo.files.arrangement import read_arrangement, write_arrangement
from tests.arrangement_checked import faults as seen_faults
from tests.made_up import inches, load

GAP = Gap.even(INCH.half())


def block(name: str, length: int, width: int, height: int, **more) -> Body:
    return Body(name, Box(INCH * length, INCH * width, INCH * height), **{"gap": GAP, **more})


RIM = Body("rim", Ring(INCH * 20, INCH * 16, INCH * 2), GAP, weight=POUND * 4)
HUB = Body("hub", Cylinder(INCH * 6, INCH * 2), GAP, weight=POUND)
LEG = Body("leg", Taper(INCH * 2, INCH, INCH * 15), GAP, weight=POUND)
SEAT = block("seat", 18, 6, 2, weight=POUND * 3)


def best(ask: Ask, rounds: int = 6) -> Arrangement:
    found = improve(ask, SearchState(), rounds).best
    assert found is not None
    assert seen_faults(ask, found.answer) == []
    return found.answer


def sides(answer: Arrangement) -> list[str]:
    return [str(side.inches) for side in answer.inside]


def at(turn, x: str, y: str, z: str) -> Laid:
    return Laid(turn, (inches(x), inches(y), inches(z)))


@pytest.mark.parametrize("bundled", [(LEG, LEG, LEG), (block("a", 6, 4, 2), block("b", 5, 3, 2), block("c", 4, 4, 1))])
def test_a_search_of_what_is_packed_as_one_goes_on_from_where_it_was(bundled: tuple[Body, ...]) -> None:
    """Round by round, as a search that tells how far it is goes on; it comes to the same as all rounds at once."""
    ask = Ask((*(replace(body, bundle="one") for body in bundled), SEAT, RIM, HUB), seed=3)
    state = SearchState()
    for _ in range(4):
        state = improve(ask, state, 3)
        assert state.best is not None
        assert seen_faults(ask, state.best.answer) == []
    assert state.found == improve(ask, SearchState(), 12).found
    assert state.done == 12


def test_there_are_24_turns_and_four_of_them_stand() -> None:
    assert len(set(TURNS)) == 24
    assert all(determinant(turn) == 1 for turn in TURNS)
    assert len(STANDING) == 4
    slant = after(about(2, 30), about(2, 15))
    assert not is_square(slant)
    assert slant[0][0] == pytest.approx(0.7071067811865476)


def test_a_hub_lies_in_the_hollow_of_its_rim_and_costs_no_room() -> None:
    # 20 in and half an inch on both sides, 2 in and the same: the hub is in the hole.
    answer = best(Ask((RIM, HUB)))
    assert sorted(sides(answer)) == ["21", "21", "3"]


def test_what_is_lifted_within_a_ring_lies_over_nothing() -> None:
    """Only the boxes around the two meet, seen from above; moved over the rim it lies over it."""
    ask, inside = Ask((RIM, HUB)), (inches("21"), inches("21"), inches("12"))
    rim = Laid(UNTURNED, (inches("1/2"), inches("1/2"), inches("1/2")))
    for across, found in (("7 1/2", []), ("0", [(1, 0)])):
        hub = Laid(UNTURNED, (inches("7 1/2"), inches(across), inches("8")))
        assert over(ask, Arrangement(inside, (rim, hub), (0, 1))) == found


def test_sizes_come_out_to_the_nanometre() -> None:
    answer = best(Ask((RIM, HUB, block("case", 21, 21, 5, gap=NO_GAP))))
    assert all(side.nm % (INCH.nm // 2) == 0 for side in answer.inside)


def test_the_same_ask_gives_the_same_answer_and_another_seed_may_not() -> None:
    ask = Ask((RIM, SEAT, LEG, LEG))
    assert improve(ask, SearchState(), 5) == improve(ask, SearchState(), 5)
    in_two_goes = improve(ask, improve(ask, SearchState(), 2), 3)
    assert in_two_goes == improve(ask, SearchState(), 5)
    chains = [merge([improve(ask, SearchState(chain), 3) for chain in range(2)]) for _ in range(2)]
    assert chains[0] == chains[1]


def test_the_best_of_each_proportion_is_given_the_least_first() -> None:
    ask = Ask((RIM, SEAT, LEG, LEG))
    answers = merge([improve(ask, SearchState(chain), 6) for chain in range(2)])
    assert len({answer.proportion for answer in answers}) == len(answers)
    assert answers[0].room_nm3 == min(answer.room_nm3 for answer in answers)


def test_nothing_lies_over_what_bears_nothing() -> None:
    globe = Body("globe", Cylinder(INCH * 8, INCH * 8), GAP, weight=POUND, bears=Mass(0))
    ask = Ask((SEAT, LEG, globe, RIM))
    answer = best(ask)
    assert 2 not in [lower for _, lower in over(ask, answer)]
    assert overloaded(ask, answer) == []


def test_what_bears_a_pound_bears_no_two() -> None:
    ask = Ask((block("tray", 10, 10, 2, bears=POUND), block("brick", 10, 10, 2, weight=POUND * 2)))
    stacked = Arrangement((inches("11"), inches("11"), inches("6")),
                     (at(UNTURNED, "1/2", "1/2", "1/2"), at(UNTURNED, "1/2", "1/2", "3")), (0, 1))  # fmt: skip
    assert overloaded(ask, stacked) == [0]
    answer = best(ask)
    # Beside each other, or the tray on the brick.
    assert overloaded(ask, answer) == []


@pytest.mark.parametrize(("rule", "ups"), [("this_side_up", {1}), ("keep_flat", {1, -1})])
def test_a_thing_stands_as_its_rule_says(rule: str, ups: set[int]) -> None:
    tall = replace(block("lamp", 4, 4, 14), **{rule: True})
    ask = Ask((tall, SEAT, LEG))
    answer = best(ask)
    assert answer.laid[0].turn[2][2] in ups
    assert may_stand(tall, answer.laid[0])
    assert not may_stand(tall, Laid(about(0, 90), answer.laid[0].at))


def test_what_must_not_lie_beside_each_other_is_kept_apart() -> None:
    magnet = block("magnet", 3, 3, 3, apart=frozenset({"reel"}))
    ask = Ask((magnet, block("reel", 3, 3, 3), SEAT), apart_by=INCH * 5)
    answer = best(ask)
    spans = [
        [(a.nm, a.nm + s.nm) for a, s in zip(laid.at, stance(body, laid.turn).sizes, strict=True)]
        for body, laid in zip(ask.bodies[:2], answer.laid[:2], strict=True)
    ]
    apart = max(max(a[0] - b[1], b[0] - a[1]) for a, b in zip(*spans, strict=True))
    assert apart >= INCH.nm * 5


def test_what_is_held_together_lies_together_and_keeps_its_gap_to_the_rest() -> None:
    legs = [replace(LEG, bundle="legs") for _ in range(3)]
    ask = Ask((RIM, *legs, SEAT))
    answer = best(ask)
    assert faults(ask, answer) == []
    spots = [answer.laid[n] for n in (1, 2, 3)]
    together = [
        max(one.at[axis].nm + stance(LEG, one.turn).sizes[axis].nm for one in spots)
        - min(one.at[axis].nm for one in spots)
        for axis in range(3)
    ]
    # Three tapers of 2 in lie in a row or a triangle, not about the box.
    assert sorted(together)[1] <= INCH.nm * 6 + 1000
    places = [answer.order.index(n) for n in (1, 2, 3)]
    assert max(places) - min(places) == 2


def test_a_given_box_is_used_where_all_goes_in() -> None:
    inside = (inches("21"), inches("21"), inches("5 1/2"))
    answer = best(Ask((RIM, HUB, SEAT), inside=inside), 12)
    assert answer.whole
    assert answer.inside == inside


def test_a_locked_thing_stays_where_it_is() -> None:
    where = at(UNTURNED, "1", "1", "1/2")
    answer = best(Ask((RIM, SEAT, LEG), locked=((0, where),)))
    assert answer.laid[0] == where


@pytest.mark.parametrize(
    ("ask", "reason", "short"),
    [
        (Ask((LEG,), inside=(INCH * 10, INCH * 3, INCH * 3)), "leg with its gap is larger", True),
        (Ask((SEAT, SEAT), inside=(INCH * 19, INCH * 7, INCH * 3)), "the goods alone take more room", False),
        (
            Ask((block("a", 5, 5, 5, bundle="b", apart=frozenset({"c"})), block("c", 5, 5, 5, bundle="b"))),
            "a and c are to be held together and kept apart",
            False,
        ),
        (
            Ask((block("a", 9, 9, 1, bears=Mass(0), keep_flat=True),) * 2, inside=(INCH * 10, INCH * 10, INCH * 9)),
            "the floor is too small",
            False,
        ),
        (  # the floor is 10 x 40: beside each other 9 x 45 are too many, though 40 x 40 would take them
            Ask((block("a", 9, 9, 1, bears=Mass(0), keep_flat=True),) * 5, inside=(INCH * 10, INCH * 40, INCH * 40)),
            "the floor is too small",
            False,
        ),
        (
            Ask((SEAT, LEG), inside=(INCH * 20, INCH * 20, INCH * 20), locked=((0, at(UNTURNED, "5", "1", "1")),)),
            "locked as it is, seat comes too near a wall",
            True,
        ),
    ],
)
def test_what_cannot_be_is_told_at_once_with_the_reason(ask: Ask, reason: str, short: bool) -> None:
    (told,) = cannot(ask)
    assert reason in told.says
    assert bool(told.short and told.short.nm) == short


def test_a_long_thing_may_lie_slantwise() -> None:
    pole = Body("pole", Cylinder(INCH, INCH * 26))
    assert cannot(Ask((pole,), inside=(INCH * 20, INCH * 20, INCH * 4))) == []
    answer = best(Ask((pole,), inside=(INCH * 20, INCH * 20, INCH * 4)), 12)
    assert answer.whole
    assert not is_square(answer.laid[0].turn)


def test_a_hand_that_breaks_a_gap_is_told_which_and_by_how_much() -> None:
    ask = Ask((SEAT, SEAT))
    laid = (at(UNTURNED, "1/2", "1/2", "1/2"), at(UNTURNED, "1/2", "6 3/4", "1/2"))
    (fault,) = faults(ask, by_hand(ask, laid, (0, 1)))
    assert {fault.which, fault.other} == {0, 1}
    assert fault.short == inches("1/4")
    assert "seat comes too near seat" in fault.says


def test_a_thing_let_down_comes_to_rest_on_what_is_below_with_its_gap() -> None:
    ask = Ask((SEAT, HUB))
    laid = (at(UNTURNED, "1/2", "1/2", "1/2"), at(UNTURNED, "5", "1/2", "9"))
    answer = by_hand(ask, laid, (0, 1))
    # The seat is 2 in high on half an inch of gap, and half an inch is kept above it.
    assert drop(ask, answer, 1).mm == pytest.approx((INCH * 6).mm, abs=0.1)
    assert unsupported_depths(ask, answer)[1].mm == pytest.approx((INCH * 6).mm, abs=0.1)
    alone = by_hand(Ask((HUB,)), (at(UNTURNED, "1", "1", "7"),), (0,))
    assert drop(Ask((HUB,)), alone, 0) == inches("6 1/2")


def test_a_bar_through_a_frame_is_no_arrangement_that_can_be_packed() -> None:
    frame = Body("frame", bars(INCH, [
        ((ZERO, ZERO, ZERO), (INCH * 12, ZERO, ZERO)), ((INCH * 12, ZERO, ZERO), (INCH * 12, ZERO, INCH * 12)),
        ((INCH * 12, ZERO, INCH * 12), (ZERO, ZERO, INCH * 12)), ((ZERO, ZERO, INCH * 12), (ZERO, ZERO, ZERO)),
    ]), GAP)  # fmt: skip
    rod = Body("rod", Cylinder(INCH, INCH * 12), GAP)
    lying = ((1, 0, 0), (0, 0, 1), (0, -1, 0))
    laid = (at(UNTURNED, "1/2", "6", "1/2"), at(lying, "6", "1/2", "6"))
    ask = Ask((frame, rod))
    assert faults(ask, by_hand(ask, laid, (0, 1)))
    answer = best(ask)
    assert faults(ask, answer) == []


def test_the_weight_of_two_like_halves_lies_in_the_middle() -> None:
    half = block("half", 10, 10, 2, weight=POUND)
    answer = Arrangement(
        (INCH * 11, INCH * 11, INCH * 6),
        (at(UNTURNED, "1/2", "1/2", "1/2"), at(UNTURNED, "1/2", "1/2", "3 1/2")),
        (0, 1),
    )
    assert balance((half, half), answer) == pytest.approx((0.5, 0.5, 0.5))


def test_a_job_keeps_its_arrangement_and_it_is_asked_whether_it_holds() -> None:
    goods = load("25 x 18 x 9", "17 lb", "1", ("reeds", "4 x 3 x 1"), ("disc", "6 x 6 x 1"))
    answer = arrange(goods)
    kept = write_arrangement(goods, answer)
    assert read_arrangement(kept, goods) == answer
    assert inside_needed(with_packed(goods, answer))[0] == answer
    nearer = kept.model_copy(deep=True)
    x, y, z = nearer.placements[0].at_mm
    nearer.placements[0].at_mm = (x - 5, y, z)
    claim = read_arrangement(nearer, goods)
    assert claim is not None
    assert not holds(ask_of(goods), claim)
    assert with_packed(goods, claim) == goods
    nearer.placements[0].turn = ((1, 0, 0), (0, 1, 0), (0, 0.5, 1))
    assert read_arrangement(nearer, goods) is None
    other = load("25 x 18 x 9", "17 lb", "1", ("reeds", "4 x 3 x 1"))
    assert read_arrangement(kept, other) is None


def test_a_liner_moves_everything_in() -> None:
    answer = Arrangement((INCH * 11, INCH * 11, INCH * 6), (at(UNTURNED, "1/2", "1/2", "1/2"),), (0,))
    lined = moved_in(answer, INCH)
    assert lined.inside == (INCH * 13, INCH * 13, INCH * 8)
    assert lined.laid[0].at == (inches("1 1/2"),) * 3


def test_a_disc_and_a_length_are_what_they_say() -> None:
    body = Body("disc", Disc(INCH * 6, INCH), GAP, (INCH, INCH, INCH))
    assert stance(body, about(0, 90)).sizes[1].mm == pytest.approx((INCH * 3).mm)
    assert stance(body, ((1, 0, 0), (0, 0, 1), (0, -1, 0))).sizes == (INCH * 8, INCH * 3, INCH * 8)


def test_what_has_no_place_yet_is_passed_over_when_all_of_it_is_turned() -> None:
    legs = (block("a", 6, 4, 2), block("b", 5, 3, 2), block("c", 4, 4, 1))
    inside = (INCH * 20, INCH * 10, INCH * 6)
    laid = (at(UNTURNED, "1", "1", "1"), None, at(UNTURNED, "10", "2", "1"))
    turned = quarter_turned(legs, Arrangement(inside, laid, (0, 2)))
    assert turned.inside == (INCH * 10, INCH * 20, INCH * 6)
    assert [one is None for one in turned.laid] == [False, True, False]
    back = turned
    for _ in range(3):
        back = quarter_turned(legs, back)
    assert [one and one.at for one in back.laid] == [one and one.at for one in laid]


def test_a_thing_that_is_not_there_is_not_locked() -> None:
    answer = Arrangement((INCH * 8,) * 3, (at(UNTURNED, "1", "1", "1"),), (0,))
    assert locked_or_not(answer, 1, True) == answer
    assert locked_or_not(answer, 0, True).laid[0] == replace(at(UNTURNED, "1", "1", "1"), locked=True)


@pytest.mark.parametrize(
    ("sides", "is_so"),
    [((9, 10, 8), "cube"), ((8, 20, 9), "long"), ((18, 10, 10), "long"), ((17.9, 10, 10), "cube"),
     ((10, 3, 10), "flat"), ((10, 10, 4.5), "flat"), ((10, 10, 4.6), "cube")],
)  # fmt: skip
def test_a_parcel_is_long_flat_or_about_a_cube_whichever_way_it_stands(
    sides: tuple[float, float, float], is_so: str
) -> None:
    assert proportion_of(*sides) == is_so


def test_a_search_begins_with_what_takes_most_room_and_with_what_is_longest() -> None:
    """What may have nothing on it goes in last either way."""
    cube, bar, card = block("cube", 8, 8, 8), block("bar", 20, 2, 2), block("card", 9, 9, 9, bears=POUND * 0)
    ask, random = Ask((bar, card, cube)), np.random.default_rng(1)
    first, second = (plan(ask, 300.0, start, [], random).order for start in (0, 1))
    assert [ask.bodies[n].name for n in first] == ["cube", "bar", "card"]
    assert [ask.bodies[n].name for n in second] == ["bar", "cube", "card"]
