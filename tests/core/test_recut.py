"""A used box made over as it is done at the bench: glued and flat, opened and taken in, cut down, turned."""

from __future__ import annotations

import re

import pytest

from fardo.core.make.allowances import REFOLD
from fardo.core.make.made_over import Recut, recuts
from fardo.core.make.recut import steps
from fardo.core.quantity import SIXTEENTH, ZERO, Length
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import in_words
from tests.made_up import allowances, inches, shop, sizes

B, C = (shop().grade(code).caliper for code in "BC")
LOSS = allowances()[REFOLD]


def by_tape(box: str, inside: str, lost: Length = LOSS, upright: bool = True) -> list[Recut]:
    return recuts(sizes(box), C, sizes(inside), lost, SIXTEENTH, "tape", upright)


def at_bench(box: str, inside: str, lost: Length = LOSS, upright: bool = True) -> list[Recut]:
    return recuts(sizes(box), C, sizes(inside), lost, SIXTEENTH, "bench", upright)


def words(made: Recut, name: str = "") -> list[str]:
    return [step.told(in_words("in")) for step in steps(made, name)]


def kept_girth(found: list[Recut]) -> Recut:
    """Of those whose corners are moved, the one that does not lap."""
    return next(made for made in found if made.corners is not None)


def test_corners_moved_by_the_tape_measure_lose_nothing() -> None:
    """18 1/2 x 12 is 30 1/2 around half, and so is 24 x 6 1/2; 6 1/4 after the folds (common practice)."""
    best = by_tape("18 1/2 x 12 x 21", "24 x 6 1/2 x 21")[0]
    assert best.nominal == sizes("24 x 6 1/2 x 21")
    assert best.inside == sizes("24 x 6 1/4 x 21")
    assert (best.moved, best.flaps_meet, best.cut_down, best.lap) == (True, True, ZERO, ZERO)


def test_at_the_bench_a_quarter_of_an_inch_goes_into_the_folds() -> None:
    with pytest.raises(NoAnswer, match="together are 1/4 in"):
        at_bench("18 1/2 x 12 x 21", "24 x 6 1/2 x 21")
    best = at_bench("18 1/2 x 12 x 21", "24 x 6 1/4 x 21")[0]
    assert best.nominal == sizes("24 x 6 1/2 x 21")
    assert best.inside == sizes("24 x 6 1/4 x 21")


def test_the_steps_are_those_of_a_glued_box_that_lies_flat() -> None:
    """Line by line as it is done (common practice): outer liner only, in line on both faces, folded away."""
    told = words(by_tape("18 1/2 x 12 x 21", "24 x 6 1/2 x 21")[0], "amp carton")
    assert told == [
        "Take the amp carton: take out tape and staples, cover old labels, barcodes and postage.",
        "Leave it glued and lay it flat as a tube.",
        "On the upper face mark the two new corners, a hair over 3 5/16 in from either fold: "
        "that leaves 24 1/8 in and half a sixteenth between them. "
        "Without a tape: lay the wrapped goods on it, as far from one fold as from the other, and mark along both "
        "their ends.",
        "With knife and straightedge cut along both marks, from flap score to flap score, through the outer liner "
        "only, one layer deep. With a creasing wheel the lines are pressed instead.",
        "Turn the box straight over and do the same on the other face, in line with the first.",
        "Slit the flaps right through along the new corners, top and bottom, up to the flap scores.",
        "Fold every new corner away from its cut. The old corners and both folds lie flat in the walls now; tape their "
        "old slits in the flaps shut.",
        "The outer flaps lap over each other, 5 1/2 in at the bottom and 5 1/2 in at the top: leave them, it is "
        "stronger so.",
        "Tape over every cut edge, so that it holds and nobody cuts a finger.",
        "Set it up: by the tape it is 24 x 6 1/2 x 21 in inside, after the folds 6 1/4 in wide. Close and tape the "
        "bottom.",
    ]


def test_the_size_told_is_the_one_that_the_marks_as_printed_give() -> None:
    """Twice a mark less the board is the width, what lies between two marks less the board the length."""
    found = recuts(sizes("25 3/4 x 10 1/2 x 16 3/4"), B, sizes("19 11/16 x 16 5/16 x 11 7/8"), LOSS)
    made = kept_girth(found)
    told = next(one for one in words(made) if one.startswith("On the upper face"))
    assert "two new corners, 8 5/16 in and half a sixteenth from either fold: that leaves 19 13/16 in between" in told
    mark, between = inches("8 5/16") + SIXTEENTH.half(), inches("19 13/16")
    assert (between - B, mark * 2 - B) == made.nominal[:2]
    assert made.inside >= sizes("19 11/16 x 16 5/16 x 11 7/8")


