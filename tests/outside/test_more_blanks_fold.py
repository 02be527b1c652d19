"""The ways with several pieces or folds of their own: each folded from its drawing, see `tests/folding.py`."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Any

import numpy as np
import pytest
import shapely
import shapely.affinity
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import LineString, Polygon

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS, make_box
from fardo.core.make.allowances import FLOATED, GUARD, LID, OVERLAP, SLIP
from fardo.core.make.inserts import cut_insert
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.quantity import Length
from tests.folding import Panel, crossing, fold, span
from tests.made_up import allowances, shop

measure = st.integers(60_000_000, 700_000_000).map(Length)
insides = st.tuples(measure, measure, measure)
boards = st.sampled_from(["E", "B", "C", "BC"])
steps = st.sampled_from([None, "1/16", "1 mm"])
STEP = 25.4 / 16 + 1e-6  # a fence goes up by a step at most


def mm(sizes: Sizes) -> list[float]:
    return [side.mm for side in sizes]


def made(way: str, inside: Sizes, board: str, step: str | None):
    box = make_box(way, inside, shop().grade(board), allowances(step))
    assert all(have >= want for have, want in zip(box.inside, box.needed, strict=True))
    assert sorted(box.needed) == sorted(inside)
    return box


def apart(values: Iterable[float]) -> list[float]:
    """The values in order, those that are one but for rounding once."""
    found: list[float] = []
    for value in sorted(values):
        if not found or value - found[-1] > 1e-3:
            found.append(value)
    return found


def folded(blank: Blank) -> np.ndarray:
    """Lengths between middle planes, its panels not going through each other."""
    panels = fold(blank)
    assert crossing(panels) == []
    low, high = span(panels)
    return high - low


def case_span(blank: Blank) -> np.ndarray:
    """Of a case: along, across and up; its walls stand about what runs across the drawing."""
    panels = fold(blank)
    assert crossing(panels) == []
    low, high = span(panels)
    sides = high - low
    flaps = [sum(abs(panel.inward[axis]) > 0.5 for panel in panels) for axis in range(3)]
    up = int(np.argmax(flaps))
    around = sorted((sides[axis] for axis in range(3) if axis != up), reverse=True)
    return np.array([*around, sides[up]])


@given(insides, boards, steps)
def test_a_part_lid_slides_over_its_tray(inside: Sizes, board: str, step: str | None) -> None:
    box = made("part-lid", inside, board, step)
    t = box.grade.caliper.mm
    tray, lid = (folded(blank) for blank in box.blanks)
    assert list(tray - [t, t, t / 2]) == pytest.approx(mm(box.inside), abs=1e-3)
    for axis in (0, 1):
        assert allowances()[SLIP].mm - 1e-6 <= (lid[axis] - t) - (tray[axis] + t) <= allowances()[SLIP].mm + STEP
    assert lid[2] <= min(tray[2] + t, allowances()[LID].mm) + 1e-6
    assert [*(lid[:2] + t), tray[2] + 1.5 * t] == pytest.approx(mm(box.outside), abs=1e-3)


@given(insides, boards, steps)
def test_full_overlap_folds_to_its_promised_sizes(inside: Sizes, board: str, step: str | None) -> None:
    box = made("overlap", inside, board, step)
    t = box.grade.caliper.mm
    sides = case_span(box.blanks[0])
    assert list(sides - [t, t, 3 * t]) == pytest.approx(mm(box.inside), abs=1e-3)
    assert list(sides + np.array([t, t, 3 * t])) == pytest.approx(mm(box.outside), abs=1e-3)
    # The outer flaps reach the far wall and not beyond; the inner ones never ride on each other.
    panels = fold(box.blanks[0])
    flaps = [p.flat.bounds for p in panels if p.flat.bounds[1] < 1e-6]
    outer = max(b[3] - b[1] for b in flaps)
    assert sides[1] - STEP <= outer <= sides[1] + 1e-6
    inner = min(p.flat.bounds[3] - p.flat.bounds[1] for p in panels if p.flat.bounds[3] <= outer + 1e-6)
    assert 2 * inner <= sides[0] + 1e-6


@given(insides, boards, steps)
def test_the_lid_of_a_half_slotted_case_slides_over_it(inside: Sizes, board: str, step: str | None) -> None:
    box = made("half-slotted", inside, board, step)
    t = box.grade.caliper.mm
    case, lid = case_span(box.blanks[0]), folded(box.blanks[1])
    assert list(case - [t, t, t]) == pytest.approx(mm(box.inside), abs=1e-3)
    for axis in (0, 1):
        assert allowances()[SLIP].mm - 1e-6 <= (lid[axis] - t) - (case[axis] + t) <= allowances()[SLIP].mm + STEP
    assert lid[2] <= case[2] + t + 1e-6  # its walls end above the table
    # The flaps of the long walls meet in the middle of the bottom, and it has none at its top.
    flaps = [p.flat.bounds[3] - p.flat.bounds[1] for p in fold(box.blanks[0]) if p.flat.bounds[1] < 1e-6]
    assert case[1] / 2 - STEP <= max(flaps) <= case[1] / 2 + 1e-6
    (ends,) = [one for one in box.fence if one.do.startswith("flaps")]
    assert (ends.do, ends.cuts) == ("flaps, from one long edge", 1)
    assert [*(lid[:2] + t), case[2] + 2 * t] == pytest.approx(mm(box.outside), abs=1e-3)


@given(insides, boards, steps)
def test_the_upper_half_slides_over_the_lower_and_they_overlap(inside: Sizes, board: str, step: str | None) -> None:
    box = made("halves", inside, board, step)
    t = box.grade.caliper.mm
    lower, upper = (case_span(blank) for blank in box.blanks)
    for axis in (0, 1):
        assert allowances()[SLIP].mm - 1e-6 <= (upper[axis] - t) - (lower[axis] + t) <= allowances()[SLIP].mm + STEP
    high = box.inside[2].mm
    assert list(lower[:2] - t) == pytest.approx(mm(box.inside)[:2], abs=1e-3)
    assert [*(upper[:2] + t), high + 4 * t] == pytest.approx(mm(box.outside), abs=1e-3)
    depths = [half[2] - t for half in (lower, upper)]
    assert max(depths) <= high + 1e-6
    assert sum(depths) - high >= min(allowances()[OVERLAP].mm, box.needed[2].mm) - 1e-3


@given(insides, boards, steps)
def test_a_square_tube_lies_along_the_longest_side(inside: Sizes, board: str, step: str | None) -> None:
    box = made("tube", inside, board, step)
    t = box.grade.caliper.mm
    sides = case_span(box.blanks[0])
    long = max(range(3), key=lambda n: inside[n])
    got_in, got_out = mm(box.inside), mm(box.outside)
    assert [got_in[long], got_out[long]] == pytest.approx([sides[2] - 2 * t, sides[2] + 2 * t], abs=1e-3)
    rest = sorted((got_in[n] for n in range(3) if n != long), reverse=True)
    assert rest == pytest.approx(list(sides[:2] - t), abs=1e-3)
    assert sorted(got_out[n] for n in range(3) if n != long) == pytest.approx(sorted(sides[:2] + t), abs=1e-3)


def _as_drawn(blank: Blank):
    """How far a panel turns about the score it hangs on: as its line says."""
    lines = [line for line in blank.lines if line.kind == "score"]

    def angle(one: Polygon, other: Polygon) -> float:
        edge = one.intersection(other)
        middle = edge.interpolate(0.5, normalized=True)
        near = min(lines, key=lambda line: _off(line, middle))
        return near.folds

    return angle


def _off(line, point) -> float:
    (x, y), (u, v) = ((c.mm for c in end) for end in (line.start, line.end))
    length = math.hypot(u - x, v - y)
    along = ((point.x - x) * (u - x) + (point.y - y) * (v - y)) / length
    beside = abs((u - x) * (point.y - y) - (v - y) * (point.x - x)) / length
    return beside + max(0.0, -along, along - length)


@given(insides, boards, steps)
def test_a_triangular_tube_closes_and_holds_the_goods(inside: Sizes, board: str, step: str | None) -> None:
    box = made("triangle", inside, board, step)
    t = box.grade.caliper.mm
    inside = box.needed  # goods measured standing are laid down
    long = 0 if inside[0] >= inside[1] else 1
    panels = fold(box.blanks[0], _as_drawn(box.blanks[0]))
    ends = [panel for panel in panels if len(panel.corners) == 3]
    walls = sorted((panel for panel in panels if len(panel.corners) > 3), key=lambda wall: wall.flat.centroid.y)
    assert (len(walls), len(ends)) == (4, 2)
    # Seen along the tube every wall is a board as thick as the caliper. No two that are not one piece run into each
    # other, and none is further than a fence step from where it closes.
    lines = [_from_the_end(wall, walls[0]) for wall in walls]
    first, second, third, cover = boards = [LineString(line).buffer(t / 2, cap_style="flat") for line in lines]
    for one, other in ((first, third), (first, cover), (second, cover)):
        assert one.intersection(other).area < 0.01
    assert first.distance(third) <= STEP
    assert first.distance(cover) <= STEP
    assert second.distance(cover) <= STEP + t
    # Closed it measures as promised, its corners taken as sharp.
    chained = LineString([lines[0][0], *(line[1] for line in lines)])
    whole = chained.buffer(t / 2, cap_style="flat", join_style="mitre", mitre_limit=10)
    low_y, low_z, high_y, high_z = whole.bounds
    assert [high_y - low_y, high_z - low_z] == pytest.approx([box.outside[1 - long].mm, box.outside[2].mm], abs=2e-3)
    # Goods w wide and h high stand on the first wall and keep clear of the others.
    wide, high = box.inside[1 - long].mm, inside[2].mm
    goods = shapely.box(0, t / 2 + 1e-3, wide, t / 2 + high).buffer(-1e-3, join_style="mitre")
    corner = max(lines[1], key=lambda point: point[1])[0]  # the goods stand under where the second and third wall meet
    goods = shapely.affinity.translate(goods, corner - wide / 2)
    assert all(goods.intersection(board).area < 1e-6 for board in boards)
    # The ends stand between the walls: on edge over the first, and no wider at any height than these leave.
    length = walls[1].flat.bounds[2] - walls[1].flat.bounds[0]
    assert length - t == pytest.approx(box.inside[long].mm, abs=1e-3)
    assert length + t == pytest.approx(box.outside[long].mm, abs=1e-3)
    for end in ends:
        flat = [_seen(corner, walls[0]) for corner in end.corners]
        within = Polygon([(y, max(z, t / 2)) for _, y, z in flat]).buffer(-1e-3)
        assert all(within.intersection(board).area < 1e-6 for board in boards)


def _seen(point: np.ndarray, base: Panel) -> np.ndarray:
    """A point as it stands over a panel that lies flat with its inner face up."""
    return (np.linalg.inv(base.place) @ [*point, 1])[:3]


def _from_the_end(wall: Panel, base: Panel) -> list[tuple[float, float]]:
    """The middle of a wall's board as it is seen along the tube, standing on its first wall."""
    left, low, _, high = wall.flat.bounds
    ends = [wall.place @ [left, y, 0, 1] for y in (low, high)]
    return [(float(y), float(z)) for _, y, z in (_seen(end[:3], base) for end in ends)]


