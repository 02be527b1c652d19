"""Protection: layers and what is cut for them, guards, piles, the cushion check; a wrapped shape holds all of it."""

from __future__ import annotations

import math
from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Part
from fardo.core.goods.shape import Box, Cylinder, Disc, Ring, Shape, bars
from fardo.core.plan.parts import check_parts
from fardo.core.plan.wrapped import units_of, wrap_up
from fardo.core.protect.coat import Cut
from fardo.core.protect.cushion import CLASSES, NO_LIMIT, check_cushion, cushion_thickness, drop_height, read_fragility
from fardo.core.protect.forms.bag import flat_size
from fardo.core.protect.forms.corner import corner_guard
from fardo.core.protect.forms.wrap import winding
from fardo.core.protect.liner import line_walls
from fardo.core.protect.material import Layer
from fardo.core.protect.pile import divide, how_to_pile, piles_needed
from fardo.core.quantity import INCH, POUND, SIXTY_FOURTH, Length, Mass, read_mass
from fardo.core.refusal import BadInput
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import inches, shop, sizes
from tests.outside.test_shapes_against_references import shapes, side, small

SHOP = shop()
WIDE = replace(SHOP.material("bubble-inch"), width=None, tears_every=None)


def layer(code: str, layers: int = 1, **said) -> Layer:
    """Of a material cut anywhere, unless it is said where it tears."""
    said = {"tears_every": None, **said}
    return Layer(replace(SHOP.material(code), tears_every=said.pop("tears_every")), layers, **said)


def thing(shape: Shape, weight: Mass = POUND, gap: str = "2", **said) -> Part:
    return Part("thing", shape, weight, Gap.even(inches(gap)), **said)


def wrapped(size: str, *layers: Layer):
    return wrap_up(thing(Box(*sizes(size))), layers, SHOP)


def around(cut: Cut) -> tuple[float, float]:
    assert cut.width is not None
    return float(cut.length.inches), float(cut.width.inches)


# --- Corner guards, piles, cushion: common practice and published figures ------------------------------------------


def test_a_corner_guard_for_an_inch_and_a_half_has_lines_at_1_1_2_and_3() -> None:
    """Common practice."""
    guard = corner_guard(inches("1 1/2"), inches("4"))
    assert guard.lines == (inches("1 1/2"), inches("3"))
    assert guard.cut_out == inches("3")
    assert guard.side == inches("7")


def test_the_guard_of_a_slab_measured_bare_counts_its_own_board() -> None:
    (guard,) = wrapped("20 x 16 x 1 1/2", layer("corners")).guards
    assert guard.lines == (inches("1 5/8"), inches("3 1/4"))  # 1 1/2 and B board, 1/8


@given(st.integers(8, 640).map(lambda n: SIXTY_FOURTH * n), st.integers(64, 640).map(lambda n: SIXTY_FOURTH * n))
def test_a_folded_guard_covers_side_and_back_and_meets_itself_at_the_corner(thick: Length, reach: Length) -> None:
    """Folded at both lines, the inner strip is as high as the slab, the outer lies on the back, and the face stays."""
    guard = corner_guard(thick, reach)
    wall, back = guard.lines[1] - guard.lines[0], guard.lines[0]
    assert wall == thick
    assert back == thick
    assert guard.side - guard.lines[1] == reach
    assert guard.cut_out == guard.lines[1]


def test_23_flat_pieces_in_3_piles_are_8_8_and_7() -> None:
    """Common practice."""
    assert divide(23, 3) == (8, 8, 7)


@given(st.integers(1, 400), st.integers(1, 40))
def test_piles_are_as_even_as_can_be_and_lose_nothing(count: int, piles: int) -> None:
    if piles > count:
        with pytest.raises(BadInput):
            divide(count, piles)
        return
    parts = divide(count, piles)
    assert sum(parts) == count
    assert max(parts) - min(parts) <= 1
    assert list(parts) == sorted(parts, reverse=True)


@given(st.integers(1, 400), st.integers(1, 60))
def test_no_pile_has_more_than_a_sleeve_holds(count: int, holds: int) -> None:
    piles = divide(count, piles_needed(count, holds))
    assert max(piles) <= holds
    assert len(piles) == 1 or max(divide(count, len(piles) - 1)) > holds


def test_half_of_a_pile_is_turned_about_and_the_dearest_lies_in_the_middle() -> None:
    turn, middle = how_to_pile(8)
    assert turn.startswith("Turn 4 of the 8 about")
    assert "dearest lies in the middle" in middle
    assert how_to_pile(1) == ()
    assert how_to_pile(2)[0].startswith("Turn 1 of the 2 about")


