"""Several parts in one box: every gap kept, nothing through anything, and each part where its placement says."""

from __future__ import annotations

from itertools import combinations, pairwise, product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.arrange.side_by_side import Block, lay_side_by_side
from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Extra, Part, Rules
from fardo.core.goods.shape import Box, Disc
from fardo.core.plan.boxed import box_up
from fardo.core.plan.load import Load
from fardo.core.plan.needed import inside_needed
from fardo.core.plan.wrapped import units_of, wrap_up
from fardo.core.protect.material import Layer
from fardo.core.quantity import INCH, POUND, Length, Mass, volume_nm3
from tests.made_up import inches, shop, sizes

SHOP = shop()
side = st.integers(1, 20).map(lambda n: INCH * n)
gap = st.integers(0, 6).map(lambda n: Length(INCH.nm * n // 2))
bubble = Layer(SHOP.material("bubble-small"), 2)


@st.composite
def units(draw: st.DrawFn):
    part = Part(
        "thing", Box(draw(side), draw(side), draw(side)), POUND, Gap.even(draw(gap)), rules=Rules(draw(st.booleans()))
    )
    return wrap_up(part, (bubble,) if draw(st.booleans()) else (), SHOP)


extras = st.builds(lambda a, b, c: Extra("card", (a, b, c), Mass(0)), side, side, side)


def spans(at, turn, own) -> list[tuple[int, int]]:
    """From where to where a turned box reaches, its lowest corner's point being at `at`."""
    corners = [
        [sum(turn[axis][k] * own[k].nm * c[k] for k in range(3)) + at[axis].nm for axis in range(3)]
        for c in product((0, 1), repeat=3)
    ]
    return [(min(c[axis] for c in corners), max(c[axis] for c in corners)) for axis in range(3)]


@given(st.lists(units(), min_size=1, max_size=7), st.lists(extras, max_size=2), st.sampled_from(["tray", "slotted"]))
def test_every_part_keeps_its_gap_from_the_walls_and_from_the_others(parts, cards, way) -> None:
    boxed = box_up(Load(tuple(parts), tuple(cards)), way, SHOP.grade("C"), SHOP)
    inside = [length.nm for length in boxed.made.inside]
    bare = [spans(lies.at, lies.turn, unit.shape.sizes) for lies, unit in zip(boxed.placements, parts, strict=True)]
    for n, (span, unit) in enumerate(zip(bare, parts, strict=True)):
        for axis in range(3):
            keep = _grown(boxed, parts, n, axis) + unit.part.gap.wall.nm
            assert span[axis][0] >= keep
            assert span[axis][1] + keep <= inside[axis]
    for (n, one), (m, other) in combinations(enumerate(bare), 2):
        apart = max(
            max(a[0] - b[1], b[0] - a[1])
            - _grown(boxed, parts, n, axis) - _grown(boxed, parts, m, axis)
            for axis, (a, b) in enumerate(zip(one, other, strict=True))
        )  # fmt: skip
        assert apart >= max(parts[n].part.gap.wall.nm, parts[m].part.gap.wall.nm)
    for _, at, size in boxed.extras_placed:
        spot = [(a.nm, a.nm + s.nm) for a, s in zip(at, size, strict=True)]
        for n, span in enumerate(bare):
            apart = max(
                max(a[0] - b[1], b[0] - a[1]) - _grown(boxed, parts, n, axis)
                for axis, (a, b) in enumerate(zip(spot, span, strict=True))
            )
            assert apart >= parts[n].part.gap.wall.nm


def _grown(boxed, parts, n: int, axis: int) -> int:
    """How far the wrap of a part goes beyond it along an axis of the box."""
    own = next(k for k in range(3) if boxed.placements[n].turn[axis][k])
    return parts[n].grown[own].nm


@given(st.lists(st.tuples(side, side, side, st.booleans()), min_size=1, max_size=9))
def test_blocks_never_overlap_and_those_that_stay_upright_do(things) -> None:
    blocks = tuple(Block(str(n), (a, b, c), upright) for n, (a, b, c, upright) in enumerate(things))
    found = lay_side_by_side(blocks)
    for placed, block in zip(found.placed, blocks, strict=True):
        assert sorted(placed.sizes) == sorted(block.sizes)
        assert all(a + s <= whole for a, s, whole in zip(placed.at, placed.sizes, found.inside, strict=True))
        if block.upright:
            assert placed.turn[2] == (0, 0, 1)
        # The turn is a rotation, and it gives the sizes it says.
        (a, b, c), (d, e, f), (g, h, i) = placed.turn
        assert a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g) == 1
        for axis in range(3):
            own = next(k for k in range(3) if placed.turn[axis][k])
            assert placed.sizes[axis] == block.sizes[own]
    for one, other in combinations(found.placed, 2):
        assert not all(
            a < b + sb and b < a + sa
            for a, sa, b, sb in zip(one.at, one.sizes, other.at, other.sizes, strict=True)
        )  # fmt: skip


@pytest.mark.parametrize(
    ("blocks", "longest", "air_at_most"),
    [
        ([(2, 2, 2)] * 40, 10, 0.0),
        ([(5 + n % 9, 4 + n % 5, 3 + n % 3) for n in range(40)], 34, 0.4),
        ([(12, 9, 3), *[(4 + n % 3, 3, 2) for n in range(24)]], 20, 0.35),
    ],
)
def test_many_small_blocks_make_no_column(blocks, longest: int, air_at_most: float) -> None:
    found = lay_side_by_side(
        tuple(Block(str(n), tuple(INCH * side for side in block)) for n, block in enumerate(blocks))
    )
    inside = [float(side.inches) for side in found.inside]
    room, goods = inside[0] * inside[1] * inside[2], sum(a * b * c for a, b, c in blocks)
    assert max(inside) <= longest
    assert 1 - goods / room <= air_at_most + 1e-9
    lie = [[(at.nm, at.nm + size.nm) for at, size in zip(p.at, p.sizes, strict=True)] for p in found.placed]
    assert all(high <= side.nm for one in lie for (_, high), side in zip(one, found.inside, strict=True))
    assert all(
        any(a[1] <= b[0] or b[1] <= a[0] for a, b in zip(one, other, strict=True))
        for one, other in combinations(lie, 2)
    )


def test_two_gaps_next_to_each_other_are_kept_once() -> None:
    """Two things of 10 x 10 x 4, 2 in round each: 2 in between them and at the walls, not 4 between."""
    part = Part("thing", Box(*sizes("10 x 10 x 4")), POUND, Gap.even(inches("2")), 2)
    arrangement, why = inside_needed(Load(units_of(part, (), SHOP), ()))
    assert arrangement.inside == sizes("14 x 14 x 14")
    assert why.formula == "parts side by side, gaps between kept"


def test_a_liner_makes_the_inside_larger_on_every_side_and_moves_everything_in() -> None:
    part = Part("thing", Box(*sizes("10 x 10 x 4")), POUND, Gap.even(inches("1")))
    unit = wrap_up(part, (), SHOP)
    plain, lined = (Load((unit,), (), liner) for liner in (None, Layer(SHOP.material("liner-foam"))))
    assert inside_needed(lined)[0].inside == tuple(s + inches("1") for s in inside_needed(plain)[0].inside)
    boxed = box_up(lined, "slotted", SHOP.grade("C"), SHOP)
    assert boxed.placements[0].at[2] == inches("1 1/2")
    assert boxed.weights.wrap.ng > 0


def test_those_of_a_pile_lie_one_on_the_other() -> None:
    part = Part("disc", Disc(inches("8"), inches("1/4")), POUND, Gap.even(inches("1")), 5)
    boxed = box_up(Load(units_of(part, (), SHOP, 1), ()), "slotted", SHOP.grade("C"), SHOP)
    heights = [lies.at[2] for lies in boxed.placements]
    assert [lies.number for lies in boxed.placements] == [1, 2, 3, 4, 5]
    assert [b - a for a, b in pairwise(heights)] == [inches("1/4")] * 4


def test_a_hole_is_not_goods_and_wrap_is_not_air_to_be_filled() -> None:
    unit = wrap_up(Part("thing", Box(*sizes("10 x 10 x 10")), POUND, Gap.even(inches("1"))), (bubble,), SHOP)
    boxed = box_up(Load((unit,), ()), "slotted", SHOP.grade("C"), SHOP)
    inside = volume_nm3(*boxed.made.inside)
    wrap = sum(coat.room_nm3 for coat in boxed.coats)
    void = inside - unit.shape.volume_nm3 - wrap
    assert boxed.weights.fill.grams == pytest.approx(12 * 1.1 * void / 10**24, rel=1e-9)  # packed firm
    assert boxed.wrap.minor == sum(coat.price.minor for coat in unit.coats)
