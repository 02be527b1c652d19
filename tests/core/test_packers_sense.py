"""What a packer takes for granted: ends that practitioners reach by hand, and proposals nobody would make.

Sizes of the ends are common practice. The goods are the kinds as they come, so that a kind out of calibration fails.
"""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from functools import cache

import pytest

from fardo.core.arrange.ask import Arrangement, Ask
from fardo.core.arrange.body import Body, stance
from fardo.core.arrange.initial_layout import initial_layout
from fardo.core.arrange.manual import faults
from fardo.core.goods.gap import NO_GAP, Gap
from fardo.core.goods.part import Sizes
from fardo.core.goods.shape import Box
from fardo.core.make import WAYS, make_box
from fardo.core.make.stock import Stock, StockBox
from fardo.core.plan.box import box_for, boxes_at_hand
from fardo.core.plan.load import APART_BY, Load, ask_of
from fardo.core.plan.needed import may_be_turned
from fardo.core.plan.picture import LookedAt, Picture, draw_up
from fardo.core.quantity import INCH, POUND, ZERO, Length, Mass, Money, read_mass
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import JobFile, PartEntry, Ship
from fardo.files.kind import shipped_kinds, start_job
from fardo.files.shop import starting_shop
from fardo.files.typed import ExtraEntry
from fardo.files.understood import understand
from tests import arrangement_checked
from tests.made_up import allowances, box, inches, job, part, services, shop, sizes

KINDS = {kind.code: kind for kind in shipped_kinds()}


@cache
def of_kind(code: str) -> Picture:
    """A job begun from a kind, its questions answered so that it ships, sent to a home."""
    job = start_job(KINDS[code], "", starting_shop())
    job = job.model_copy(update={"ship": Ship(to="73120", residential=True)})
    return draw_up(understand(job, shop(), "10440"), shop(), Carriers(services()))


def needed(picture: Picture) -> list[float]:
    """The sides of the inside that is asked for, inches, the longest first."""
    assert picture.inside is not None
    return sorted((float(side.inches) for side in picture.inside[0].inside), reverse=True)


def typed(**said: object) -> JobFile:
    return JobFile.model_validate({"ship": {"to": "73120"}, **said})


def drawn(job: JobFile, looked_at: str = "") -> Picture:
    return draw_up(understand(job, shop(), "10440"), shop(), Carriers(services()), LookedAt.read(looked_at))


# --- Ends that can be checked --------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("kind", "box"),
    [("pottery", "shelf 7 x 4 x 4"), ("framed-picture", "flat 24 x 20 x 4"), ("laptop", "flat 18 x 12 x 4"),
     ("shoes", "shelf 14 x 10 x 6")],
)  # fmt: skip
def test_what_comes_first_is_the_box_that_packers_reach_for(kind: str, box: str) -> None:
    first = of_kind(kind).ways[0]
    assert (first.way, first.item) == ("shelf", box)


ABOUT: list[tuple[str, list[float], list[float]]] = [
    # kind, the least and the most of each side, longest first
    ("sleeved-flats", [12.5, 9, 7], [12.75, 9.25, 8.25]),
    ("bicycle", [54, 28, 8], [57, 31, 13]),
    ("articulated-model", [33, 20, 15], [39, 24.5, 20]),
]


@pytest.mark.parametrize(("kind", "least", "most"), ABOUT)
def test_the_inside_is_about_what_packers_come_to(kind: str, least: list[float], most: list[float]) -> None:
    sides = needed(of_kind(kind))
    assert all(low <= side <= high for low, side, high in zip(least, sides, most, strict=True)), sides


def test_a_35_inch_golf_bag_goes_in_three_14_14_12_boxes_pressed_home() -> None:
    picture = of_kind("golf-bag")
    stacks = {one.made.item: one for one in boxes_at_hand("stack", picture.job, picture.shop)}
    cubes = stacks["cube 14 x 14 x 12 x 3"]
    assert cubes.made.inside[2] == inches("36")
    assert sum("Press it home" in step.do for step in cubes.made.steps) == 2
    # Two of the taller ones that the shop has too are as long, with a joint less, and cost less.
    first = picture.way("stack")
    assert first is not None
    assert first.item == "tall 14 x 14 x 18 x 2"
    assert first.boxed.made.outside == cubes.made.outside
    assert first.boxed.own < cubes.own