def test_a_count_of_flat_things_is_packed_in_its_piles() -> None:
    part = thing(Box(*sizes("9 x 6 x 1/4")), Mass.of_grams(100), count=23)
    units = units_of(part, (layer("sleeve"),), SHOP, 3)
    assert [unit.pile for unit in units] == [8, 8, 7]
    assert units[0].shape.sizes == sizes("9 x 6 x 2")
    assert units[0].goods_weight.grams == 800
    assert [coat.amount for unit in units for coat in unit.coats] == [1, 1, 1]
    with pytest.raises(BadInput, match="not a flat thing"):
        units_of(thing(Ring(inches("9"), inches("8"), inches("2")), count=4), (), SHOP, 2)


def test_9_lb_at_60_g_wants_1_1_2_in_and_at_30_g_3_in() -> None:
    """T = C h / G: cushion method of MIL-HDBK-304, drop heights of ISTA 1A, C about 3; values from memory."""
    assert cushion_thickness(POUND * 9, 60, Fraction(3)) == inches("1 1/2")
    assert cushion_thickness(POUND * 9, 30, Fraction(3)) == inches("3")


@pytest.mark.parametrize(
    ("pounds", "drop"),
    [(1, 30), (20, 30), (21, 24), (40, 24), (41, 18), (60, 18), (61, 12), (99, 12), (100, 8), (150, 8)],
)  # fmt: skip
def test_drop_heights_step_down_with_weight(pounds: int, drop: int) -> None:
    """ISTA 1A, values from memory; on both sides of every step."""
    assert drop_height(POUND * pounds) == INCH * drop


def test_fragility_classes_join_without_a_gap() -> None:
    """MIL-HDBK-304, values from memory: 15-25, 25-40, 40-60, 60-85, 85-115, over 115 G."""
    assert [(low, high) for _, low, high in CLASSES][:5] == [(15, 25), (25, 40), (40, 60), (60, 85), (85, 115)]
    assert [read_fragility(name) for name, _, _ in CLASSES] == [15, 25, 40, 60, 85, 115]
    assert read_fragility("Very delicate") == 25
    assert read_fragility("72 G") == 72
    with pytest.raises(BadInput):
        read_fragility("4000 G")


def test_the_check_says_so_where_it_and_the_habit_disagree() -> None:
    def says(has: str, fragility: int = 30) -> str:
        return check_cushion(POUND * 9, fragility, Fraction(3), inches(has), "in").says

    assert says("2").startswith(
        "Cushion check: goods that bear 30 G in a parcel of this weight need 3 in, there is 2 in."
    )
    assert "Add gap" in says("2")
    assert "Add gap" not in says("3")
    assert says("3 1/8", 60) == (
        "Cushion check: moderately delicate goods in a parcel of this weight need 1 1/2 in, there is 3 1/8 in: more "
        "than enough."
    )
    assert check_cushion(POUND * 9, 30, Fraction(3), inches("2 63/64"), "in").enough is False


def test_a_packing_that_is_proven_stands_over_the_formula() -> None:
    """Two mugs with board woven between go in 7 x 4 x 4 (common practice)."""
    proven = "two mugs with a woven divider go in a snug box"
    check = check_cushion(POUND * 2, 40, Fraction(3), inches("1/4"), "in", proven)
    assert check.enough
    assert check.says.endswith(f"Practice differs: {proven}.")
    assert "formula asks for 2 1/4 in" in check.says


def test_before_there_is_a_box_all_of_the_goods_are_dropped_at_once() -> None:
    """Four of 12 lb are 48 lb, which fall from less high than one of them alone would (a row of the table further)."""
    for count, weight in ((1, "12 lb"), (4, "48 lb")):
        part = {"name": "jug", "weight": "12 lb", "count": count, "gap": "2 in", "fragility": "delicate",
                "shape": {"kind": "box", "length": "8 in", "width": "6 in", "height": "6 in"}}  # fmt: skip
        job = understand(JobFile.model_validate({"parts": [part]}), SHOP, "10440")
        (checked,) = check_parts(job, SHOP, None)
        assert checked.check is not None
        fragility = job.must_load().units[0].part.fragility
        assert fragility is not None
        assert checked.check.asks == cushion_thickness(read_mass(weight), fragility, SHOP.cushion_factor)


