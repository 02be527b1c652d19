"""Layers that do not go all round one thing: on one side, between two, on each of a pile, inside, around several."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from fardo.core.goods.shape import Cup
from fardo.core.pack.fetch import stock_used
from fardo.core.plan.boxed import box_up
from fardo.core.plan.job import Job
from fardo.core.plan.load import Load, arrange
from fardo.core.plan.parts import wrap_used
from fardo.core.plan.together import coats_together
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.coat import Coat
from fardo.core.quantity import INCH, POUND, ZERO, Length, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.files.job import JobFile
from fardo.files.understood import understand
from tests.made_up import inches, shop, sizes

SLAB = {"kind": "box", "length": "12 in", "width": "9 in", "height": "1 in"}


def read(**said: Any) -> Job:
    return understand(JobFile.model_validate({"ship": {"to": "73120"}, **said}), shop(), "10440")


def part(*protect: dict[str, Any], **said: Any) -> dict[str, Any]:
    return {"name": "panel", "weight": "2 lb", "gap": "0", "shape": SLAB, "protect": list(protect), **said}


def one(*protect: dict[str, Any], **said: Any) -> Wrapped:
    job = read(parts=[part(*protect, **said)])
    assert not job.problems, job.problems
    return job.parts[0].units[0]


def refused(*protect: dict[str, Any], **said: Any) -> str:
    (problem,) = read(parts=[part(*protect, **said)]).problems
    return f"{problem.field}: {problem}"


def in_inches(coat: Coat) -> list[tuple[int, float, float | None]]:
    return [(cut.count, float(cut.length.inches), cut.width and float(cut.width.inches)) for cut in coat.cuts]


def unfilled(load: Load | None) -> Load:
    assert load is not None
    return load


# --- On one side ----------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("on", "piece", "size"),
    [("above", (9, 12), "12 x 9 x 1 1/2"), ("left", (1, 9), "12 1/2 x 9 x 1"), ("front", (1, 12), "12 x 9 1/2 x 1")],
)
def test_a_layer_on_one_side_covers_it_and_adds_its_thickness_once(
    on: str, piece: tuple[float, float], size: str
) -> None:
    wrapped = one({"material": "bubble-large", "on": on})
    assert in_inches(wrapped.coats[0]) == [(1, max(piece), min(piece))]
    assert wrapped.sizes == sizes(size)


def test_one_side_more_is_no_cushion_for_the_others() -> None:
    assert one({"material": "bubble-large"}).wrap_cushion == inches("1/2")
    assert one({"material": "bubble-large", "on": "above"}).wrap_cushion == ZERO


def test_one_edge_takes_one_cap() -> None:
    wrapped = one({"material": "edge-foam", "on": "left"})
    assert in_inches(wrapped.coats[0]) == [(1, 9, None)]
    assert wrapped.sizes == sizes("12 3/8 x 9 x 1 3/4")
    assert "that side is a face and no edge" in refused({"material": "edge-foam", "on": "above"})


def test_caps_along_all_edges_are_two_long_and_two_short() -> None:
    wrapped = one({"material": "edge-foam"})
    assert in_inches(wrapped.coats[0]) == [(2, 12, None), (2, 9, None)]


def test_what_is_drawn_over_goes_all_round() -> None:
    assert "plastic bag, seams sealed goes all round" in refused({"material": "bag", "on": "left"})


# --- Piles ----------------------------------------------------------------------------------------------------------


def test_a_card_lies_between_each_two_of_a_pile() -> None:
    pair = one({"material": "card-between"}, count=2, piles=1)
    assert in_inches(pair.coats[0]) == [(1, 12, 9)]
    assert pair.sizes == sizes("12 x 9 x 2 1/32")
    five = one({"material": "card-between"}, count=5, piles=1)
    assert in_inches(five.coats[0]) == [(4, 12, 9)]
    assert "nothing to lie between" in refused({"material": "card-between"})


def test_each_piece_is_sleeved_and_the_sleeved_pieces_are_piled() -> None:
    """A sleeve without a flap takes a quarter of a minute, one around the whole pile as long as any layer."""
    each = one({"material": "sleeve-each", "each": True}, {"material": "sleeve"}, count=8, piles=1)
    sleeves, around = each.coats
    assert (sleeves.cuts[0].count, sleeves.amount, sleeves.puts) == (8, 8, 8)
    assert around.amount == 1
    minutes = wrap_used(read(parts=[part({"material": "sleeve-each", "each": True}, count=8, piles=1)]), shop()).minutes
    assert minutes == 2


def test_what_goes_on_each_piece_makes_the_pile_thicker_by_all_of_it() -> None:
    assert one({"material": "foam-thin", "each": True}, count=4, piles=1).sizes == sizes("12 1/4 x 9 1/4 x 5")


def test_low_tack_tape_goes_over_three_sides_an_inch_onto_each_face() -> None:
    """Common practice: 8 pieces of 3/16 in are 1 1/2 in thick, so three strips of 3 1/2 in."""
    thin = {**SLAB, "height": "3/16 in"}
    (tape,) = one({"material": "tape-low-tack"}, shape=thin, count=8, piles=1).coats
    assert in_inches(tape) == [(3, 3.5, None)]
    assert tape.growth == (ZERO, ZERO, ZERO)
    assert float(tape.amount) == pytest.approx(10.5 * 0.0254)


# --- Sleeves, insides, handles -------------------------------------------------------------------------------------


def test_a_board_sleeve_covers_the_edges_and_adds_its_board() -> None:
    """Around 9 x 1: 2 x (9 + 1), four boards for the folds, an inch of tab; as long as the panel."""
    wrapped = one({"material": "card-sleeve"})
    assert in_inches(wrapped.coats[0]) == [(1, 21.5, 12)]
    assert wrapped.sizes == sizes("12 x 9 1/4 x 1 1/4")


def test_foam_inside_a_thing_is_cut_to_the_room_and_adds_nothing() -> None:
    wrapped = one({"material": "foam-inside", "hollow": "10 x 8 x 5/8 in"})
    assert in_inches(wrapped.coats[0]) == [(3, 10, 8)]  # three of 1/4 in fill 5/8
    assert wrapped.sizes == sizes("12 x 9 x 1")
    assert "the room inside is not known" in refused({"material": "foam-inside"})


def test_stuffing_is_counted_in_pads_too() -> None:
    """A hollow of 8 x 3 x 2 in is 48 cubic inches; a rolled pad fills 36."""
    (coat,) = one({"material": "stuffing-pads", "hollow": "8 x 3 x 2 in"}).coats
    assert coat.amount == 2
    assert coat.says == ("2 pads in each.",)


def test_a_woven_strip_is_as_long_as_the_handle_asks() -> None:
    """Once around 3 1/4 in and four times what the handle sticks out, 15 % more to hook in."""
    cup = {"kind": "cup", "diameter": "3 1/4 in", "height": "3 3/4 in", "handle": "1 in"}
    wrapped = one({"material": "woven-paper"}, shape=cup)
    assert isinstance(wrapped.shape, Cup)
    assert wrapped.sizes == sizes("4 1/4 x 3 1/4 x 3 3/4")
    ((count, length, width),) = in_inches(wrapped.coats[0])
    assert (count, width) == (1, 4)
    assert length == pytest.approx((3.25 * 3.14159265 + 4) * 1.15)
    assert "no handle is known on this shape" in refused({"material": "woven-paper"})
    assert in_inches(one({"material": "woven-paper", "lengths": ["14 in"]}).coats[0]) == [(1, 14, 4)]


# --- Mailers there as wrap and as pads -----------------------------------------------------------------------------


def test_a_mailer_there_is_an_inner_wrap_and_says_how_many_it_takes() -> None:
    """7 x 5 x 1/2 needs 5 1/2 + seams of the width 7 in, 7 1/2 of the length 9: a second and a third still close."""
    thin = {"kind": "box", "length": "7 in", "width": "5 in", "height": "1/2 in"}
    wrapped = one({"material": "mailer-around", "item": "padded mailer 7 x 9"}, shape=thin, count=2, piles=1)
    (coat,) = wrapped.coats
    assert coat.taken is not None
    assert coat.taken.name == coat.material.name == "padded mailer 7 x 9"
    assert coat.weight == coat.taken.weight
    assert coat.price == coat.taken.price
    assert coat.says[-1] == "At most 3 of these go into one."
    alone = one({"material": "mailer-around", "item": "padded mailer 7 x 9"}, shape=thin)
    assert alone.coats[0].says == ("In padded mailer 7 x 9, closed on it.",)
    assert wrapped.sizes[2] == INCH + coat.taken.wall * 2  # type: ignore[attr-defined]
    assert "does not close" in refused({"material": "mailer-around", "item": "padded mailer 7 x 9"})
    assert "not a box or mailer that is there" in refused({"material": "mailer-around", "item": "none such"})


def test_mailers_lie_flat_as_pads_under_and_over() -> None:
    wrapped = one({"material": "pad-foam", "item": "padded mailer 7 x 9"})
    (coat,) = wrapped.coats
    assert coat.amount == 2
    wall = next(pouch.wall for pouch in shop().stock.pouches if pouch.name == "padded mailer 7 x 9")
    assert wrapped.sizes[2] == INCH + wall * 4


# --- Around several ------------------------------------------------------------------------------------------------


def pair(**said: Any) -> Job:
    shoe = {"name": "clog", "weight": "1 lb", "gap": "1/2 in", "count": 2, "rules": {"bundle": "pair"},
            "shape": {"kind": "box", "length": "11 in", "width": "4 in", "height": "4 in"}}  # fmt: skip
    return read(parts=[shoe], **said)


def test_a_layer_goes_around_things_that_are_held_together() -> None:
    bare = arrange(unfilled(pair().load)).inside
    job = pair(bundles={"pair": [{"material": "bubble-small", "layers": 2}]})
    load = unfilled(job.load)
    assert arrange(load).inside == tuple(side + inches("3/4") for side in bare)
    ((name, coat),) = coats_together(load, arrange(load), shop())
    assert name == "pair"
    # One wrap around both: 8 x 4 is 24 in around, 11 long with its ends folded in.
    first = coat.cuts[0]
    assert first.length.inches >= 24
    used = wrap_used(job, shop())
    assert [one.what for one in used.cuts] == ["pair, together"] * len(used.cuts)
    boxed = box_up(load, "slotted", shop().grade("C"), shop())
    assert coat in boxed.coats
    assert {room for _, room in boxed.room_left} == {inches("1/2")}  # their gap, outside of what goes around both


def test_only_what_is_wound_or_drawn_over_goes_around_several() -> None:
    (problem,) = pair(bundles={"pair": [{"material": "corners"}]}).problems
    assert problem.field == "bundles.pair[0].material"


def test_a_mailer_in_stock_goes_around_several_where_it_closes() -> None:
    """Common practice: a pair of small things goes into one padded mailer, and that into the box."""
    said = {"material": "mailer-around", "item": "padded mailer 9 1/2 x 12 1/2"}
    small = {"name": "reed", "weight": "1 oz", "count": 2, "rules": {"bundle": "pair"},
             "shape": {"kind": "box", "length": "8 in", "width": "3 in", "height": "1 in"}}  # fmt: skip
    job = read(parts=[small], bundles={"pair": [said]})
    assert job.problems == ()
    boxed = box_up(unfilled(job.load), "slotted", shop().grade("C"), shop())
    assert stock_used(boxed).boxes == {"padded mailer 9 1/2 x 12 1/2": 1}
    wall = next(pouch.wall for pouch in shop().stock.pouches if pouch.name == "padded mailer 9 1/2 x 12 1/2")
    bare = arrange(unfilled(read(parts=[small]).load)).inside
    # On both sides of both of them, once.
    assert arrange(unfilled(job.load)).inside == tuple(side + wall * 2 for side in bare)
    with pytest.raises(NoAnswer, match="around pair: it does not close"):
        box_up(unfilled(pair(bundles={"pair": [said]}).load), "slotted", shop().grade("C"), shop())


def test_a_mailer_of_which_none_is_left_goes_around_nothing() -> None:
    said = {"material": "mailer-around", "item": "padded mailer 9 1/2 x 12 1/2"}
    stock = shop().stock
    used_up = replace(stock, pouches=tuple(replace(one, count=0) for one in stock.pouches))
    clog = part(name="clog", count=2, rules={"bundle": "pair"})
    file = JobFile.model_validate({"parts": [clog], "bundles": {"pair": [said]}})
    told = understand(file, replace(shop(), stock=used_up))
    (problem,) = told.problems
    assert (problem.field, problem.why) == ("bundles.pair[0].item", "there are none left")


def test_a_wrap_of_a_bundle_that_no_part_is_in_is_left_aside() -> None:
    assert unfilled(pair(bundles={"other": [{"material": "bubble-small"}]}).load).bundles == ()


def test_a_closed_box_is_wrapped_before_it_goes_in_an_envelope() -> None:
    """7 x 4 x 4 goes in a 9 1/2 x 12 1/2 padded envelope with one layer of small bubble, and with nothing spare for a
    second lengthways (common practice).
    """
    goods = {"name": "bobbins", "weight": "1 lb", "gap": "1/8 in",
             "shape": {"kind": "box", "length": "6 1/2 in", "width": "3 1/2 in", "height": "3 1/2 in"}}  # fmt: skip

    def flat(*layers: int) -> tuple[Length, Length] | None:
        over = {"over_box": {"material": "bubble-small", "layers": layers[0]}} if layers else {}
        load = unfilled(read(parts=[goods], **over).load)
        boxed = box_up(load, "bagged", shop().grade("C"), shop(), item="shelf 7 x 4 x 4 in bag 24 x 24")
        assert len(boxed.coats) == len(layers)
        return boxed.made.flat

    bare, once = flat(), flat(1)
    assert bare is not None
    assert once is not None
    assert [a - b for a, b in zip(once, bare, strict=True)] == [inches("3/4")] * 2  # 2 x 2 x 3/16
    assert read(parts=[goods], over_box={"material": "corners"}).problems[0].field == "over_box.material"


# --- Goods as cushion ----------------------------------------------------------------------------------------------


def test_goods_lie_in_front_of_and_behind_others_as_their_cushion() -> None:
    """Four give-aways 11 x 8 x 1/4 around a panel 12 x 9 x 1: two in front, two behind, 2 in thick together."""
    give_aways = {"name": "give-aways", "weight": "4 oz", "count": 4, "rules": {"cushion_for": "panel"},
                  "shape": {"kind": "box", "length": "11 in", "width": "8 in", "height": "1/4 in"}}  # fmt: skip
    job = read(parts=[part(), give_aways])
    assert not job.problems
    load = unfilled(job.load)
    (whole,) = load.units
    assert whole.sizes == sizes("12 x 9 x 2")
    assert whole.weight == POUND * 3
    assert whole.wrap_cushion == ZERO  # none at its edges
    assert "give-aways: 2 in front of it, 2 behind it." in whole.says
    assert job.parts[1].lies_with == "panel"
    (coat,) = whole.coats
    assert coat.material.price_per_100.minor == 0  # they are the goods, and bought by nobody
    assert coat.puts == 0  # nor wound: it takes none of the time
    larger = {**give_aways, "count": 3, "shape": {**give_aways["shape"], "length": "13 in"}}  # type: ignore[dict-item]
    (more,) = unfilled(read(parts=[part(), larger]).load).units
    assert more.sizes == sizes("13 x 9 x 1 3/4")


def test_goods_that_are_a_cushion_are_not_wrapped_themselves() -> None:
    flat = {"name": "give-aways", "weight": "4 oz", "count": 2, "shape": SLAB, "rules": {"cushion_for": "panel"},
            "protect": [{"material": "tissue"}]}  # fmt: skip
    (problem,) = read(parts=[part(), flat]).problems
    assert problem.field == "parts[1].protect"


@pytest.mark.parametrize("of", ["none such", "give-aways"])
def test_goods_are_no_cushion_for_what_is_not_there(of: str) -> None:
    flat = {"name": "give-aways", "weight": "4 oz", "count": 2, "shape": SLAB, "rules": {"cushion_for": of}}
    (problem,) = read(parts=[part(), flat]).problems
    assert problem.field == "parts[1].rules.cushion_for"
    assert problem.allowed == "panel"


# --- Room in the box -------------------------------------------------------------------------------------------------


def test_what_is_inside_a_thing_takes_no_room_of_the_box_and_wrap_no_more_than_its_shell() -> None:
    """A strip of 48 x 24 in off the roll around 12 x 9 x 1 fills the shell of 12 3/8 x 9 3/8 x 1 3/8, no more."""
    stuffed = one({"material": "stuffing", "hollow": "8 x 3 x 2 in"}).coats[0]
    assert stuffed.amount > 0
    assert stuffed.room_nm3 == one({"material": "foam-inside", "hollow": "8 x 3 x 1 in"}).coats[0].room_nm3 == 0
    wound = one({"material": "bubble-small"}).coats[0]
    shell = volume_nm3(*sizes("12 3/8 x 9 3/8 x 1 3/8")) - volume_nm3(*sizes("12 x 9 x 1"))
    assert wound.room_nm3 == shell
    ring = {"kind": "ring", "outer_diameter": "12 in", "inner_diameter": "8 in", "thickness": "2 in"}
    assert one({"material": "stuffing"}, shape=ring).coats[0].room_nm3 > 0