def test_of_several_boxes_there_the_cheapest_in_all_is_proposed() -> None:
    """Not the smallest: the next larger one that costs less is as good, until somebody picks one."""
    picture = drawn(typed(parts=[LAMP]), "")
    for name in ("shelf", "stash", "recut"):
        way = picture.way(name)
        assert way is not None
        there = [one for one in drawn(typed(parts=[LAMP]), name).at_hand if one.cheapest]
        assert way.cheapest == min(one.cheapest for one in there if one.cheapest)
        assert (way.way, way.item) == (there[0].way, there[0].item)
    assert any(
        drawn(typed(parts=[LAMP]), name).at_hand[0].item != boxes_at_hand(name, picture.job, picture.shop)[0].made.item
        for name in ("shelf", "stash", "recut")
    )


def test_twelve_6_inch_cubes_make_a_block() -> None:
    cube = Body("cube", Box(INCH * 6, INCH * 6, INCH * 6))
    assert sorted(side.inches for side in initial_layout(Ask((cube,) * 12)).inside) == [12, 12, 18]


def test_six_canvases_of_four_sizes_stand_thickness_after_thickness() -> None:
    """The largest 30 x 24; each stays upright, nothing on top, half an inch at the faces: near 31 x 13 x 26."""
    gap = Gap(inches("1/2"), ZERO, edges=inches("1/2"), faces=inches("1/2"))
    flats = [("30", "24"), ("24", "20"), ("24", "20"), ("20", "16"), ("20", "16"), ("16", "12")]
    bodies = tuple(
        Body(f"canvas {n}", Box(inches(wide), inches("1 7/8"), inches(high)), gap, this_side_up=True, bears=Mass(0))
        for n, (wide, high) in enumerate(flats)
    )
    answer = initial_layout(Ask(bodies, apart_by=APART_BY))
    assert arrangement_checked.faults(Ask(bodies, apart_by=APART_BY), answer) == []
    length, width, height = (float(side.inches) for side in answer.inside)
    assert (length, height) == (31, 25)
    assert 12 <= width <= 13


def test_typed_pictures_stand_beside_each_other_and_not_on_each_other() -> None:
    """What stands on an edge carries nothing (common practice); said otherwise, it does."""

    def picture(wide: str, high: str, count: int = 1, **rules: object) -> dict[str, object]:
        return {"name": f"picture {wide}", "weight": "3 lb", "count": count, "gap": "1/2 in",
                "rules": {"this_side_up": True, **rules},
                "shape": {"kind": "box", "length": wide, "width": "1 1/2 in", "height": high}}  # fmt: skip

    six = [picture("30 in", "24 in"), picture("24 in", "18 in", 2), picture("20 in", "16 in", 2),
           picture("14 in", "11 in")]  # fmt: skip
    beside = drawn(typed(parts=six)).inside
    assert beside is not None
    assert [float(side.inches) for side in beside[0].inside][2] == 25
    for one in six:
        one["rules"] = {"this_side_up": True, "bears": "30 lb"}
    stacked = drawn(typed(parts=six)).inside
    assert stacked is not None
    assert float(stacked[0].inside[2].inches) > 25


# --- Side by side obeys every rule ----------------------------------------------------------------------------------


def laid_out(*bodies: Body) -> tuple[Arrangement, Ask]:
    ask = Ask(bodies, apart_by=APART_BY)
    answer = initial_layout(ask)
    assert arrangement_checked.faults(ask, answer) == []
    return answer, ask


def slab(name: str, size: str, **said: object) -> Body:
    return replace(Body(name, Box(*sizes(size)), weight=POUND), **said)


def test_nothing_lies_on_what_bears_nothing() -> None:
    deck = slab("deck", "18 x 14 x 7", this_side_up=True, bears=Mass(0), gap=Gap.even(inches("1")))
    platter = slab("platter", "12 x 12 x 1", keep_flat=True, gap=Gap.even(inches("1")))
    answer, _ = laid_out(deck, platter)
    low = [laid.at for laid in answer.laid if laid]
    assert max(abs(low[0][axis].mm - low[1][axis].mm) for axis in range(2)) > 0
    assert low[1][2] == inches("1")


def test_no_more_lies_on_a_thing_than_it_bears() -> None:
    """Two pounds may lie on it, so that of four pounds in all two stand beside."""
    base = slab("base", "12 x 12 x 4", bears=POUND * 2, this_side_up=True)
    laid_out(base, *(slab(f"book {n}", "12 x 12 x 1", weight=POUND) for n in range(4)))


