"""The parts of the arranging engine, each against something not written here: solids of a geometry library, plain
enumeration over all cells, numpy's own linear algebra.
"""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from manifold3d import Manifold, OpType

from fardo.core.arrange.apart import DIRECTIONS, OPPOSITE, Pairs, best_direction, side_by_side, support
from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body, pieces_of, stance
from fardo.core.arrange.boxes import BoxGround, sides_of
from fardo.core.arrange.build import Aim, Ground, order_in
from fardo.core.arrange.compact import Compactor
from fardo.core.arrange.exact import snapped
from fardo.core.arrange.nofit import NoFits, correlate, posed, solid_cells
from fardo.core.arrange.proved_boxes import smallest
from fardo.core.arrange.search_shapes import ways_to_stand
from fardo.core.arrange.turn import TURNS, UNTURNED, about, after, carried, determinant
from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Box, Cylinder, Disc, Ellipsoid, Piece, Ring, Shape, Taper, bars, compound, outline
from fardo.core.goods.shape.cover import block, corners, egg, rod, upright
from fardo.core.quantity import INCH, MM, POUND, ZERO, Length, Mass

STEP = 12.0
GAP = Gap.even(INCH.half())

RIM = Ring(INCH * 12, INCH * 9, INCH * 2)
ELL = outline(
    [
        (ZERO, ZERO),
        (INCH * 8, ZERO),
        (INCH * 8, INCH * 2),
        (INCH * 2, INCH * 2),
        (INCH * 2, INCH * 6),
        (ZERO, INCH * 6),
    ],
    INCH,
    [[(MM * 10, MM * 10), (MM * 30, MM * 10), (MM * 30, MM * 30), (MM * 10, MM * 30)]],
)
FRAME = bars(
    INCH, [((ZERO, ZERO, ZERO), (INCH * 9, ZERO, ZERO)), ((INCH * 9, ZERO, ZERO), (INCH * 4, INCH * 7, INCH * 2))]
)
SEAT = compound(
    [
        Piece(Box(INCH * 9, INCH * 5, INCH), (ZERO, ZERO, INCH * 4)),
        Piece(Cylinder(INCH, INCH * 4), (INCH, INCH, ZERO)),
        Piece(Ring(INCH * 4, INCH * 3, INCH), (INCH * 5, ZERO, INCH * 3)),
    ]
)
SHAPES: dict[str, Shape] = {
    "box": Box(INCH * 7, INCH * 5, INCH * 3),
    "cylinder": Cylinder(INCH * 3, INCH * 9),
    "disc": Disc(INCH * 9, INCH),
    "ring": RIM,
    "taper": Taper(INCH * 3, INCH, INCH * 9),
    "ellipsoid": Ellipsoid(INCH * 9, INCH * 6, INCH * 4),
    "bars": FRAME,
    "outline": ELL,
    "compound": SEAT,
}
every_shape = pytest.mark.parametrize("shape", SHAPES.values(), ids=SHAPES)


def hull_of(piece) -> Manifold:
    """A piece as the library's own solid, its ellipsoids as balls of many sides, inscribed."""
    turns, tilts = np.linspace(0, 2 * np.pi, 48, endpoint=False), np.linspace(-np.pi / 2, np.pi / 2, 25)
    around = np.array([(np.cos(a) * np.cos(b), np.sin(a) * np.cos(b), np.sin(b)) for a in turns for b in tilts])
    points = [middle + around @ swell.T if swell.any() else middle[None]
              for middle, swell in zip(piece.points, piece.swell, strict=True)]  # fmt: skip
    return Manifold.hull_points(np.concatenate(points))


@every_shape
def test_the_cover_holds_the_shape_and_little_more(shape: Shape) -> None:
    cover = [hull_of(piece) for piece in shape.cover()]
    together = Manifold.batch_boolean(cover, OpType.Add)
    solid = shape.solid()
    # What sticks out of the cover: nothing but the difference between two ways of giving round things sides.
    assert (solid - together).volume() < 0.012 * solid.volume()
    assert together.volume() < 1.05 * solid.volume()