def test_what_does_not_break_is_asked_no_cushion() -> None:
    assert read_fragility("does not break") == NO_LIMIT
    assert SHOP.gap(NO_LIMIT) == inches("1/2")


# --- Lengths to cut, by hand ---------------------------------------------------------------------------------------


def test_two_layers_of_half_inch_bubble_around_a_box_by_hand() -> None:
    """10 x 8 x 6: around the long side the girth is 28. First layer 28 + 8 x 1/2 x 1/2 = 30, second 28 + 8 x 1/2 x 3/2
    = 34, with 10 % overlap 33 and 37.4. Its ends fold in, half the short side at each: 10 + 6 wide; the second goes
    around 11 x 9 x 7, 11 + 7 wide (common practice).
    """
    unit = wrapped("10 x 8 x 6", layer("bubble-large", 2))
    first, second = unit.coats[0].cuts
    assert around(first) == pytest.approx((33, 16))
    assert around(second) == pytest.approx((37.4, 18))
    assert unit.sizes == sizes("12 x 10 x 8")
    # 95 g/m2 at 60.00 a hundred square metres.
    square_m = (33 * 16 + 37.4 * 18) * 0.0254**2
    assert unit.coats[0].weight.grams == pytest.approx(95 * square_m)
    assert unit.coats[0].price.minor == round(60 * square_m)


def test_wound_both_ways_by_hand() -> None:
    """Small bubble, 3/16, two layers each way around 10 x 8 x 6. Long way: 28 + 28 + 8 x 3/16 x (1/2 + 3/2) = 59, 10
    wide. Across, over the first: girth 2 (10 + 6) + 8 x 3/8 / 2 = 33 1/2, twice and 3 more is 70, 8 3/4 wide.
    """
    unit = wrapped("10 x 8 x 6", layer("bubble-small", 2, crossed=True))
    first, second = unit.coats[0].cuts
    assert around(first) == pytest.approx((59 * 1.1, 10))
    assert around(second) == pytest.approx((70 * 1.1, 8.75))
    # Under and over the thing both windings lie on each other, at its sides and ends one of them.
    assert unit.sizes == sizes("10 3/4 x 8 3/4 x 7 1/2")


def test_bands_of_unlike_counts_by_hand() -> None:
    """Three layers one way, two the other, of 3/16 in around 10 x 8 x 6: the ends get two, the long sides three, top
    and bottom five.
    """
    unit = wrapped("10 x 8 x 6", layer("bubble-small", 3, crossed=True, across=2))
    assert unit.sizes == sizes("10 3/4 x 9 1/8 x 7 7/8")
    assert "3 around the long way, 2 across" in unit.says[0]


def test_a_slab_in_two_layers_of_inch_bubble_takes_one_strip_of_the_24_in_roll_a_layer() -> None:
    """19 x 9 x 1 3/4: the first layer is 20 3/4 wide, the second 24 3/4, as it goes around 21 x 11 x 3 3/4; its folded
    ends may lack what presses together. A perforated roll is torn at whole feet (common practice).
    """
    first, second = wrapped("19 x 9 x 1 3/4", layer("bubble-inch", 2, tears_every=inches("12"))).coats[0].cuts
    assert (first.count, around(first)) == (1, (36, 24))
    assert (second.count, around(second)) == (1, (48, 24))
    plain, wide = wrapped("19 x 9 x 1 3/4", replace(layer("bubble-inch", 2), material=WIDE)).coats[0].cuts
    assert (around(plain)[1], around(wide)[1]) == (20.75, 24.75)


def test_tissue_and_film_add_nothing_to_a_size() -> None:
    """Common practice: one could not measure it."""
    assert wrapped("30 x 24 x 1", layer("tissue"), layer("film", 3)).sizes == sizes("30 x 24 x 1")


def test_a_reused_wrap_weighs_and_costs_nothing_again() -> None:
    new, again = (wrapped("10 x 8 x 6", layer("bubble-large", 2, reused=said)).coats[0] for said in (False, True))
    assert (again.price.minor, again.weight, again.cuts) == (0, new.weight, new.cuts)
    assert new.price.minor > 0


def test_what_is_wider_than_the_roll_takes_several_lengths() -> None:
    """Roll 24 in: 40 + 6 = 46 wide takes two."""
    (cut,) = wrapped("40 x 8 x 6", layer("bubble-small")).coats[0].cuts
    assert cut.count == 2
    assert cut.width == inches("24")