@given(measure, measure, st.integers(15_000_000, 150_000_000).map(Length), boards, steps)
def test_a_folder_closes_over_its_hollow_ends(
    length: Length, width: Length, height: Length, board: str, step: str | None
) -> None:
    assume(height > shop().grade(board).caliper * 2)
    box = made("folder", (length, width, height), board, step)
    t = box.grade.caliper.mm
    folder, roll = box.blanks
    panels = fold(folder)
    assert len(panels) == 1 + 4 + 6
    assert crossing(panels) == []
    low, high = span(panels)
    assert list(high - low + t) == pytest.approx(mm(box.outside), abs=1e-3)
    # Walls across the length: outer ends and, a hollow further in, the inner ones that stand on the base.
    ends = apart(float(p.corners[0][0]) for p in panels if abs(p.inward[0]) > 0.5)
    assert len(ends) == 4
    assert ends[2] - ends[1] - t == pytest.approx(box.inside[0].mm, abs=1e-3)
    assert ends[1] - ends[0] - t >= allowances()[GUARD].mm - 1e-3
    # Covers lie above the rolled ends and meet in the middle, never on each other.
    base, over, cover = apart(float(p.corners[0][2]) for p in panels if abs(p.inward[2]) > 0.5)
    assert cover - base - t == pytest.approx(box.inside[2].mm, abs=1e-3)
    assert cover - over >= t - 1e-3
    lids = [p for p in panels if abs(p.inward[2]) > 0.5 and abs(float(p.corners[0][2]) - cover) < 1e-3]
    assert len(lids) == 2
    assert sum(np.ptp(p.corners[:, 1]) for p in lids) <= high[1] - low[1] + 1e-3
    for inner in (p for p in panels if abs(p.inward[0]) > 0.5):
        assert inner.corners[:, 2].min() >= base - 1e-6
    # A roll stands along each side, between the ends, beside the goods.
    folded(roll)
    assert roll.size[1].mm <= box.inside[0].mm + 1e-3
    assert roll.count == 2
    wide = sorted({line.start[0].mm for line in roll.lines if line.kind == "score"})
    assert high[1] - low[1] - t - 2 * (wide[0] + t) >= box.inside[1].mm - 1e-3