@every_shape
def test_the_cover_reaches_as_far_as_the_shape_in_every_direction(shape: Shape) -> None:
    reaches = np.max([piece.reach(DIRECTIONS) for piece in shape.cover()], axis=0)
    for direction, reach in zip(DIRECTIONS, reaches, strict=True):
        exact = shape.support((direction[0], direction[1], direction[2])) / 1e6
        assert exact - 1e-6 <= reach <= exact + 0.01 * max(side.mm for side in shape.sizes)


def test_a_mesh_of_any_form_is_covered_by_hulls_of_its_pieces() -> None:
    from fardo.core.goods.shape.cover import split

    solid = SEAT.solid()
    cover = split(solid)
    together = Manifold.batch_boolean([hull_of(piece) for piece in cover], OpType.Add)
    assert (solid - together).volume() < 1e-3 * solid.volume()
    assert together.volume() < 1.25 * solid.volume()


def test_directions_come_in_pairs_and_are_of_length_one() -> None:
    assert np.allclose(np.linalg.norm(DIRECTIONS, axis=1), 1)
    assert np.allclose(DIRECTIONS[OPPOSITE], -DIRECTIONS)


@pytest.mark.parametrize("turn", TURNS)
def test_a_grid_is_carried_as_its_points_are(turn) -> None:
    cells = np.zeros((3, 4, 5), dtype=bool)
    cells[2, 1, 3] = cells[0, 0, 0] = True
    middle = (np.array(cells.shape) - 1) / 2
    turned = carried(cells, turn)
    new_middle = (np.array(turned.shape) - 1) / 2
    expected = {tuple(np.round(np.array(turn) @ (np.array(spot) - middle) + new_middle).astype(int))
                for spot in zip(*np.nonzero(cells), strict=True)}  # fmt: skip
    assert set(zip(*np.nonzero(turned), strict=True)) == expected
    assert np.isclose(np.linalg.det(np.array(turn)), determinant(turn))


def test_two_turns_one_after_the_other_are_their_product() -> None:
    first, second = about(2, 25), about(0, 70)
    assert np.allclose(after(second, first), np.array(second) @ np.array(first))


angles = st.floats(0, 360).map(lambda a: round(a, 1))
pieces = st.one_of(
    st.builds(lambda a, b, c: block((0, 0, 0), (a, b, c)), *[st.integers(5, 80)] * 3),
    st.builds(lambda a, b, c: egg(a, b, c), *[st.integers(10, 80)] * 3),
    st.builds(lambda a, b, c: upright(a, b, c), *[st.integers(8, 60)] * 3),
    st.builds(lambda a, b: rod((0, 0, 0), (a, 0, a / 2), b), st.integers(10, 90), st.integers(4, 20)),
)


@given(pieces, pieces, angles, angles, st.tuples(*[st.integers(-120, 120)] * 3))
def test_what_lies_between_two_pieces_is_what_a_geometry_library_measures(one, other, turn, tip, away) -> None:
    moved = one.moved(after(about(0, tip), about(2, turn)), away)
    both = side_by_side([[moved], [other]])
    pairs = Pairs(both, np.array([0]), np.array([1]), np.zeros((1, 3)))
    directions, apart = best_direction(pairs, np.array([1e9]))
    measured = hull_of(moved).min_gap(hull_of(other), 500)
    direction = directions[0]
    assert np.isclose(np.linalg.norm(direction), 1)
    assert direction[2] >= 0
    # A proof is never more than the truth; round things are measured by their sides there, a little within.
    assert apart[0] <= measured + 1e-6
    if measured > 0 and _nearest_way(hull_of(moved), hull_of(other), measured) >= 0:
        assert apart[0] >= measured - 0.02 * measured - 0.6


def _nearest_way(one: Manifold, other: Manifold, apart: float) -> float:
    """Whether lifting the first takes it away from the other (0 or more) or nearer (less)."""
    return one.translate((0, 0, 0.5)).min_gap(other, 500) - apart


def test_the_furthest_points_of_pieces_are_found_whatever_they_are_made_of() -> None:
    both = side_by_side([[corners([(0, 0, 0), (3, 0, 0), (0, 5, 1)])], [egg(4, 6, 8)]])
    which, directions = np.array([0, 1]), np.array([[0.0, 1.0, 0.0], [0.0, 0.0, 1.0]])
    assert np.allclose(support(both, which, directions), [[0, 5, 1], [2, 3, 8]])