def test_around_a_cylinder_the_girth_is_its_circle() -> None:
    unit = wrap_up(thing(Cylinder(inches("4"), inches("12"))), (layer("bubble-small"),), SHOP)
    assert float(unit.coats[0].cuts[0].length.inches) == pytest.approx((4 * math.pi + 4 * 3 / 16) * 1.1)


@given(side, st.integers(1, 12), small)
def test_wound_length_is_the_sum_over_the_layers(girth: Length, layers: int, thick: Length) -> None:
    """Layer i takes girth + 8 x thickness x (i - 1/2) (common practice)."""
    one_by_one = sum(girth.nm + 8 * thick.nm * Fraction(2 * i - 1, 2) for i in range(1, layers + 1))
    assert winding(girth, thick, layers).nm == one_by_one


def test_both_schools_of_the_bubble_side() -> None:
    """Smooth side to the goods, or bubbles to the goods: the shop's habit, and a layer may say otherwise."""
    assert "Smooth side to the goods" in wrapped("9 x 6 x 3", layer("bubble-small")).says[0]
    other = replace(SHOP, bubbles="in")
    said = wrap_up(thing(Box(*sizes("9 x 6 x 3"))), (layer("bubble-small"),), other).says[0]
    assert said.startswith("Bubbles to the goods")
    assert wrapped("9 x 6 x 3", layer("bubble-small", bubbles="in")).says[0] == said
    assert wrapped("9 x 6 x 3", layer("foam-thin")).says == ()  # has no bubbles


def test_pipe_insulation_is_cut_to_the_length_of_each_tube() -> None:
    """A triangle of 1 1/4 in tube with sides 6, 8, 10 between corners, and half a diameter at each end."""
    corner = sizes
    a, b, c = (inches("0"),) * 3, corner("6 x 1 x 1"), corner("6 x 9 x 1")
    frame = bars(inches("1 1/4"), [(a, (b[0], a[1], a[2])), ((b[0], a[1], a[2]), (c[0], inches("8"), a[2])),
                                   ((c[0], inches("8"), a[2]), a)])  # fmt: skip
    coat = wrap_up(thing(frame), (layer("pipe-foam"),), SHOP).coats[0]
    assert [float(cut.length.inches) for cut in coat.cuts] == pytest.approx([11.25, 9.25, 7.25])
    assert float(coat.amount) == pytest.approx((11.25 + 9.25 + 7.25) * 0.0254)


def test_stuffing_fills_the_hole_of_a_ring_or_a_hollow_as_typed() -> None:
    ring = wrap_up(thing(Ring(inches("22"), inches("18"), inches("2"))), (layer("stuffing"),), SHOP)
    assert float(ring.coats[0].amount) == pytest.approx(math.pi * 9**2 * 2 * 2.54**3 / 1000)
    assert ring.sizes == ring.shape.sizes
    hollow = layer("stuffing", hollow=sizes("10 x 4 x 3"))
    inside = wrapped("14 x 6 x 5", hollow).coats[0]
    assert float(inside.amount) == pytest.approx(120 * 2.54**3 / 1000)
    assert inside.room_nm3 == 0  # it takes none of the box's
    with pytest.raises(BadInput, match="hollow is not known"):
        wrapped("14 x 6 x 5", layer("stuffing"))


def test_stiff_faces_are_the_size_of_the_picture_and_grow_only_its_thickness() -> None:
    unit = wrapped("20 x 16 x 1", layer("faces"))
    (cut,) = unit.coats[0].cuts
    assert (cut.count, around(cut)) == (2, (20, 16))
    assert unit.sizes == sizes("20 x 16 x 1 5/16")
    (doubled,) = wrapped("20 x 16 x 1", layer("faces", layers=2)).coats[0].cuts
    assert doubled.count == 4


def test_a_bag_is_as_wide_as_the_two_smaller_sides_and_as_long_as_the_longest_and_the_least() -> None:
    """A 7 x 4 x 4 box wants 8 flat width and 11 flat length, without seams (common practice)."""
    assert flat_size(inches("7"), inches("4"), inches("4")) == (inches("11"), inches("8"))


def test_an_inner_box_floats_with_its_room_inside_and_its_board_outside() -> None:
    unit = wrapped("10 x 8 x 6", layer("inner-box", room=inches("1")))
    board = SHOP.grade("C").caliper
    for axis, (grown, flaps) in enumerate(zip(unit.grown, (1, 1, 2), strict=True)):
        assert grown >= inches("1") + board * flaps, axis
        assert grown <= inches("1") + board * flaps + inches("1/8"), axis  # up to the fence's step
    assert unit.coats[0].cuts[0].width is not None
    assert any("floats" in sentence for sentence in unit.says)


