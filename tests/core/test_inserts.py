"""Inserts of board in a load: the room they take, what they weigh and cost, and hand holes."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.hand_holes import hand_holes
from fardo.core.make.inserts import cut_insert
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.plan.boxed import box_up
from fardo.core.plan.journey import Journey
from fardo.core.plan.own_against_bought import own_against_bought
from fardo.core.plan.price import compared
from fardo.core.quantity import SIXTEENTH, ZERO, Money
from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import allowances, inches, job, load, ranked, services, shop, sizes

C = shop().grade("C")
T = C.caliper


def boxed(*wanted: Wanted, way: str = "slotted", holes: bool = False):
    return box_up(replace(load("12 x 10 x 6", gap="0"), inserts=wanted, holes=holes), way, C, shop())


def test_a_pad_under_and_over_raises_the_inside_by_two_boards_and_the_goods_by_one() -> None:
    plain, padded = boxed(), boxed(Wanted("pad", where="both"))
    assert padded.arrangement.inside[2] == plain.arrangement.inside[2] + T * 2
    assert padded.placements[0].at[2] == plain.placements[0].at[2] + T
    (pad,) = padded.inserts[0].blanks
    assert pad.count == 2
    assert pad.size[0] <= padded.made.inside[0]


def test_a_liner_takes_a_board_at_each_of_four_walls() -> None:
    plain, lined = boxed(), boxed(Wanted("liner"))
    assert [b - a for a, b in zip(plain.arrangement.inside, lined.arrangement.inside, strict=True)] == [
        T * 2,
        T * 2,
        ZERO,
    ]
    (liner,) = lined.inserts[0].blanks
    assert lined.made.inside[2] - SIXTEENTH < liner.size[1] <= lined.made.inside[2]
    assert lined.placements[0].at[:2] == tuple(side + T for side in plain.placements[0].at[:2])


def test_an_insert_weighs_and_costs_its_board_and_a_minute_a_piece() -> None:
    plain, capped = boxed(), boxed(Wanted("corner-cap", 8))
    more = 8 * 27 * 25.4**2 / 1e6  # m2 left of eight squares of 6 in, a quarter of each cut out
    assert (capped.weights.board.grams - plain.weights.board.grams) == pytest.approx(
        more * C.weight_per_m2.grams, rel=1e-6
    )
    paid = 8 * 36 * 25.4**2 / 1e6
    assert (capped.box - plain.box).minor == pytest.approx(paid * C.price_per_m2.minor, abs=1)
    assert capped.minutes - plain.minutes == 8
    assert capped.made == plain.made


def test_a_divider_of_six_cells_has_one_long_strip_and_two_short_ones() -> None:
    """On 5/32 in board in 12 x 10: three cells along, two across, so 2 slots in the long strip and 1 in the short."""
    found = cut_insert(Wanted("divider", along=3, across=2), sizes("12 1/16 x 10 1/16 x 6"), T, allowances())
    long, short = found.blanks
    assert (long.count, short.count) == (1, 2)
    assert [side.inches for side in found.measures] == [
        pytest.approx((12 - 2 * 5 / 32) / 3), pytest.approx((10 - 5 / 32) / 2),
    ]  # fmt: skip
    assert long.size == (inches("12"), inches("6"))
    # The slots are measured on the side they are cut from: of the long strip above, of the short one below.
    for blank, cut_from in ((long, "above"), (short, "below")):
        slots = [one for one in blank.dimensions if one.side == cut_from]
        assert len(slots) == 2 * (3 if blank is long else 2) - 1
        (depth,) = [one for one in blank.dimensions if one.side == "right"]
        assert (depth.start[1], depth.end[1]) == (
            (inches("3"), inches("6")) if blank is long else (inches("0"), inches("3"))
        )


@pytest.mark.parametrize(
    ("wanted", "kind", "says"),
    [
        (Wanted("divider", along=20, across=2), NoAnswer, "more than there is room"),
        (Wanted("spacer", length=inches("10"), depth=inches("1/16")), NoAnswer, "half a board"),
        (Wanted("spacer", length=inches("10")), BadInput, "depth"),
        (Wanted("sleeve"), BadInput, "size"),
    ],
)
def test_what_an_insert_lacks_is_said(wanted: Wanted, kind: type[Exception], says: str) -> None:
    with pytest.raises(kind, match=says):
        cut_insert(wanted, sizes("3 x 3 x 3"), T, allowances())


def test_one_cell_is_no_divider() -> None:
    with pytest.raises(BadInput, match="two cells or more"):
        cut_insert(Wanted("divider", along=1, across=1), sizes("9 x 9 x 9"), T, allowances())


def test_hand_holes_are_cut_on_three_sides_in_both_ends_and_said_to_weaken_them() -> None:
    low = box_up(load("12 x 10 x 4", gap="0"), "slotted", C, shop())
    (plain,), with_holes = low.blanks, box_up(
        replace(load("16 x 12 x 10", gap="0"), holes=True), "slotted", C, shop()
    )  # fmt: skip
    (blank,) = with_holes.blanks
    inner = [line for line in blank.lines if line.kind == "cut"][-6:]
    across = [line for line in inner if line.start[1] == line.end[1]]
    assert [abs(line.end[0].nm - line.start[0].nm) for line in across] == [inches("4").nm] * 2
    holes = [one for one in blank.dimensions if one not in box_up(load("16 x 12 x 10", gap="0"), "slotted", C,
             shop()).blanks[0].dimensions]  # fmt: skip
    assert [(one.side, one.row) for one in holes] == [("below", 0)] * 2
    assert any("weaken" in note for note in with_holes.made.notes)
    assert hand_holes(plain) is None  # 4 in high walls are too low for them
    assert any("No hand holes" in note for note in boxed(way="tray", holes=True).made.notes)


def test_a_job_asks_for_inserts_and_says_which_measure_is_missing() -> None:
    wanted = [{"kind": "pad", "where": "above"}, {"kind": "spacer", "length": "12 in", "count": 4}]
    said = understand(JobFile.model_validate(job(inserts=wanted)), shop())
    assert said.load is not None
    assert said.load.inserts == (Wanted("pad", where="above"),)
    assert "depth of the spacer" in said.missing
    with pytest.raises(BadInput, match="depth of the spacer"):
        said.must_load()
    wanted[1]["depth"] = "1 1/2 in"
    said = understand(JobFile.model_validate(job(inserts=wanted)), shop())
    assert said.load is not None
    assert said.load.inserts == (
        Wanted("pad", where="above"), Wanted("spacer", 4, length=inches("12"), depth=inches("1 1/2")),
    )  # fmt: skip
    two = [{"kind": "divider", "along": "", "across": 2}, {"kind": "pad", "where": "below", "count": ""}]
    said = understand(JobFile.model_validate(job(inserts=two[:1])), shop())
    assert said.load is not None
    assert [(one.along, one.across) for one in said.load.inserts] == [(1, 2)]
    said = understand(JobFile.model_validate(job(inserts=[{"kind": "divider", "along": 1, "across": 1}])), shop())
    assert [problem.field for problem in said.problems] == ["inserts[0].along"]


def test_a_box_made_for_less_than_one_bought_is_cheaper_by_the_share_of_the_dearer() -> None:
    """0.77 against 1.38 is 44 % less, not 57 %: the part saved is of what would have been paid (arithmetic)."""
    made, bought = Money(77, "USD"), Money(138, "USD")
    assert made.saving_on(bought) == 44
    assert bought.saving_on(made) == 0
    assert made.saving_on(Money(0, "USD")) == 0


def test_a_box_that_is_bought_for_less_and_sent_for_more_says_so() -> None:
    own, bought = (box_up(load("12 x 10 x 6"), way, C, shop()) for way in ("slotted", "shelf"))
    less = own.own < bought.own
    by_itself = own_against_bought(own, bought)
    assert "dearer in all" not in by_itself
    dear, cheap = Money(3016, "USD"), Money(1394, "USD")
    told = own_against_bought(own, bought, (dear, cheap) if less else (cheap, dear))
    assert told == f"{by_itself.removesuffix('.')}; with its postage it is 16.22 dearer in all."
    assert own_against_bought(own, bought, (cheap, dear) if less else (dear, cheap)) == by_itself


def test_the_first_of_ranked_plans_says_by_how_much_it_beats_another_kind_of_box() -> None:
    plans = ranked(load("12 x 10 x 6"), ("tray", "slotted"), Journey("10440", "73120", True), services(), shop())
    other = next(plan for plan in plans if plan.boxed.made.way != plans[0].boxed.made.way)
    less = other.costs.total - plans[0].costs.total
    assert f"costs {less} " in compared(plans)
    assert compared([]) == ""
    alone = [plan for plan in plans if plan.boxed.made.way == "tray"]
    assert "only box style" in compared(alone)


def test_what_is_heavy_in_light_board_is_certified_for_less() -> None:
    heavy = box_up(load("12 x 10 x 6", "70 lb", gap="0"), "slotted", C, shop())
    assert heavy.suggested is not None
    assert heavy.suggested.code == "BC"
    assert boxed().suggested is None


@given(
    st.integers(60, 400), st.integers(2, 8), st.sampled_from(["1/8", "5/32", "1/4"]),
)  # fmt: skip
def test_slots_of_a_divider_lie_a_step_of_the_tape_apart_and_no_cell_is_smaller_than_told(
    sixteenths: int, cells: int, board: str
) -> None:
    inside = (inches("1/16") * (sixteenths + 16 * cells), inches("6"), inches("6"))
    found = cut_insert(Wanted("divider", along=cells, across=2), inside, inches(board), allowances("1/16"))
    long, short = found.blanks
    assert (long.count, short.count) == (1, cells - 1)
    slots = sorted({x for x, y in long.outline if y == long.size[1].half()})
    starts, ends = slots[::2], slots[1::2]
    assert all((b - a).nm % inches("1/16").nm == 0 for a, b in pairwise(starts))
    edges = [ZERO, *(x for pair in zip(starts, ends, strict=True) for x in pair), long.size[0]]
    widths = [b - a for a, b in zip(edges[::2], edges[1::2], strict=True)]
    assert min(widths) >= found.measures[0]