def test_what_must_not_lie_beside_each_other_is_kept_apart() -> None:
    """The checker measures the distance between the two in the answer."""
    answer, ask = laid_out(slab("magnet", "4 x 4 x 4", apart=frozenset({"tape reel"})), slab("tape reel", "4 x 4 x 1"))
    assert ask.room(0, 1) == APART_BY
    assert max(answer.inside) >= inches("5") + APART_BY


def test_what_is_packed_as_one_touches() -> None:
    tied = {"bundle": "frame", "gap": Gap(inches("3"), ZERO)}
    answer, _ = laid_out(slab("trunk", "20 x 10 x 8", **tied), slab("limb", "20 x 3 x 8", **tied))
    assert answer.inside == sizes("26 x 19 x 14")


def test_piles_touch_unless_a_gap_between_is_said() -> None:
    flat = {"name": "flat", "count": 12, "weight": "4 oz", "piles": 3, "gap": "1 in",
            "shape": {"kind": "box", "length": "10 in", "width": "7 in", "height": "1/4 in"}}  # fmt: skip
    touching = understand(typed(parts=[flat]), shop(), "10440").must_load()
    apart = understand(typed(parts=[{**flat, "gap": {"wall": "1 in", "between": "1/2 in"}}]), shop(), "10440")
    heights = [initial_layout_of(one).inside for one in (touching, apart.must_load())]
    assert heights == [sizes("12 x 9 x 5"), sizes("12 x 9 x 6")]


def initial_layout_of(load: Load) -> Arrangement:
    return initial_layout(ask_of(load))


@pytest.mark.parametrize(
    ("count", "size", "longest"),
    [(12, "4 x 4 x 4", 12), (60, "6 x 4 1/2 x 1", 18), (7, "6 x 6 x 6", 12), (20, "8 x 3 x 2", 16)],
)
def test_like_things_make_a_block_and_no_column(count: int, size: str, longest: int) -> None:
    thing = Body("tin", Box(*sizes(size)), NO_GAP, weight=POUND)
    answer = initial_layout(Ask((thing,) * count))
    assert max(side.inches for side in answer.inside) <= longest
    room = float(answer.inside[0].inches * answer.inside[1].inches * answer.inside[2].inches)
    alone = float(stance(thing, ((1, 0, 0), (0, 1, 0), (0, 0, 1))).sizes[0].inches)
    assert room <= 1.25 * count * alone * float(thing.sizes[1].inches * thing.sizes[2].inches)


# --- Slips, cards, and what is no fragile thing --------------------------------------------------------------------

CUBE_FOOT = {"name": "reel", "weight": "5 lb", "gap": "1/2 in",
             "shape": {"kind": "box", "length": "11 in", "width": "10 in", "height": "4 in"}}  # fmt: skip


def test_a_slip_is_folded_or_lies_on_top_and_sizes_no_parcel() -> None:
    slip = ExtraEntry(name="packing slip", size="13 x 9 x 1/8 in", weight="1 oz")
    bare, with_slip = (drawn(typed(parts=[CUBE_FOOT], extras=extras)) for extras in ([], [slip.model_dump()]))
    assert bare.inside is not None
    assert with_slip.inside is not None
    assert with_slip.inside[0].inside == bare.inside[0].inside
    assert with_slip.job.must_load().last_in[0].name == "packing slip"
    assert with_slip.ways[0].boxed.weights.extras == read_mass("1 oz")


def test_a_bottle_takes_room_of_its_own_and_so_does_a_slip_that_must_not_be_folded() -> None:
    for said in ({"size": "4 x 2 x 2 in"}, {"size": "13 x 9 x 1/8 in", "lies_flat": False}):
        with_it = drawn(typed(parts=[CUBE_FOOT], extras=[{"name": "thing", **said}]))
        assert with_it.inside is not None
        assert with_it.inside[0].room_nm3 > drawn(typed(parts=[CUBE_FOOT])).inside[0].room_nm3  # type: ignore[index]


@pytest.mark.parametrize("code", sorted(KINDS))
def test_no_kind_fails_its_own_check_or_breaks_its_own_rules(code: str) -> None:
    picture = of_kind(code)
    assert [part.caution for part in picture.parts if part.caution] == []
    load = picture.job.must_load()
    assert arrangement_checked.faults(ask_of(load), initial_layout(ask_of(load))) == []