def test_every_figure_of_every_step_is_one_that_the_tape_has() -> None:
    boxes = ["18 1/2 x 12 x 21", "12 1/4 x 3 x 15 3/8", "20 3/16 x 15 1/16 x 9 7/8", "22 x 18 x 22"]
    wanted = ["14 x 9 x 5 1/2", "10 x 5 x 13 1/2", "9 3/64 x 7 5/64 x 3 1/64", "13 x 13 x 9", "20 x 4 x 8 37/64"]
    figures: list[str] = []
    for box in boxes:
        for inside in wanted:
            try:
                found = at_bench(box, inside, upright=False)
            except NoAnswer:
                continue
            figures += [figure for made in found for told in words(made) for figure in re.findall(r"\d+/\d+", told)]
    assert len(figures) > 100
    assert {figure.split("/")[1] for figure in figures} <= {"2", "4", "8", "16"}


def test_long_flaps_lap_and_are_left() -> None:
    """Flaps of 6 in over a width of 6 1/2: cutting them back is more work, and lapping is stronger."""
    best = by_tape("18 1/2 x 12 x 21", "24 x 6 1/2 x 21")[0]
    assert best.outer == best.inner == (None, None)
    assert not any("back to" in line for line in words(best))
    # A board more lies at each end where flaps lap.
    assert best.outside[2] == inches("21") + C * 6


def test_flaps_are_cut_back_only_where_they_would_not_lie() -> None:
    """Cut down by 12 the top has flaps of 18 in on a box 16 x 12: the outer ones are longer than it is wide, the inner
    ones than it is long.
    """
    made = next(one for one in at_bench("16 x 12 x 18", "16 x 12 x 6") if not one.moved)
    assert made.cut_down == inches("12")
    assert made.flaps == (inches("6") + C.half(), inches("18") + C.half())
    assert made.outer == (None, inches("12"))
    assert made.inner == (None, inches("8"))
    told = words(made)
    assert (
        "Cut the inner flaps at the top, on the short walls, back to 8 in: as they are they are longer than the box."
        in told
    )
    assert "Cut the outer flaps at the top, on the long walls, back to 12 in: so they lie." in told


def test_inner_flaps_over_half_the_length_ride_and_are_cut_back() -> None:
    """Cut down by 4 its flaps are 10 in: over half of 16, under the whole."""
    made = next(one for one in at_bench("16 x 12 x 10", "16 x 12 x 6") if not one.moved)
    assert made.outer == (None, None)
    assert made.inner == (None, inches("8"))
    assert any("inner flaps at the top" in line and "they ride" in line for line in words(made))


def test_a_pad_closes_flaps_that_do_not_meet_and_says_which() -> None:
    """A carton 12 1/4 x 3 x 15 3/8 made 10 x 5 x 13 1/2: its bottom flaps stay 1 1/2 in deep, those at the cut-down top
    are 1 7/8 longer and lap.
    """
    made = kept_girth(by_tape("12 1/4 x 3 x 15 3/8", "10 x 5 x 13 1/2"))
    assert made.cut_down == inches("1 7/8")
    below, above = made.open_between
    assert below == made.width - inches("3") - C
    assert above == ZERO
    assert not made.flaps_meet
    pads = [line for line in words(made) if "cut a pad" in line]
    assert pads == [
        "The outer flaps at the bottom leave 1 15/16 in open: cut a pad of 10 1/8 in x 4 13/16 in and lay it inside."
    ]


def test_a_little_that_is_over_goes_to_the_length() -> None:
    """Under 2 in of the girth is not worth opening the seam for."""
    found = by_tape("16 x 12 x 10", "19 1/4 x 8 x 10", ZERO)
    assert [made.lap for made in found] == [ZERO]
    assert inches("19 1/4") <= found[0].nominal[0] <= inches("20")


def test_much_that_is_over_laps_one_wall_over_another() -> None:
    """A box 18 1/2 x 12 for 14 x 9: 30 1/2 against 23 1/4 of half the girth. It is opened at its seam and taken in."""
    best = at_bench("18 1/2 x 12 x 21", "14 x 9 x 5 1/2")[0]
    assert best.lap.nm
    for have, want in zip(best.inside, sizes("14 x 9 x 5 1/2"), strict=True):
        assert want <= have < want + SIXTEENTH * 2
    told = words(best)
    assert any("along its seam" in line for line in told)
    assert any("on the inner face" in line for line in told)
    assert any("laps" in line and "14 3/16 in" in line for line in told)
    # The lap lies over a wall: a board more outside.
    assert best.outside[1] == best.nominal[1] + C * 3
    # All of the old girth is there: four walls, the lap and what is cut off beyond it.
    walls = (best.nominal[0] + best.nominal[1] + C * 2) * 2
    assert walls + best.lap <= (inches("30 1/2") + C * 2) * 2