@given(st.integers(0, 2**32 - 1))
def test_the_correlation_marks_just_those_places_where_cells_meet(seed: int) -> None:
    random = np.random.default_rng(seed)
    first, second = (random.random(random.integers(1, 6, 3)) < 0.4 for _ in range(2))
    marked = correlate(first, second)
    mine, theirs = ({tuple(spot) for spot in np.argwhere(cells)} for cells in (first, second))
    for place in product(*(range(n) for n in marked.shape)):
        offset = np.array(place) - (np.array(first.shape) - 1)
        assert bool(marked[place]) == any(tuple(np.array(cell) + offset) in theirs for cell in mine)


@every_shape
def test_every_cell_that_a_thing_touches_is_counted(shape: Shape) -> None:
    body = Body("thing", shape)
    cells = solid_cells(body, UNTURNED, STEP, 0.0, 0)
    low = (np.array(cells.shape) * STEP - np.array([side.mm for side in shape.sizes])) / 2
    solid = shape.solid()
    for spot in np.argwhere(~cells):
        cell = Manifold.cube((STEP, STEP, STEP)).translate(tuple(spot * STEP - low))
        assert (cell ^ solid).volume() < 1e-2


@pytest.mark.parametrize(("one", "other"), [(RIM, SHAPES["cylinder"]), (ELL, FRAME), (SEAT, SHAPES["taper"])])
def test_a_place_that_is_left_keeps_the_gap(one: Shape, other: Shape) -> None:
    """Of all places on the grid a random hundred that are not taken, measured."""
    a, b = (
        posed(Body(name, shape), n, UNTURNED, UNTURNED, STEP)
        for n, (name, shape) in enumerate((("a", one), ("b", other)))
    )
    room = 10.0
    nofit = NoFits(STEP).of(a, b, room)
    free = np.argwhere(~nofit.taken)
    spare = [np.array([c * STEP - s for c, s in zip(p.cells, p.sizes, strict=True)]) / 2 for p in (a, b)]
    still = other.solid()
    for spot in np.random.default_rng(5).permutation(free)[:100]:
        offset = (spot + np.array(nofit.first)) * STEP + spare[0] - spare[1]
        assert one.solid().translate(tuple(offset)).min_gap(still, room + 5) >= room - 0.06


def test_over_and_under_another_there_is_a_place() -> None:
    """Of two round things, column by column: taken where they meet, over it above and under it below."""
    round_things = [posed(Body(name, SHAPES["ellipsoid"]), n, UNTURNED, UNTURNED, STEP) for n, name in enumerate("ab")]
    nofit = NoFits(STEP).of(round_things[0], round_things[1], 0.0)
    assert nofit.above.any()
    assert (nofit.above.sum(), nofit.taken.any()) == (nofit.below.sum(), True)
    for taken, above, below in zip(*(cells.reshape(-1, cells.shape[2]) for cells in
                                     (nofit.taken, nofit.above, nofit.below)), strict=True):  # fmt: skip
        met = np.flatnonzero(taken)
        if len(met):
            assert below[: met[0]].all()
            assert above[met[-1] + 1 :].all()
            assert not (above | below)[met[0] : met[-1] + 1].any()


def test_what_is_built_on_the_grid_is_pressed_together_and_never_grows() -> None:
    bodies = [Body("rim", RIM, GAP), Body("seat", SEAT, GAP), Body("post", SHAPES["cylinder"], GAP)]
    stances = [ways_to_stand(body, n * 10, STEP) for n, body in enumerate(bodies)]
    room = [[GAP.wall.mm] * 3 for _ in bodies]
    ground = Ground(bodies, stances, room, NoFits(STEP))
    random = np.random.default_rng(1)
    built = ground.build([0, 1, 2], Aim(300.0), (900.0,) * 3, random)
    assert built.left_out == []
    order = order_in(ground, built)
    assert order is not None
    standing = [built.standing[n] for n in order]
    settler = Compactor([bodies[s.which] for s in standing], [s.posed.stance for s in standing], np.array(room))
    at = np.array([
        [p * STEP + (c * STEP - s) / 2 for p, c, s in zip(one.place, one.posed.cells, one.posed.sizes, strict=True)]
        for one in standing
    ])  # fmt: skip
    assert settler.slack(at).min() >= -0.05
    settled = settler.settle(at, lambda sides: np.prod(sides) / sides)
    assert settled is not None
    new, sides = settled
    assert np.prod(sides) <= np.prod(built.sides) + 1e-6
    assert settler.slack(new).min() >= -0.05
    exact = snapped(settler, new)
    assert np.abs(np.array([[c.mm for c in corner] for corner in exact]) - new).max() < 1e-3
    assert any(c.nm == GAP.wall.nm for corner in exact for c in corner), "something stands at a wall, to the nanometre"