@given(insides, boards, steps)
def test_an_inner_box_floats_an_inch_or_more_from_the_outer(inside: Sizes, board: str, step: str | None) -> None:
    box = made("boxed-twice", inside, board, step)
    t = box.grade.caliper.mm
    inner, outer = (case_span(blank) for blank in box.blanks[:2])
    assert list(inner - [t, t, 2 * t]) == pytest.approx(mm(box.inside), abs=1e-3)
    assert list(outer + np.array([t, t, 2 * t])) == pytest.approx(mm(box.outside), abs=1e-3)
    room = (outer - inner - 2 * np.array([t, t, 2 * t])) / 2
    assert min(room) >= 25.4 - 1e-6
    for blank in box.blanks[2:]:
        bridge = fold(blank)
        assert crossing(bridge) == []
        stands = next(np.ptp(p.corners[:, 2]) for p in bridge if abs(p.inward[2]) < 0.5)
        # Its legs end at the cut edge; over its back it is half a board higher.
        assert stands + t / 2 <= min(room) + 1e-3
        assert stands + t / 2 >= allowances()[FLOATED].mm - 1e-3
    assert sum(blank.count for blank in box.blanks[2:]) == 12


def test_every_way_that_is_cut_from_sheet_is_folded_here_or_beside() -> None:
    beside = {"tray", "slotted", "five-panel"}
    here = {"part-lid", "overlap", "half-slotted", "halves", "tube", "triangle", "folder", "boxed-twice"}
    assert {name for name, way in WAYS.items() if way.NEEDS == "sheet"} == beside | here