def test_a_box_that_holds_it_as_it_is_keeps_its_corners() -> None:
    found = at_bench("16 x 12 x 10", "15 x 11 x 10")
    kept = next(made for made in found if not made.moved)
    assert kept.inside == sizes("16 x 12 x 10")


def test_any_side_may_become_the_bottom_unless_it_must_stand() -> None:
    old, needed = "12 x 12 x 20", "20 x 12 x 12"
    assert at_bench(old, needed, upright=False)[0].inside == sizes(old)
    with pytest.raises(NoAnswer):
        at_bench(old, needed)


def test_what_is_short_is_said_with_the_turn_that_lacks_least() -> None:
    with pytest.raises(NoAnswer, match=r"1 in \(26 mm\) too low"):
        by_tape("12 x 12 x 9", "10 x 10 x 10", ZERO, upright=False)


def test_both_faces_are_drawn_with_the_lines_in_line() -> None:
    made = by_tape("18 1/2 x 12 x 21", "24 x 6 1/2 x 21")[0]
    front, back = made.blanks
    assert [face.name for face in made.blanks] == ["flat box, front", "flat box, back"]
    assert front.size[0] == inches("30 1/2") + C * 2
    for face in (front, back):
        cut = sorted(line.start[0] for line in face.lines if line.kind == "liner-cut")
        slit = {line.start[0] for line in face.lines if line.kind == "slot"}
        assert cut == [(inches("6 1/2") + C).half(), front.size[0] - (inches("6 1/2") + C).half()]
        assert slit == set(cut)
        assert not [line for line in face.lines if line.kind in ("cut", "score")]
        (crease,) = [line for line in face.lines if line.kind == "old-fold" and line.start[0] == line.end[0]]
        assert crease.start[0] == inches("18 1/2") + C


def test_an_opened_box_is_scored_inside_and_its_lap_loses_its_flaps() -> None:
    best = at_bench("18 1/2 x 12 x 21", "14 x 9 x 5 1/2")[0]
    (blank,) = best.blanks
    corners = sorted({line.start[0] for line in blank.lines if line.kind == "score" and line.start[0] == line.end[0]})
    long, short = best.nominal[0] + C, best.nominal[1] + C
    assert corners == [long, long + short, long * 2 + short, (long + short) * 2]
    off = [line for line in blank.lines if line.kind == "cut" and line.start[0] == corners[-1]]
    assert len(off) == 2


def test_nobody_cuts_a_box_down_by_an_eighth() -> None:
    made = kept_girth(at_bench("18 1/2 x 12 x 21", "23 7/8 x 6 1/8 x 20 7/8"))
    assert made.cut_down == ZERO
    assert made.inside[2] == inches("21")
    assert kept_girth(at_bench("18 1/2 x 12 x 21", "23 7/8 x 6 1/8 x 20 1/2")).cut_down == inches("1/2")


def test_every_step_that_is_done_with_a_knife_says_so() -> None:
    every = [made for box, inside in (("18 1/2 x 12 x 21", "24 x 6 1/4 x 21"), ("16 x 12 x 18", "16 x 12 x 6"))
             for made in at_bench(box, inside)]  # fmt: skip
    words = re.compile("with knife|do the same on the other", re.IGNORECASE)
    by_knife = [step for made in every for step in steps(made) if words.search(step.do)]
    assert by_knife
    assert all(step.knife for step in by_knife)


def test_what_laps_is_drawn_within_the_opened_box_and_what_is_cut_off_is_off_its_end() -> None:
    """22 x 16 taken in to 13 x 9: more is over than laps, so the end of the wall is cut off."""
    lapped = [made for made in by_tape("22 x 16 x 9", "13 x 9 x 9") if made.lap.nm]
    assert lapped
    for made in lapped:
        (blank,) = made.blanks
        for line in blank.lines:
            for x, y in (line.start, line.end):
                assert ZERO <= x <= blank.size[0]
                assert ZERO <= y <= blank.size[1]
        cut = {x for line in blank.lines if line.kind == "cut" for x in (line.start[0], line.end[0])}
        assert max(cut) < blank.size[0]


def test_of_a_flat_box_with_new_corners_the_short_walls_flaps_are_cut_back_at_both_folds() -> None:
    """16 x 12 made 17 x 10 and cut down by 4: the long wall lies between the new corners, half a short one at each
    fold, and only the flaps of those are too long.
    """
    made = kept_girth(at_bench("16 x 12 x 10", "17 x 10 x 6"))
    assert made.outer == (None, None)
    for blank in made.blanks:
        backs = [(one.start[0], one.end[0]) for one in blank.lines if one.kind == "cut" and one.start[1] == one.end[1]]
        first, second = sorted({one.start[0] for one in blank.lines if one.kind == "slot"})
        assert backs == [(ZERO, first), (second, blank.size[0])]