@pytest.mark.parametrize("code", sorted(KINDS))
def test_no_kind_opens_with_a_box_that_cannot_be_cut(code: str) -> None:
    job = start_job(KINDS[code], "", starting_shop())
    before_any_postcode = draw_up(understand(job, shop(), "10440"), shop(), Carriers(services()))
    for picture in (of_kind(code), before_any_postcode):
        assert picture.current is not None
        assert picture.current.boxed.too_large is None
    assert all(plan.costs.total.minor for plan in of_kind(code).ways[0].plans[:1])


@pytest.mark.parametrize("code", sorted(KINDS))
@pytest.mark.parametrize("count", [1, 3, 6, 12])
def test_any_number_of_a_kind_can_be_laid_out_by_its_rules(code: str, count: int) -> None:
    job = start_job(KINDS[code], "", starting_shop())
    first: PartEntry = job.parts[0].model_copy(update={"count": count})
    read = understand(job.model_copy(update={"parts": [first, *job.parts[1:]]}), shop(), "10440")
    load = read.must_load()
    assert faults(ask_of(load), initial_layout(ask_of(load))) == []


@pytest.mark.parametrize("code", sorted(KINDS))
def test_every_kind_stays_sensible_with_each_measure_half_an_inch_larger(code: str) -> None:
    """It still holds, keeps its rules and its check, and its sides grow by little more than that; of what is piled each
    piece is half an inch thicker.
    """
    job = start_job(KINDS[code], "", starting_shop())
    for one in job.parts:
        for name, said in one.shape:
            if name != "kind" and isinstance(said, str):
                setattr(one.shape, name, f"{said.removesuffix(' in')} + 1/2 in")
    job = job.model_copy(update={"ship": Ship(to="73120", residential=True)})
    larger = draw_up(understand(job, shop(), "10440"), shop(), Carriers(services()))
    assert not larger.problems, larger.problems
    assert larger.ways, code
    assert not [part.caution for part in larger.parts if part.caution]
    piled = sum(unit.pile for part in larger.parts for unit in part.part.units if unit.pile > 1)
    for more, before in zip(needed(larger), needed(of_kind(code)), strict=True):
        assert more <= before * 1.35 + 2 + piled / 2


# --- Boxes at hand -------------------------------------------------------------------------------------------------

LAMP = {"name": "lamp", "weight": "3 lb", "gap": "1/2 in", "shape": {"kind": "box", "length": "10 in", "width": "8 in",
        "height": "6 in"}}  # fmt: skip


def test_every_box_there_that_takes_the_goods_is_a_candidate_with_its_price_and_room() -> None:
    picture = drawn(typed(parts=[LAMP]), "shelf")
    assert picture.current is not None
    items = [one.item for one in picture.at_hand]
    assert {"shelf 12 cube", "shelf 18 x 14 x 12", "cube 14 x 14 x 12"} <= set(items)
    sums = [one.cheapest.minor for one in picture.at_hand if one.cheapest]
    assert sums == sorted(sums)
    cube = next(one for one in picture.at_hand if one.item == "shelf 12 cube")
    assert dict(cube.boxed.room_left) == {
        "left": inches("1"), "right": inches("1"), "front": inches("2"), "back": inches("2"),
        "below": inches("1/2"), "above": inches("5 1/2"),
    }  # fmt: skip


def test_any_of_them_can_be_chosen_and_stays_so_until_it_is_outgrown() -> None:
    job = typed(parts=[LAMP], chosen={"box": {"way": "shelf", "board": "C", "inside_mm": [279.4, 228.6, 177.8],
                                              "item": "shelf 18 x 14 x 12"}})  # fmt: skip
    read = understand(job, shop(), "10440")
    assert box_for("shelf", read, shop()).made.item == "shelf 18 x 14 x 12"
    assert box_for("shelf/shelf 12 cube", read, shop()).made.item == "shelf 12 cube"
    assert {knot.name: knot.state for knot in drawn(job, "").knots}["box"] == "tied"
    larger = {**LAMP, "shape": {**LAMP["shape"], "length": "20 in"}}  # type: ignore[dict-item]
    grown = understand(job.model_copy(update={"parts": [PartEntry.model_validate(larger)]}), shop(), "10440")
    assert box_for("shelf", grown, shop()).made.item != "shelf 18 x 14 x 12"


def test_the_boxes_of_a_way_looked_at_are_told_while_another_is_chosen() -> None:
    tray = typed(parts=[LAMP], chosen={"box": {"way": "tray", "board": "C", "inside_mm": [279.4, 228.6, 177.8]}})
    picture = drawn(tray, "shelf")
    assert picture.current is not None
    assert picture.current.way == "tray"
    assert {one.way for one in picture.at_hand} == {"shelf"}
    assert len(picture.at_hand) > 2


