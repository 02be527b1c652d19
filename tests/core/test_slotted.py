"""The slotted case."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from fardo.core.make import make_box
from fardo.core.quantity import MM, Length
from tests.made_up import allowances, inches, shop, sizes


def test_on_c_flute_the_outside_is_5_16_5_16_and_5_8_more() -> None:
    made = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("C"), allowances())
    more = [out - inner for out, inner in zip(made.outside, made.inside, strict=True)]
    assert more == [inches("5/16"), inches("5/16"), inches("5/8")]
    assert made.inside == sizes("18 x 12 x 10")


def test_panels_along_the_blank_are_tab_length_width_length_width() -> None:
    """Worked by hand on 1/8 in board: L + t, W + t, the last W + t/2; body H + 2t; flaps half of W + t."""
    made = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("B"), allowances())
    (case,) = made.blanks
    corners = sorted({line.start[0] for line in case.lines if line.kind == "score" and line.start[0] == line.end[0]})
    tab = inches("1 1/2")
    assert corners == [tab, tab + inches("18 1/8"), tab + inches("30 1/4"), tab + inches("48 3/8")]
    assert case.size[0] == tab + inches("48 3/8 + 12 1/16")
    flaps = sorted({line.start[1] for line in case.lines if line.kind == "score" and line.start[1] == line.end[1]})
    assert flaps == [inches("6 1/16"), inches("6 1/16 + 10 1/4")]
    assert case.size[1] == inches("2 x 6 1/16 + 10 1/4")


def test_six_slots_reach_from_the_edges_to_the_flap_scores() -> None:
    (case,) = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("B"), allowances()).blanks
    slots = [line for line in case.lines if line.kind == "slot"]
    assert len(slots) == 6
    assert {line.end[1] - line.start[1] for line in slots} == {inches("6 1/16")}


def test_the_longer_side_of_the_opening_is_taken_as_the_length() -> None:
    made = make_box("slotted", sizes("12 x 18 x 10"), shop().grade("C"), allowances())
    assert made.inside == sizes("18 x 12 x 10")
    assert any("Turned" in note for note in made.notes)


measure = st.integers(400_000, 900_000_000).map(Length)


@given(st.tuples(measure, measure, measure), st.sampled_from(["E", "B", "C", "BC"]), st.sampled_from(["1/16", "1 mm"]))
def test_a_case_never_comes_out_smaller_and_its_outer_flaps_meet_and_never_ride(
    inside: tuple[Length, Length, Length], board: str, step: str
) -> None:
    made = make_box("slotted", inside, shop().grade(board), allowances(step))
    (case,) = made.blanks
    asked = (max(inside[:2]), min(inside[:2]), inside[2])
    assert all(have >= need for have, need in zip(made.inside, asked, strict=True))
    flap = min(line.start[1] for line in case.lines if line.kind == "score")
    between = made.inside[1] + made.grade.caliper
    assert between - inches(step) <= flap * 2 <= between


@given(st.tuples(measure, measure, measure))
def test_the_dimensions_of_a_row_add_up_to_the_whole(inside: tuple[Length, Length, Length]) -> None:
    (case,) = make_box("slotted", inside, shop().grade("C"), allowances("1/16")).blanks
    for chain, whole in (("above", "below"), ("right", "left")):
        panels, all_of_it = ([d.length.nm for d in case.dimensions if d.side == side] for side in (chain, whole))
        assert len(panels) > 1
        assert [sum(panels)] == all_of_it


def test_tape_closes_top_and_bottom_in_three_strips_each_and_the_seam() -> None:
    """Common practice: along, and at both edges, a hand (3 in) down the sides. On 1/8 in board the outside of
    18 x 12 x 10 is 18 1/4 x 12 1/4 x 10 1/2, and the seam is as high as the body, 10 1/4.
    """
    made = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("B"), allowances())
    assert made.outside == sizes("18 1/4 x 12 1/4 x 10 1/2")
    strips = 2 * (inches("18 1/4") + inches("6")).nm + 4 * (inches("12 1/4") + inches("6")).nm
    assert made.tape.nm == strips + inches("10 1/4").nm
    overlapped = make_box("overlap", sizes("18 x 12 x 10"), shop().grade("B"), allowances())
    own = overlapped.outside
    strips = 2 * (own[0] + inches("6")).nm + 4 * (own[1] + inches("6")).nm
    assert overlapped.tape.nm - strips == inches("10 3/8").nm  # three boards lie over the height


def test_its_reason_names_each_inside_side_and_the_board() -> None:
    made = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("C"), allowances())
    told = dict(next(why for why in made.whys.values() if "inside length L" in dict(why.values)).values)
    assert [told[name] for name in ("inside length L", "inside width W", "inside height H", "caliper t")] == [
        *sizes("18 x 12 x 10"), shop().grade("C").caliper,
    ]  # fmt: skip


def test_the_glue_tab_too_is_one_that_the_fence_can_be_set_to() -> None:
    """1 1/2 in are 38.1 mm: on a fence in millimetres the tab is 39, and every corner after it is a whole number."""
    metric = allowances().changed({}, MM)
    made = make_box("slotted", sizes("12 x 10 x 6"), shop().grade("C"), metric)
    scores = [one.fence for one in made.fence]
    assert scores
    assert all(at.nm % MM.nm == 0 for at in scores)
