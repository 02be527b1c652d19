"""Boxes found for a job, worn ones, a maker's own inserts, boxes of stock around a part, cells, what is sold ready."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

import pytest

from fardo.core.arrange.body import stance
from fardo.core.board.wear import WEAR, left_of
from fardo.core.make.allowances import SLIP
from fardo.core.make.stock import Stock
from fardo.core.plan.box import box_for, boxes_at_hand
from fardo.core.plan.boxed import box_up
from fardo.core.plan.into import boxes_to_pack_in
from fardo.core.plan.job import Job
from fardo.core.plan.load import bodies_of
from fardo.core.plan.needed import inside_of
from fardo.core.plan.picture import LookedAt, Picture, draw_up
from fardo.core.plan.shop import Shop
from fardo.core.protect.material import Layer
from fardo.core.quantity import ZERO, Money
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import JobFile
from fardo.files.kind import shipped_kinds, start_job
from fardo.files.shop import starting_shop
from fardo.files.understood import understand
from tests.core.test_packers_sense import drawn
from tests.made_up import inches, services, shop, sizes

LAMP = {"name": "lamp", "weight": "3 lb", "gap": "1 in", "fragility": "delicate",
        "shape": {"kind": "box", "length": "10 in", "width": "8 in", "height": "6 in"},
        "protect": [{"material": "bubble-small", "layers": 2}]}  # fmt: skip


def file(**said: Any) -> JobFile:
    return JobFile.model_validate({"ship": {"to": "73120"}, "parts": [LAMP], **said})


def read(**said: Any) -> Job:
    return understand(file(**said), shop(), "10440")


def bare() -> Shop:
    """A shop with no boxes."""
    return replace(shop(), stock=Stock())


# --- Found and worn -------------------------------------------------------------------------------------------------


def test_a_box_found_for_the_job_is_a_candidate_under_its_own_name() -> None:
    found = {"name": "spindle carton", "inside": "16 x 12 x 12 in"}
    boxed = box_for("stash/spindle carton", read(found_boxes=[found]), bare())
    assert boxed.made.item == "spindle carton"
    assert boxed.box == Money(0, "USD")
    assert boxed.made.condition == "used"
    with pytest.raises(NoAnswer, match="there is none"):
        box_for("stash", read(), bare())


def test_a_found_box_that_is_begun_keeps_all_else_worked_out() -> None:
    job = read(found_boxes=[{"name": "spindle carton"}])
    assert job.load is not None
    assert job.unfinished == ("inside of spindle carton",)
    assert not read(found_boxes=[{}]).unfinished
    (wrong,) = read(found_boxes=[{"inside": "wide"}]).problems
    assert wrong.field == "found_boxes[0].inside"


def test_each_answer_of_wear_takes_its_share_and_a_soft_box_is_not_used_again() -> None:
    assert left_of([]) == 1
    assert left_of(["crushed", "torn"]) == Fraction(56, 100)
    assert left_of(["again", "damp"]) == 0
    assert {code for code, wear in WEAR.items() if not wear.keeps} == {"damp"}

    def stands(*worn: str) -> float:
        found = {"name": "carton", "inside": "16 x 12 x 12 in", "worn": list(worn)}
        return box_for("stash", read(found_boxes=[found]), bare()).strength.compression

    assert stands("crushed") == pytest.approx(stands() * 0.8)
    assert stands("crushed", "torn", "again") == pytest.approx(stands() * 0.448)
    with pytest.raises(NoAnswer, match="carton would hold it, and it is soft or was wet"):
        stands("damp")


def test_a_worn_box_is_trusted_with_less_weight() -> None:
    heavy = {**LAMP, "weight": "40 lb"}
    found = {"name": "carton", "inside": "16 x 12 x 12 in"}
    sound = box_for("stash", read(parts=[heavy], found_boxes=[found]), bare())
    worn = box_for("stash", read(parts=[heavy], found_boxes=[{**found, "worn": ["torn"]}]), bare())
    assert not sound.strength.warnings  # 65 lb x 70 % is 45
    assert "trusted with 49%" in worn.strength.warnings[0]


# --- A maker's own inserts ------------------------------------------------------------------------------------------


def test_a_makers_box_takes_the_bare_goods_in_its_inserts() -> None:
    """In their own inserts they go with no wrap and no gap, and the cushion check stands back."""
    found = {"name": "maker's box", "inside": "16 x 14 x 12 in", "hollow": "10 1/2 x 8 1/2 x 6 1/2 in"}
    job = file(found_boxes=[found])
    picture = drawn(job, "stash/maker's box")
    (boxed,) = (way.boxed for way in picture.ways if way.item == "maker's box")
    assert boxed.coats == ()
    assert boxed.made.needed == sizes("10 x 8 x 6")
    assert dict(boxed.room_left)["left"] == inches("3")
    chosen = {"box": {"way": "stash", "board": "C", "inside_mm": [254, 203.2, 152.4], "item": "maker's box"}}
    (part,) = drawn(job.model_copy(update={"chosen": JobFile.model_validate({"chosen": chosen}).chosen})).parts
    assert part.check is not None
    assert part.check.enough
    too_small = {**found, "hollow": "10 1/2 x 8 1/2 x 5 in"}
    with pytest.raises(NoAnswer, match=r"1 in .* not high enough"):
        box_for("stash", read(found_boxes=[too_small]), bare())


def test_inserts_are_no_larger_than_their_box() -> None:
    (wrong,) = read(found_boxes=[{"inside": "10 x 8 x 6", "hollow": "11 x 8 x 6"}]).problems
    assert wrong.field == "found_boxes[0].hollow"


def test_a_makers_box_is_neither_made_over_nor_telescoped() -> None:
    found = {"name": "maker's box", "inside": "30 x 20 x 20 in", "hollow": "4 x 4 x 4 in"}
    for way in ("recut", "stack", "end-to-end"):
        with pytest.raises(NoAnswer):
            box_for(way, read(found_boxes=[found]), bare())


# --- Fit into -------------------------------------------------------------------------------------------------------


def test_each_box_there_says_which_side_is_short_and_by_how_much() -> None:
    """Wrapped and with its gap the lamp needs 12 3/4 x 10 3/4 x 8 3/4 in."""
    job = read(found_boxes=[{"name": "low carton", "inside": "14 x 12 x 8 in"}])
    found = {one.box.name: one for one in boxes_to_pack_in(job, shop())}
    low = found["low carton"]
    assert (low.takes_it, low.side) == (False, "high")
    load = job.load
    assert load is not None
    assert low.short == inches("3/4") - load.gives
    assert found["shelf 18 x 14 x 12"].takes_it
    high = inches("8 3/4") - load.gives
    just = {one.box.name: one for one in boxes_to_pack_in(
        read(found_boxes=[{"name": "just so", "inside": f"14 x 12 x {float(high.inches)} in"}]), shop()
    )}["just so"]  # fmt: skip
    assert (just.short, just.takes_it) == (ZERO, True)
    order = [one.takes_it for one in boxes_to_pack_in(job, shop())]
    assert order == sorted(order, reverse=True)


# --- Inner boxes ----------------------------------------------------------------------------------------------------


def inner(**said: Any) -> Job:
    return read(parts=[{**LAMP, "protect": [{"material": "inner-box", "room": "1 in", **said}]}])


def test_a_box_of_the_shelf_is_a_box_of_its_own_for_a_part() -> None:
    """12 x 12 x 12 of C board around 10 x 8 x 6: outside 12 5/16 x 12 5/16 x 12 5/8, its price and its weight."""
    (unit,) = inner(item="shelf 12 cube").parts[0].units
    assert unit.sizes == sizes("12 5/16 x 12 5/16 x 12 5/8")
    (coat,) = unit.coats
    box = next(one for one in shop().stock.boxes if one.name == "shelf 12 cube")
    assert (coat.price, coat.weight) == (box.price, box.weight)
    assert unit.wrap_cushion == inches("1")


def test_an_open_shell_need_not_shut() -> None:
    """Without its top flaps it is two boards lower, and what is in it may look out."""
    (unit,) = inner(item="shelf 12 cube", open=True).parts[0].units
    assert unit.sizes == sizes("12 5/16 x 12 5/16 x 12 5/16")
    tall = {**LAMP, "shape": {**LAMP["shape"], "height": "14 in"}}  # type: ignore[dict-item]
    shell = {"material": "inner-box", "item": "shelf 12 cube", "room": "0 in", "open": True}
    job = read(parts=[{**tall, "protect": [shell]}])
    assert not job.problems
    assert job.parts[0].units[0].sizes[2] == inches("14 5/16")
    (refused,) = read(parts=[{**tall, "protect": [{**shell, "open": False}]}]).problems
    assert refused.field == "parts[0].protect[0].item"
    assert "not high enough" in str(refused)


def test_what_is_in_a_box_of_its_own_gives_nothing_and_takes_no_more_boxes_than_there_are() -> None:
    bubble = {"material": "bubble-large", "layers": 2}
    soft = read(parts=[{**LAMP, "protect": [bubble]}]).parts[0].units[0]
    boxed = read(parts=[{**LAMP, "protect": [bubble, {"material": "inner-box"}]}]).parts[0].units[0]
    outside = read(parts=[{**LAMP, "protect": [{"material": "inner-box"}, bubble]}]).parts[0].units[0]
    assert soft.gives == outside.gives == inches("1/4")
    assert boxed.gives == inches("0")
    there = next(one for one in shop().stock.boxes if one.name == "large 36 x 24 x 18")
    many = {**LAMP, "count": there.count + 1, "protect": [{"material": "inner-box", "item": there.name}]}
    (refused,) = read(parts=[many]).problems
    assert str(refused).startswith(f"parts[0].protect[0].item: read '{there.name}', there are {there.count}, and")


def test_several_inner_boxes_float_in_one_outer_box_and_are_drawn() -> None:
    job = read(parts=[{**LAMP, "count": 2, "gap": {"wall": "2 in", "between": "1 in"},
                       "protect": [{"material": "inner-box", "item": "shelf 12 cube"}]}])  # fmt: skip
    boxed = box_for("slotted", job, shop())
    room = dict(boxed.room_left)
    assert {room[side] for side in ("left", "right", "front", "back", "below", "above")} == {inches("2")}
    assert job.load is not None
    assert [body.boxed for body in bodies_of(job.load)] == [True, True]


# --- Cells of a divider ---------------------------------------------------------------------------------------------


T = shop().grade("C").caliper
JAR = {"name": "jar", "weight": "10 oz", "gap": "1/4 in",
       "shape": {"kind": "cylinder", "diameter": "3 3/16 in", "length": "4 in"}}  # fmt: skip


def jars(count: int, **divider: Any) -> Job:
    return read(parts=[{**JAR, "count": count}], inserts=[{"kind": "divider", **divider}])


@pytest.mark.parametrize(("count", "cells"), [(2, (2, 1)), (4, (2, 2)), (6, (3, 2)), (7, (4, 2)), (12, (4, 3))])
def test_cells_are_counted_from_the_goods_and_the_inside_follows(count: int, cells: tuple[int, int]) -> None:
    """A cell is 3 3/16 in and a strip of C board 5/32: from strip to strip 3 3/8, as the tape has it; the slip on top.
    The height keeps its gap.
    """
    job = jars(count)
    assert job.load is not None
    inside, _ = inside_of(job.load, shop().grade("C"), shop())
    slip = shop().allowances[SLIP]
    for side, cells_on_it in zip(inside.inside[:2], cells, strict=True):
        strips = inches("3 3/8") * cells_on_it - T
        assert side == strips.to_step(inches("1/16"), "up") + slip
    assert inside.inside[2] == inches("4 1/2")


@pytest.mark.parametrize("way", ["slotted", "tray", "shelf"])
def test_each_thing_lies_within_its_cell_as_the_divider_is_cut(way: str) -> None:
    job = jars(6)
    boxed = box_for(way, job, shop())
    (divider,) = boxed.inserts
    assert divider.says.startswith("Each cell is")
    cell = divider.measures
    assert all(side.nm % inches("1/16").nm == 0 for side in cell)
    assert min(cell) >= inches("3 3/16")
    length, width, _ = boxed.arrangement.inside
    along, across = (3, 2) if length >= width else (2, 3)
    assert (cell[0] + T) * along - T <= length
    assert (cell[1] + T) * across - T <= width
    taken = set()
    for body, laid in zip(bodies_of(boxed.load), boxed.arrangement.laid, strict=True):
        assert laid is not None
        sizes_laid = stance(body, laid.turn).sizes
        for axis in range(3):
            assert laid.at[axis].nm >= 0
            assert laid.at[axis] + sizes_laid[axis] <= boxed.arrangement.inside[axis]
        middle = [laid.at[axis] + sizes_laid[axis].half() for axis in range(2)]
        taken.add((middle[0].nm * along // length.nm, middle[1].nm * across // width.nm))
    assert taken == {(a, b) for a in range(along) for b in range(across)}


def test_too_few_cells_are_said_and_a_divider_needs_two_things() -> None:
    with pytest.raises(NoAnswer, match="6 things, and the divider has 2 x 2 cells"):
        box_for("slotted", jars(6, along=2, across=2), shop())
    alone = jars(1)
    assert alone.unfinished == ("cells of the divider, along and across",)
    assert box_for("slotted", alone, shop()).inserts == ()
    assert box_for("slotted", jars(3, along=2, across=2), shop()).inserts


# --- What is sold ready ---------------------------------------------------------------------------------------------


def in_shop(at: Shop, **said: Any) -> Picture:
    return draw_up(understand(file(**said), at, "10440"), at, Carriers(services()), LookedAt(""))


def test_what_is_sold_ready_says_below_which_price_buying_pays() -> None:
    """At a coin less than is told the bought box costs least in all; at a coin more it does not."""
    snug = {"name": "lamp carton", "inside": "13 x 11 x 9 in"}
    (one,) = in_shop(bare(), ready_boxes=[snug]).not_here
    assert one.pays_below is not None

    def first(price: int) -> str:
        box = replace(one.box, price=Money(price, "USD"))
        return in_shop(replace(bare(), stock=Stock((box,)))).ways[0].way

    assert first(one.pays_below.minor - 1) == "shelf"
    assert first(one.pays_below.minor + 1) != "shelf"


def test_what_is_sold_ready_and_too_small_says_which_side() -> None:
    flat, large = in_shop(bare(), ready_boxes=[{"name": "flat carton", "inside": "13 x 11 x 6 in"},
                                               {"name": "crate", "inside": "60 x 40 x 40 in"}]).not_here  # fmt: skip
    assert "not high enough" in flat.lacks
    assert (large.lacks, large.pays_below) == ("", None)


def test_every_kind_that_names_a_ready_box_names_one_that_can_be_read() -> None:
    named = [kind.code for kind in shipped_kinds() if kind.ready_boxes]
    assert {"bicycle", "golf-bag", "shoes"} <= set(named)
    for kind in shipped_kinds():
        job = understand(start_job(kind, "", starting_shop()), shop(), "10440")
        assert len(job.ready_boxes) == len(kind.ready_boxes)


def test_boxes_at_hand_count_the_found_ones_too() -> None:
    job = read(found_boxes=[{"name": "spindle carton", "inside": "16 x 12 x 12 in"}])
    assert "spindle carton" in [one.made.item for one in boxes_at_hand("stash", job, shop())]


def test_what_lies_over_the_divider_and_is_wider_makes_the_box_wider() -> None:
    board = {"name": "board", "size": "22 x 18 x 1 in", "weight": "0", "lies_flat": False}
    four = {"parts": [{**JAR, "count": 4}], "inserts": [{"kind": "divider"}]}
    plain, wide = read(**four), read(**four, extras=[board])
    assert (plain.problems, wide.problems) == ((), ())
    small, large = (box_for("slotted", job, bare()).made.needed for job in (plain, wide))
    assert small[0] < inches("18")
    assert large[:2] == (inches("22"), inches("18"))


def test_extras_lie_over_the_divider_and_get_no_cell() -> None:
    tin = {"name": "tin of wax", "size": "5 x 4 x 1 in", "weight": "8 oz", "lies_flat": False}
    job = jars(4)
    with_tin = read(parts=[{**JAR, "count": 4}], inserts=[{"kind": "divider"}], extras=[tin])
    assert job.load is not None
    assert with_tin.load is not None
    alone = inside_of(job.load, shop().grade("C"), shop())[0].inside
    both = inside_of(with_tin.load, shop().grade("C"), shop())[0].inside
    assert both == (alone[0], alone[1], alone[2] + inches("1"))
    boxed = box_for("slotted", with_tin, shop())
    lies = boxed.arrangement.laid[-1]
    assert lies is not None
    assert lies.at[2] >= inches("4 1/2")


def test_a_divider_stands_within_the_liner() -> None:
    job = jars(4)
    assert job.load is not None
    lined = replace(job.load, liner=Layer(shop().material("liner-foam")))
    boxed = box_up(lined, "slotted", shop().grade("C"), shop())
    inner = [side - inches("1") for side in boxed.made.inside[:2]]
    (divider,) = boxed.inserts
    assert divider.blanks[0].size[0] <= max(inner)
    for laid in boxed.arrangement.laid:
        assert laid is not None
        assert min(laid.at) >= inches("1/2")