def test_what_floats_stands_in_the_middle_of_its_height_too() -> None:
    floated = {**LAMP, "gap": "2 in"}
    boxes = boxes_at_hand("shelf", understand(typed(parts=[floated]), shop(), "10440"), shop())
    large = next(one for one in boxes if one.made.item == "shelf 18 x 14 x 12")
    room = dict(large.room_left)
    assert room["below"] == room["above"] == inches("3")


def test_a_box_short_by_less_than_the_wrap_gives_is_taken_and_the_press_said() -> None:
    """Two layers of large bubble that measure 12 1/16 go into a 12 in box (common practice)."""
    soft = {"name": "stem", "weight": "2 lb", "gap": "0", "protect": [{"material": "bubble-large", "layers": 2}],
            "shape": {"kind": "box", "length": "10 1/16 in", "width": "8 in", "height": "6 in"}}  # fmt: skip
    boxed = box_for("shelf", understand(typed(parts=[soft]), shop(), "10440"), shop())
    assert boxed.made.item == "shelf 12 cube"
    pressed = next(step for step in boxed.made.steps if "Press the goods in" in step.do)
    assert pressed.measures == (inches("1/16"),)
    hard = {**soft, "protect": [{"material": "foam-thin", "layers": 8}]}
    assert box_for("shelf", understand(typed(parts=[hard]), shop(), "10440"), shop()).made.item != "shelf 12 cube"


# --- Ways that fit the goods ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("way", [way for way in WAYS if getattr(WAYS[way], "OPENS", "top") == "end"])
@pytest.mark.parametrize("said", [{"gap": "2 in"}, {"rules": {"this_side_up": True}}, {"fragility": "delicate"}])
def test_what_opens_at_its_end_is_no_proposal_for_what_floats_or_stays_upright(
    way: str, said: dict[str, object]
) -> None:
    read = understand(typed(parts=[{**LAMP, **said}]), shop(), "10440")
    with pytest.raises(NoAnswer, match="packed from above"):
        box_for(way, read, shop())


@pytest.mark.parametrize(("way", "long"), [("tube", "18 in"), ("stack", "30 in")])
def test_what_is_not_long_is_neither_slid_into_a_tube_nor_into_a_stack(way: str, long: str) -> None:
    def refused(length: str) -> str:
        rod = {"name": "rods", "weight": "3 lb", "gap": "0", "shape": {"kind": "box", "length": length,
               "width": "9 in", "height": "5 in"}}  # fmt: skip
        stocked = replace(shop(), stock=Stock((StockBox("low", sizes("10 x 6 x 7"), shop().grade("C"), Money(90, "USD"),
                                                        9, False),)))  # fmt: skip
        try:
            box_for(way, understand(typed(parts=[rod]), stocked, "10440"), stocked)
        except NoAnswer as none:
            return str(none)
        return ""

    assert "for what is long" in refused("12 in")
    assert refused(long) == ""  # a tube takes what is twice as long as it is wide


def test_nine_boxes_one_in_another_are_no_stack() -> None:
    pole = {"name": "pole", "weight": "3 lb", "gap": "0", "shape": {"kind": "box", "length": "60 in", "width": "9 in",
            "height": "5 in"}}  # fmt: skip
    low = StockBox("low", sizes("10 x 6 x 7"), shop().grade("C"), Money(90, "USD"), 20, False)
    stocked = replace(shop(), stock=Stock((low,)))
    with pytest.raises(NoAnswer, match="so many joints do not hold"):
        box_for("stack", understand(typed(parts=[pole]), stocked, "10440"), stocked)


def test_a_triangular_tube_lies_along_the_long_side_however_it_was_typed() -> None:
    lying, standing = (make_box("triangle", sizes(size), shop().grade("C"), allowances())
                       for size in ("51 x 5 x 5", "5 x 5 x 51"))  # fmt: skip
    assert standing.blanks == lying.blanks
    assert max(standing.outside) < inches("52")


def stacked(inside: str, goods: str, count: int = 6) -> str:
    stock = Stock((StockBox("one", sizes(inside), shop().grade("C"), Money(100, "USD"), count, False),))
    made = make_box("stack", sizes(goods), shop().grade("C"), allowances(), "exact", stock)
    return " ".join(step.do for step in made.steps)