def test_a_wrap_over_an_inner_box_goes_around_the_box() -> None:
    unit = wrap_up(thing(Cylinder(inches("6"), inches("6"))), (layer("inner-box"), layer("bubble-small")), SHOP)
    inner = [side + by * 2 for side, by in zip(unit.shape.sizes, unit.coats[0].growth, strict=True)]
    assert inner[2] == max(inner)  # the case is highest, so it is wound around its sides
    girth = 2 * (inner[0].inches + inner[1].inches)
    assert float(unit.coats[1].cuts[0].length.inches) == pytest.approx(float(girth + 4 * Fraction(3, 16)) * 1.1)


def test_a_liner_covers_all_six_walls() -> None:
    """Inside 10 x 8 x 6 with a half inch liner: the walls of a space 11 x 9 x 7, corners covered once."""
    coat = line_walls(sizes("10 x 8 x 6"), layer("liner-foam"))
    covered = sum(cut.count * cut.length.inches * cut.width.inches for cut in coat.cuts if cut.width)
    half = Fraction(1, 2)
    assert covered * half == 11 * 9 * 7 - 10 * 8 * 6


@pytest.mark.parametrize("code", ["film", "bag", "faces", "inner-box"])
def test_only_what_is_wound_can_be_wound_both_ways(code: str) -> None:
    with pytest.raises(BadInput, match="not wound") as refused:
        wrapped("10 x 8 x 6", layer(code, 2, crossed=True))
    assert refused.value.field == "protect[0].crossed"


# --- The wrapped shape always holds the bare one and every layer ---------------------------------------------------

SUITS_ALL = ("tissue", "film", "bag", "corners", "faces", "edge-foam", "foam-thin", "bubble-small", "bubble-large",
             "pad-foam", "inner-box")  # fmt: skip
any_layer = st.builds(
    lambda code, layers, crossed, room: layer(
        code, layers, crossed=crossed and SHOP.material(code).form == "wrap", room=room
    ),
    st.sampled_from(SUITS_ALL), st.integers(1, 3), st.booleans(), st.sampled_from([inches("0"), inches("1")]),
)  # fmt: skip


@given(shapes, st.lists(any_layer, max_size=4))
def test_wrapped_it_holds_its_bare_shape_and_every_layer(shape: Shape, layers: list[Layer]) -> None:
    unit = wrap_up(thing(shape), tuple(layers), SHOP)
    for axis in range(3):
        grown = sum(coat.growth[axis].nm for coat in unit.coats)
        assert unit.sizes[axis].nm == shape.sizes[axis].nm + 2 * grown
    assert len(unit.coats) == len(layers)
    for coat, put in zip(unit.coats, layers, strict=True):
        thickness = coat.material.thickness.nm  # of an inner box, its board's
        least = put.room.nm + thickness if put.material.form == "box" else thickness
        assert max(by.nm for by in coat.growth) >= (0 if put.material.form == "surface" else least)
        if put.material.form in ("wrap", "bag"):
            assert min(by.nm for by in coat.growth) >= thickness * put.layers
    assert unit.weight == Mass(unit.goods_weight.ng + sum(coat.weight.ng for coat in unit.coats))


@given(shapes, st.lists(any_layer, max_size=3), any_layer)
def test_one_more_layer_never_makes_it_smaller_or_lighter(shape: Shape, layers: list[Layer], more: Layer) -> None:
    without, having = (wrap_up(thing(shape), tuple(put), SHOP) for put in (layers, [*layers, more]))
    assert all(a <= b for a, b in zip(without.sizes, having.sizes, strict=True))
    assert without.weight <= having.weight


@given(st.builds(Disc, side, small), st.integers(1, 12))
def test_a_pile_is_as_thick_as_its_pieces(disc: Disc, pile: int) -> None:
    unit = wrap_up(thing(disc, count=pile), (), SHOP, pile)
    assert unit.shape.sizes[2] == disc.thickness * pile
    assert unit.shape.volume_nm3 == pytest.approx(disc.volume_nm3 * pile, abs=pile)


def test_more_room_below_than_above_is_added_up_on_both_sides() -> None:
    """2 in under it, 1/2 over it, 1 on the four sides."""
    gap = Gap(inches("1"), inches("1"), below=inches("2"), above=inches("1/2"))
    unit = wrap_up(Part("thing", Box(*sizes("10 x 8 x 6")), POUND, gap), (), shop())
    assert unit.with_gap == sizes("12 x 10 x 8 1/2")
