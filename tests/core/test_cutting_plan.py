"""Cutting plans: every piece once, on its sheet, its flutes as they must run, freed by cuts that go through."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise, permutations

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from fardo.core.board.grade import Sheet
from fardo.core.cut.drawing import Blank, Line
from fardo.core.cut.lay_out import CutPiece, CuttingPlan, PlacedPiece, SheetPlan, lay_freely, plan_cuts
from fardo.core.cut.order import Cut, Rect, order_cuts
from fardo.core.cut.sheet import draw_sheet
from fardo.core.plan.cutting import sheets_after
from fardo.core.quantity import INCH, ZERO, Length
from fardo.core.refusal import NoAnswer
from tests.made_up import inches

SHEET = Sheet(INCH * 60, INCH * 40)
side = st.integers(5, 40).map(lambda n: INCH * n)
flutes = st.sampled_from(["either way", "along the blank", "across the blank"])
piece = st.builds(lambda a, b, way: CutPiece("blank", (a, b), way), side, side, flutes)


def check(plan: CuttingPlan, pieces: list[CutPiece], kerf: Length) -> None:
    laid = [placed for one in plan.sheets for placed in one.placed]
    assert sorted(p.piece.size for p in laid) == sorted(p.size for p in pieces)
    for one in plan.sheets:
        for n, placed in enumerate(one.placed):
            at = placed.at
            lying = (placed.piece.size[1], placed.piece.size[0]) if placed.turned else placed.piece.size
            assert (at.length, at.width) == lying
            assert at.x.nm >= 0 <= at.y.nm
            assert at.x + at.length <= one.sheet.length
            assert at.y + at.width <= one.sheet.width
            if placed.piece.flutes != "either way":
                along = placed.piece.flutes == "along the blank"
                assert (along != placed.turned) == one.sheet.flutes_along
            for other in one.placed[:n]:
                assert clear(at, other.at, ZERO if plan.free else kerf)
        if not plan.free:
            assert freed(one.sheet, one.cuts, kerf) >= {rect(p.at) for p in one.placed}


def rect(at: Rect) -> tuple[int, int, int, int]:
    return at.x.nm, at.y.nm, at.length.nm, at.width.nm


def clear(a: Rect, b: Rect, kerf: Length) -> bool:
    return (
        a.x + a.length + kerf <= b.x or b.x + b.length + kerf <= a.x
        or a.y + a.width + kerf <= b.y or b.y + b.width + kerf <= a.y
    )  # fmt: skip


def freed(sheet: Sheet, cuts: tuple[Cut, ...], kerf: Length) -> set[tuple[int, int, int, int]]:
    """The pieces that are left when every cut is made, each through a piece that the cuts before have left."""
    there = {(0, 0, sheet.length.nm, sheet.width.nm)}
    for cut in cuts:
        x, y, a, b = rect(cut.rest)
        there.remove((x, y, a, b))
        at, k = cut.fence.nm, kerf.nm
        if cut.across:
            there |= {(x, y, at, b)} | ({(x + at + k, y, a - at - k, b)} if a > at + k else set())
        else:
            there |= {(x, y, a, at)} | ({(x, y + at + k, a, b - at - k)} if b > at + k else set())
    return there


@given(st.lists(piece, min_size=1, max_size=9), st.sampled_from([ZERO, inches("1/8")]))
def test_every_piece_is_freed_once_by_cuts_that_go_through(pieces: list[CutPiece], kerf: Length) -> None:
    check(plan_cuts(pieces, [SHEET], kerf), pieces, kerf)


def test_a_24_x_30_sheet_gives_four_blanks_of_14_x_12() -> None:
    """Common practice; straight cuts, one fence setting along and one across."""
    plan = plan_cuts([CutPiece("tray", (inches("14"), inches("12")), "either way")] * 4, [Sheet(INCH * 30, INCH * 24)])
    assert len(plan.sheets) == 1
    assert plan.fence_changes == 2


def test_a_saw_takes_its_kerf_where_a_knife_takes_none() -> None:
    pieces = [CutPiece("pad", (inches("15"), inches("12")), "either way")] * 4
    sheet = Sheet(INCH * 30, INCH * 24)
    assert len(plan_cuts(pieces, [sheet]).sheets) == 1
    assert len(plan_cuts(pieces, [sheet], inches("1/8")).sheets) == 4 - 2


def test_flutes_are_kept_even_where_turning_would_save_a_sheet() -> None:
    sheet = Sheet(INCH * 48, INCH * 20)
    sizes = (inches("20"), inches("16"))
    assert len(plan_cuts([CutPiece("pad", sizes, "either way")] * 3, [sheet]).sheets) == 1
    assert len(plan_cuts([CutPiece("case", sizes, "across the blank")] * 3, [sheet]).sheets) == 2
    along = Sheet(sheet.length, sheet.width, flutes_along=True)
    assert len(plan_cuts([CutPiece("case", sizes, "across the blank")] * 3, [along]).sheets) == 1


def test_a_knife_frees_a_pinwheel_that_no_straight_cut_frees() -> None:
    pieces = [CutPiece("pad", (inches("5"), inches("3")), "either way")] * 4
    sheet = Sheet(INCH * 8, INCH * 8)
    assert len(plan_cuts(pieces, [sheet]).sheets) == 2
    freely = plan_cuts(pieces, [sheet], knife=True)
    assert (len(freely.sheets), freely.free) == (1, True)
    check(freely, pieces, ZERO)
    assert lay_freely([*pieces, pieces[0]], sheet, 1) is None


def test_a_knife_turns_no_piece_against_its_flutes() -> None:
    """Two of 30 x 20 lie on 40 x 30 only turned a quarter."""
    sheet, size = Sheet(INCH * 40, INCH * 30), (inches("30"), inches("20"))
    for flutes, there in (("either way", True), ("along the blank", True), ("across the blank", False)):
        pieces = [CutPiece("case", size, flutes)] * 2  # type: ignore[arg-type]
        assert (lay_freely(pieces, sheet, 1) is not None) is there


def test_a_knife_lays_a_piece_turned_where_its_flutes_have_it_so() -> None:
    """30 x 20 with its flutes along a sheet whose flutes run across goes on it turned, 20 wide and 30 deep, alone."""
    sheet = Sheet(INCH * 44, INCH * 30, flutes_along=True)
    pieces = [CutPiece("case", (inches("30"), inches("20")), "across the blank")] * 2
    laid = lay_freely(pieces, sheet, 1)
    assert laid is not None
    assert [(one.at.length, one.at.width) for one in laid[0]] == [(INCH * 20, INCH * 30)] * 2


def test_many_cuts_in_a_row_set_the_fence_once_a_width() -> None:
    """Twelve strips of three widths, as they come, are cut at three settings and not at twelve."""
    strips = [CutPiece("pad", (INCH * 40, INCH * (2 + n % 3)), "either way") for n in range(12)]
    (one,) = plan_cuts(strips, [Sheet(INCH * 40, INCH * 40)]).sheets
    mixed = tuple(
        Cut(Rect(ZERO, INCH * (2 * n), INCH * 40, INCH * (40 - 2 * n)), False, INCH * (2 + n % 3), None)
        for n in range(12)
    )
    assert sum(a.fence != b.fence for a, b in pairwise(order_cuts(mixed))) == 2
    assert one.fence_changes <= 4


def test_off_cuts_are_used_up_before_a_whole_sheet_is_taken() -> None:
    offcut = Sheet(INCH * 22, INCH * 18, count=1, offcut=True)
    plan = plan_cuts([CutPiece("pad", (inches("20"), inches("16")), "either way")], [SHEET, offcut])
    assert [one.sheet for one in plan.sheets] == [offcut]
    both = plan_cuts([CutPiece("pad", (inches("20"), inches("16")), "either way")] * 2, [SHEET, offcut])
    assert [one.sheet for one in both.sheets] == [offcut, SHEET]


def test_what_no_sheet_takes_or_the_stock_does_not_do_for_is_said() -> None:
    with pytest.raises(NoAnswer, match="no sheet takes the case of Loom"):
        plan_cuts([CutPiece("case", (INCH * 61, INCH * 10), "either way", "Loom")], [SHEET])
    few = Sheet(INCH * 60, INCH * 40, count=1)
    with pytest.raises(NoAnswer, match="not enough sheets"):
        plan_cuts([CutPiece("pad", (INCH * 50, INCH * 30), "either way")] * 2, [few])


def test_one_large_sheet_beats_two_small_ones_and_a_small_one_a_large() -> None:
    small, large = Sheet(INCH * 48, INCH * 24), Sheet(INCH * 96, INCH * 48)
    pads = [CutPiece("pad", (INCH * 40, INCH * 20), "either way")]
    assert [one.sheet for one in plan_cuts(pads, [large, small]).sheets] == [small]
    assert [one.sheet for one in plan_cuts(pads * 4, [small, large]).sheets] == [large]


def test_what_is_left_and_what_is_used_make_up_the_sheet() -> None:
    pieces = [CutPiece("pad", (INCH * n, INCH * 9), "either way") for n in (30, 22, 17, 11)]
    plan = plan_cuts(pieces, [SHEET])
    (one,) = plan.sheets
    left = sum(rest.area_nm2 for rest in one.left)
    used = sum(p.at.area_nm2 for p in one.placed)
    assert left + used == SHEET.length.nm * SHEET.width.nm
    assert plan.waste == pytest.approx(left / (left + used))


SPENT = [(5, 8, "either way"), (5, 32, "either way"), (8, 15, "across the blank"), (8, 26, "either way")]


@given(st.lists(piece, min_size=2, max_size=4))
@example([CutPiece("blank", (INCH * a, INCH * b), way) for a, b, way in SPENT])  # its search had spent its states
def test_no_order_of_the_cuts_sets_the_fence_less_often(pieces: list[CutPiece]) -> None:
    for one in plan_cuts(pieces, [SHEET]).sheets:
        if len(one.cuts) > 6:
            continue
        fewest = min(
            sum(n == 0 or order[n].fence != order[n - 1].fence for n in range(len(order)))
            for order in permutations(one.cuts)
            if all(c.after is None or order.index(one.cuts[c.after]) < n for n, c in enumerate(order))
        ) if one.cuts else 0  # fmt: skip
        assert one.fence_changes == fewest
        assert len(order_cuts(one.cuts)) == len(one.cuts)


def test_the_same_pieces_give_the_same_plan() -> None:
    pieces = [CutPiece(f"b{n}", (INCH * (9 + n), INCH * (7 + n % 3)), "either way") for n in range(9)]
    assert plan_cuts(pieces, [SHEET]) == plan_cuts(pieces, [SHEET])
    assert plan_cuts([], [SHEET]).sheets == ()


def test_a_blank_that_is_turned_on_its_sheet_is_not_mirrored() -> None:
    """Its lines keep their sense: three corners that go round against the clock still do."""
    blank = Blank(
        "tray", (inches("30"), inches("20")), ((ZERO, ZERO), (inches("30"), ZERO), (inches("30"), inches("20"))),
        (Line("cut", (ZERO, ZERO), (inches("30"), ZERO)),
         Line("score", (inches("30"), ZERO), (inches("30"), inches("5")))),
        (), (), "along the blank",
    )  # fmt: skip
    piece = CutPiece("tray", blank.size, blank.flutes)
    for turned, at in (
        (False, Rect(ZERO, ZERO, inches("30"), inches("20"))),
        (True, Rect(ZERO, ZERO, inches("20"), inches("30"))),
    ):
        plan = SheetPlan(Sheet(inches("48"), inches("48")), (PlacedPiece(piece, at, turned),), (), ())
        drawn = draw_sheet("sheet", plan, {("tray", ""): blank}, "in")
        (cut,), (score,) = ([one for one in drawn.lines if one.kind == kind] for kind in ("cut", "score"))
        assert drawn.flutes == "across the blank"
        other = replace(plan, sheet=Sheet(inches("48"), inches("48"), flutes_along=True))
        assert draw_sheet("sheet", other, {("tray", ""): blank}, "in").flutes == "along the blank"
        along = [b.nm - a.nm for a, b in zip(cut.start, cut.end, strict=True)]
        up = [b.nm - a.nm for a, b in zip(score.start, score.end, strict=True)]
        assert along[0] * up[1] - along[1] * up[0] > 0
        assert all(ZERO <= point[axis] <= (at.length, at.width)[axis] for one in (cut, score)
                   for point in (one.start, one.end) for axis in (0, 1))  # fmt: skip


def test_of_two_equal_rows_of_stock_each_sheet_is_taken_where_one_is_left() -> None:
    """A shop may list the same sheet twice, one of each: two that are cut leave none, and none is owed."""
    rows = [Sheet(INCH * 48, INCH * 48, count=1), Sheet(INCH * 48, INCH * 48, count=1)]
    plan = plan_cuts([CutPiece("pad", (INCH * 47, INCH * 47), "either way")] * 2, rows)
    assert [sheet.count for sheet, _ in sheets_after(rows, plan, INCH * 12)] == [0, 0]