def test_a_stack_is_pressed_home_and_never_pulled_by_less_than_half_an_inch() -> None:
    assert "Pull" not in stacked("14 x 14 x 12", "13 x 13 x 36")
    for over in ("36 1/16", "36 1/2"):
        stock = Stock((StockBox("one", sizes("14 x 14 x 12"), shop().grade("C"), Money(100, "USD"), 6, False),))
        made = make_box("stack", sizes(f"13 x 13 x {over}"), shop().grade("C"), allowances(), "exact", stock)
        pulls = [step.measures[0] for step in made.steps if "Pull it up" in step.do]
        assert pulls == [inches("1/2")] * 2


def test_flat_boxes_are_not_stacked_for_what_is_no_longer_than_they_are_wide() -> None:
    with pytest.raises(NoAnswer, match="for what is long, and these goods are not"):
        stacked("24 x 20 x 4", "13 x 13 x 13")


def test_a_way_cut_from_sheet_needs_no_stock() -> None:
    """Without any box there the ways from sheet are there all the same."""
    bare = replace(shop(), stock=Stock())
    picture = draw_up(understand(typed(parts=[LAMP]), bare, "10440"), bare, Carriers(services()))
    assert {"slotted", "tray"} <= {way.way for way in picture.ways}
    inside: Sizes = picture.ways[0].boxed.made.inside
    assert all(side > Length(0) for side in inside)


def test_a_box_that_is_trusted_with_less_than_it_weighs_is_no_first_proposal() -> None:
    """A re-cut box is trusted with half of its certificate: cheaper or not, it stands after those that hold it."""
    picture = of_kind("sewing-machine")
    overloaded = [way.boxed.strength.overloaded for way in picture.ways if way.cheapest]
    assert overloaded == sorted(overloaded)
    assert not overloaded[0]
    recut = picture.way("recut")
    first = picture.ways[0]
    assert recut is not None
    assert recut.boxed.strength.overloaded
    assert recut.cheapest is not None
    assert first.cheapest is not None
    assert recut.cheapest < first.cheapest


@pytest.mark.parametrize(
    ("count", "way", "item"),
    [(1, "mailer", "paper envelope 6 x 9"), (4, "mailer", "paper envelope 6 x 9"), (5, "mailer", "rigid mailer 6 x 8"),
     (6, "mailer", "padded mailer 7 x 9"), (12, "mailer", "padded mailer 7 x 9"), (40, "mailer", "padded mailer 7 x 9"),
     (60, "shelf", "shelf 9 x 6 x 4")],
)  # fmt: skip
def test_cards_go_up_a_ladder_by_their_count(count: int, way: str, item: str) -> None:
    """Up to four in an envelope, five in a rigid mailer, more in a padded one, many in a box (common practice)."""
    job = start_job(KINDS["cards-stationery"], "", starting_shop())
    first = job.parts[0].model_copy(update={"count": count})
    picture = drawn(job.model_copy(update={"parts": [first, *job.parts[1:]], "ship": Ship(to="73120")}))
    assert (picture.ways[0].way, picture.ways[0].item) == (way, item)


def test_five_boxes_one_in_another_still_hold_and_six_do_not() -> None:
    low = StockBox("low", sizes("10 x 6 x 7"), shop().grade("C"), Money(90, "USD"), 20, False)
    stocked = replace(shop(), stock=Stock((low,)))
    counts = []
    for length in range(20, 60, 2):
        pole = {"name": "pole", "weight": "3 lb", "gap": "0",
                "shape": {"kind": "box", "length": f"{length} in", "width": "9 in", "height": "5 in"}}  # fmt: skip
        with suppress(NoAnswer):
            made = box_for("stack", understand(typed(parts=[pole]), stocked, "10440"), stocked).made
            counts.append(sum(one.count for one in made.taken))
    assert counts == sorted(counts)
    assert counts[-1] == 5


def test_a_gap_below_stays_below_in_a_box_that_would_take_the_goods_on_their_side() -> None:
    said = {"wall": "1 in", "below": "3 in"}
    tall = part(shape=box(length="8 in", width="6 in", height="20 in"), gap=said)
    boxed = box_for("slotted", understand(JobFile.model_validate(job(parts=[tall], extras=[])), shop()), shop())
    room = dict(boxed.room_left)
    assert (room["below"], room["above"], room["left"]) == (inches("3"), inches("1"), inches("1"))
    even = understand(JobFile.model_validate(job(parts=[part(shape=tall["shape"], gap="1 in")], extras=[])), shop())
    assert may_be_turned(even.must_load())
    assert not may_be_turned(boxed.load)