@given(insides, boards, steps)
def test_inserts_fold_to_what_they_are_for(inside: Sizes, board: str, step: str | None) -> None:
    t, all_of = shop().grade(board).caliper, allowances(step)

    def blank(kind: str, **asked: Any) -> Blank:
        (only,) = cut_insert(Wanted(kind, **asked), inside, t, all_of).blanks
        return only

    around = case_like(blank("liner"))
    for wall, room in zip(around, inside, strict=False):
        assert room.mm - all_of[SLIP].mm - 2 * STEP <= wall + t.mm <= room.mm + 1e-3
    band = case_like(blank("sleeve", size=inside))
    assert band[0] - t.mm >= inside[1].mm - 1e-3
    assert band[1] - t.mm >= inside[2].mm - 1e-3
    bridge = fold(blank("spacer", length=inside[0], depth=Length.of_mm(40)))
    legs = [np.ptp(p.corners[:, 2]) for p in bridge if abs(p.inward[2]) < 0.5]
    assert legs == pytest.approx([legs[0]] * 2)
    assert 40 - 1e-3 <= legs[0] + t.mm / 2 <= 40 + STEP
    cap = fold(blank("edge-cap", length=inside[0], depth=Length.of_mm(50)))
    assert abs(cap[0].inward @ cap[1].inward) < 1e-9
    corner = fold(blank("corner-cap"))
    assert len(corner) == 3
    assert abs(np.linalg.det(np.array([panel.inward for panel in corner]))) == pytest.approx(1)
    pad = blank("pad", count=2)
    assert pad.count == 2
    assert pad.size[0] <= inside[0]
    assert pad.size[1] <= inside[1]


def case_like(blank: Blank) -> list[float]:
    """Across a band, between middle planes: the panel left of its last two scores, and the one between them."""
    panels = fold(blank)
    low, high = span(panels)
    open_axis = next(axis for axis in range(3) if all(abs(panel.inward[axis]) < 0.5 for panel in panels))
    scores = sorted(line.start[0].mm for line in blank.lines if line.kind == "score")
    one, other = scores[-1] - scores[-2], scores[-2] - (scores[-3] if len(scores) > 2 else 0)
    got = [(high - low)[axis] for axis in range(3) if axis != open_axis]
    assert sorted(got) == pytest.approx(sorted([one, other]), abs=1e-3)
    return [one, other]


@given(insides, boards, st.integers(1, 6), st.integers(1, 6))
def test_strips_of_a_divider_slot_into_each_other(inside: Sizes, board: str, along: int, across: int) -> None:
    """Laid crosswise, each slot of one takes the board of the other, and both stand on the floor of the box."""
    assume(along * across > 1)
    t = shop().grade(board).caliper
    found = cut_insert(Wanted("divider", along=along, across=across), inside, t, allowances())
    cell = [side.mm for side in found.measures]
    assert cell[0] * along + t.mm * (along - 1) <= inside[0].mm
    assert cell[1] * across + t.mm * (across - 1) <= inside[1].mm
    for blank in found.blanks:
        board_left = Polygon([(x.mm, y.mm) for x, y in blank.outline])
        assert board_left.is_valid
        slots = (along if blank.name == "long strip" else across) - 1
        taken = Polygon([(0, 0), (blank.size[0].mm, 0), (blank.size[0].mm, blank.size[1].mm), (0, blank.size[1].mm)])
        cut_out = taken.difference(board_left)
        assert cut_out.area == pytest.approx(slots * t.mm * blank.size[1].mm / 2, rel=1e-6, abs=1e-6)
    if len(found.blanks) == 2:
        long, short = found.blanks
        assert (long.count, short.count) == (across - 1, along - 1)
        # From above in one, from below in the other, and together as high as a strip.
        depth = [max(y.mm for x, y in b.outline if y not in (b.size[1] * 0, b.size[1])) for b in (long, short)]
        assert depth[0] == pytest.approx(depth[1])
        assert depth[0] == pytest.approx(long.size[1].mm / 2, abs=1e-5)
