"""Lid and tray, by both schools."""

from __future__ import annotations

import csv
import io
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.drawing import Blank, Kind
from fardo.core.cut.fence import fence_of
from fardo.core.make import make_box
from fardo.core.make.allowances import SLIP
from fardo.core.quantity import SIXTEENTH, Length
from fardo.core.refusal import BadInput
from fardo.files.cut_list import cut_list
from tests.made_up import allowances, inches, shop, sizes


def at(blank: Blank, kind: Kind) -> set[tuple[int, int]]:
    """Where lines of a kind run: (axis they cross, nm from the lower or left edge)."""
    found = set()
    for line in blank.lines:
        if line.kind == kind:
            axis = 0 if line.start[0] == line.end[0] else 1
            found.add((axis, line.start[axis].nm))
    return found


def around(blank: Blank, distance: Length) -> set[tuple[int, int]]:
    """A line at `distance` from each of the four edges."""
    return {(axis, nm) for axis in (0, 1) for nm in (distance.nm, blank.size[axis].nm - distance.nm)}


def test_thumb_for_10_1_2_by_8_1_2_by_1_1_2_is_cut_from_14_by_12() -> None:
    """Common practice: allowance 1/2 in, scores at 1 1/2, the lid's second score at 1 5/8 on 1/8 in board."""
    made = make_box("tray", sizes("10 1/2 x 8 1/2 x 1 1/2"), shop().grade("B"), allowances(), "thumb")
    tray, lid = made.blanks
    assert tray.size == lid.size == (inches("14"), inches("12"))
    assert at(tray, "score") == around(tray, inches("1 1/2"))
    assert at(tray, "second-score") == set()
    assert at(lid, "score") == around(lid, inches("1 1/2"))
    assert at(lid, "second-score") == around(lid, inches("1 5/8"))


def test_thumb_fence_settings_come_through_cuts_first_and_corners_last() -> None:
    made = make_box("tray", sizes("10 1/2 x 8 1/2 x 1 1/2"), shop().grade("B"), allowances(), "thumb")
    assert [(str(s.fence.inches), s.blade.partition(",")[0], s.cuts) for s in made.fence] == [
        ("14", "through", 2), ("12", "through", 2), ("3/2", "score", 8), ("13/8", "second score", 4),
        ("3/2", "knife", 16),
    ]  # fmt: skip


def test_exact_tray_is_inside_and_two_depths_and_two_calipers() -> None:
    """Worked by hand: 10 1/2 x 8 1/2 x 1 1/2 on 1/8 in board, slip 1/16 in."""
    made = make_box("tray", sizes("10 1/2 x 8 1/2 x 1 1/2"), shop().grade("B"), allowances(), "exact")
    tray, lid = made.blanks
    assert tray.size == (inches("13 3/4"), inches("11 3/4"))
    # The lid's base: tray outside 10 3/4 + slip 1/16 + one caliper = 10 15/16; its walls 1 9/16 + 1/8 = 1 11/16.
    assert lid.size == (inches("10 15/16 + 2 x 1 11/16"), inches("8 15/16 + 2 x 1 11/16"))
    assert made.inside == sizes("10 1/2 x 8 1/2 x 1 1/2")
    assert made.outside == sizes("11 1/16 x 9 1/16 x 1 3/4")


def test_thumb_says_where_it_falls_short() -> None:
    made = make_box("tray", sizes("10 1/2 x 8 1/2 x 1 1/2"), shop().grade("B"), allowances(), "thumb")
    assert made.inside[2] == inches("1 7/16")
    assert any("half a board" in note for note in made.notes)
    assert made.outside[2] == inches("1 3/4")  # the lid rests on the goods: 1 1/2 and two boards


measure = st.integers(400_000, 900_000_000).map(Length)


@given(st.tuples(measure, measure, measure), st.sampled_from("EBC"), st.sampled_from(["1/16", "1 mm", None]))
def test_a_tray_never_comes_out_smaller_than_asked(
    inside: tuple[Length, Length, Length], board: str, step: str | None
) -> None:
    grade = shop().grade(board)
    made = make_box("tray", inside, grade, allowances(step), "exact")
    assert all(have >= need for have, need in zip(made.inside, inside, strict=True))
    tray, lid = made.blanks
    lid_base, tray_base = (
        blank.size[0] - Length(min(nm for axis, nm in at(blank, "score") if axis == 0)) * 2 for blank in (lid, tray)
    )
    # The lid slides over: its inside is the tray's outside and at least the slip.
    assert lid_base - grade.caliper >= tray_base + grade.caliper + allowances()[SLIP]


@given(st.tuples(measure, measure, measure))
def test_every_figure_of_a_cut_sheet_is_on_the_fences_step(inside: tuple[Length, Length, Length]) -> None:
    made = make_box("tray", inside, shop().grade("C"), allowances("1/16"), "exact")
    for blank in made.blanks:
        for dimension in blank.dimensions:
            assert dimension.length.nm % SIXTEENTH.nm == 0
    for setting in made.fence:
        assert setting.fence.nm % SIXTEENTH.nm == 0


def test_a_way_or_school_there_is_not_is_refused_with_what_there_is() -> None:
    with pytest.raises(BadInput, match=r"tray, part-lid, slotted"):
        make_box("bag", sizes("10 x 8 x 1"), shop().grade("B"), allowances())
    with pytest.raises(BadInput, match="Allowed: exact"):
        make_box("slotted", sizes("10 x 8 x 1"), shop().grade("B"), allowances(), "thumb")
    with pytest.raises(BadInput, match=r"inside\.height"):
        make_box("tray", (inches("10"), inches("8"), Length(0)), shop().grade("B"), allowances())


def test_each_blank_has_its_passes_at_a_setting_as_often_as_it_is_cut() -> None:
    """Of three alike: three through along and across, three at each score, and each slot three times."""
    case = replace(make_box("slotted", sizes("18 x 12 x 10"), shop().grade("B"), allowances()).blanks[0], count=3)
    settings = fence_of(case)
    assert [one.cuts for one in settings if one.blade == "through"] == [3, 3]
    assert {one.cuts for one in settings if one.blade == "score, inner face"} == {3}
    (slots,) = (one for one in settings if one.blade == "knife")
    assert slots.fence == inches("6 1/16")
    assert slots.cuts % 3 == 0
    assert slots.cuts >= 3 * 6


def test_the_cut_list_counts_second_scores_among_the_scores() -> None:
    """Thumb tray on 1/8 in board, 14 x 12: four scores along each way of tray and lid, and four more of the lid."""
    made = make_box("tray", sizes("10 1/2 x 8 1/2 x 1 1/2"), shop().grade("B"), allowances(), "thumb")
    rows = list(csv.DictReader(io.StringIO(cut_list(made.blanks, shop().grade("B"), "in"))))
    scores = {row["blank"]: float(row["scores, mm"]) for row in rows}
    lid = next(blank for blank in made.blanks if blank.name == "lid")
    second = [line for line in lid.lines if line.kind == "second-score"]
    assert len(second) == 4
    more = sum(math.dist([side.mm for side in line.start], [side.mm for side in line.end]) for line in second)
    assert scores["lid"] - scores["tray"] == pytest.approx(more, abs=0.11)
    assert more > 4 * 200