@pytest.mark.parametrize(("rule", "count"), [({}, 6), ({"this_side_up": True}, 2), ({"keep_flat": True}, 2)])
def test_a_box_has_as_many_ways_to_stand_as_its_rules_leave(rule: dict[str, bool], count: int) -> None:
    body = Body("box", Box(INCH * 3, INCH * 2, INCH), **rule)
    assert len(sides_of(body)) == count
    assert len({side.sizes for side in sides_of(body)}) == count


boxes = st.lists(st.tuples(*[st.integers(1, 9)] * 3), min_size=1, max_size=18)


@given(boxes, st.integers(0, 99), st.booleans())
def test_boxes_are_laid_apart_by_their_gaps_to_the_nanometre(sides, seed: int, given_box: bool) -> None:
    bodies = tuple(Body("box", Box(INCH * a, INCH * b, INCH * c), GAP) for a, b, c in sides)
    inside = (INCH * 14, INCH * 12, INCH * 11) if given_box else None
    ask = Ask(bodies, inside=inside)
    answer = BoxGround(ask).build(range(len(bodies)), Aim(100.0, noise=0.05), np.random.default_rng(seed))
    spans = [
        [(at.nm, at.nm + side.nm) for at, side in zip(laid.at, stance(body, laid.turn).sizes, strict=True)]
        for body, laid in zip(bodies, answer.laid, strict=True) if laid is not None
    ]  # fmt: skip
    assert given_box or len(spans) == len(bodies)
    for n, span in enumerate(spans):
        assert all(
            low >= GAP.wall.nm and high + GAP.wall.nm <= side.nm
            for (low, high), side in zip(span, answer.inside, strict=True)
        )
        for other in spans[:n]:
            assert max(max(a[0] - b[1], b[0] - a[1]) for a, b in zip(span, other, strict=True)) >= GAP.wall.nm


def test_the_exact_solver_keeps_gaps_and_lays_nothing_on_what_bears_nothing() -> None:
    bodies = tuple(
        Body(f"box {n}", Box(INCH * 6, INCH * 6, INCH * 2), GAP, weight=POUND, bears=Mass(0), keep_flat=True)
        for n in range(2)
    )
    answer = smallest(Ask(bodies), 10**30)
    assert answer is not None
    # Side by side: 6 + 1/2 + 6 and half an inch at both walls, though a stack would be as small in room.
    assert sorted(side.nm / INCH.nm for side in answer.inside) == [3, 7, 13.5]
    assert answer.inside[2] == INCH * 3
    assert smallest(Ask(bodies), 1) is None


def test_stiff_and_stuffed_things_fill_their_hollows() -> None:
    for held, volume in (
        ("own", RIM.volume_nm3 / 1e18),
        ("hull", np.pi / 4 * (12 * 25.4) ** 2 * 50.8),
        ("block", (12 * 25.4) ** 2 * 50.8),
    ):
        pieces = pieces_of(RIM, (ZERO, ZERO, ZERO), held)
        together = Manifold.batch_boolean([hull_of(p) for p in pieces], OpType.Add)
        assert together.volume() == pytest.approx(volume, rel=0.02)


def test_wrap_that_differs_by_side_is_counted_by_side() -> None:
    body = Body("post", Cylinder(INCH * 2, INCH * 6), ZERO, (Length.of_mm(5.0), Length.of_mm(5.0), Length.of_mm(9.0)))
    reaches = (
        np.max([piece.reach(np.eye(3)) for piece in pieces_of(body.shape, body.grown, body.held)], axis=0) + body.round
    )
    assert reaches == pytest.approx([50.8 + 5, 50.8 + 5, 152.4 + 9])
    assert [side.mm for side in body.sizes] == pytest.approx([60.8, 60.8, 170.4])
