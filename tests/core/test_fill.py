"""What fills the room that is left: where, how deep, with what, and how full (common practice)."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Any

import pytest

from fardo.core.fill.filling import FillWish, fill_voids
from fardo.core.fill.material import Fill
from fardo.core.fill.voids import Void
from fardo.core.goods.gap import Gap
from fardo.core.goods.part import Extra, Part
from fardo.core.goods.shape import Box
from fardo.core.make import Stock
from fardo.core.make.stock import StockBox
from fardo.core.plan.boxed import Boxed, box_up
from fardo.core.plan.load import Load
from fardo.core.plan.wrapped import wrap_up
from fardo.core.protect.material import Layer
from fardo.core.quantity import Length, Mass, Money, read_mass
from tests.made_up import inches, shop, sizes

SHOP = shop()
C = SHOP.grade("C")
BUBBLE = Layer(SHOP.materials["bubble-large"], 1)
PAPER, PILLOWS, LOOSE, *_ = SHOP.fills


def in_a_box(inside: str, goods: str, gap: str = "1", fragility: int | None = None, **changes: Any) -> Boxed:
    """Goods, bare unless layers are given, in a new box of that inside."""
    layers = changes.pop("layers", ())
    part = Part("loom", Box(*sizes(goods)), read_mass("6 lb"), Gap.even(inches(gap)), fragility=fragility)
    found = StockBox("found", sizes(inside), C, Money(100, "USD"), 1, False)
    load = Load((wrap_up(part, layers, SHOP),), (), **changes)
    return box_up(load, "shelf", C, replace(SHOP, stock=Stock((found,))))


def depths(boxed: Boxed) -> dict[str, Length]:
    return {one.void.where: one.void.depth for one in boxed.filling.places}


def test_each_place_is_named_with_how_deep_it_is() -> None:
    """A loom of 20 x 12 x 8 in the middle of 24 x 16 x 12: 2 in on every side."""
    boxed = in_a_box("24 x 16 x 12", "20 x 12 x 8", gap="2")
    assert depths(boxed) == dict.fromkeys(("under", "left", "right", "front", "back", "top"), inches("2"))
    under = boxed.filling.places[0]
    assert under.void.where == "under"
    assert float(under.litres) == pytest.approx(24 * 16 * 2 * 0.016387064)


def test_places_come_in_the_order_they_are_filled() -> None:
    boxed = in_a_box("24 x 16 x 12", "20 x 12 x 8", gap="2")
    order = [one.void.where for one in boxed.filling.places]
    assert order[0] == "under"
    assert order[-1] == "top"


def test_the_litres_are_all_of_the_air() -> None:
    boxed = in_a_box("24 x 16 x 12", "18 x 10 x 6", gap="2", layers=(BUBBLE,))
    whole = 24 * 16 * 12 * 0.016387064
    assert sum(float(one.litres) for one in boxed.filling.places) == pytest.approx(whole * float(boxed.air))


def test_what_a_blow_would_crush_is_not_overfilled() -> None:
    """Heavy and rigid things are packed firm and over-full; the fragile not: by how fragile the parts are."""
    firm, soft = in_a_box("24 x 16 x 12", "20 x 12 x 8", "2"), in_a_box("24 x 16 x 12", "20 x 12 x 8", "2", 30)
    assert (firm.filling.full, soft.filling.full) == ("firm", "soft")
    assert firm.filling.places[0].stuffed == firm.filling.places[0].litres * Fraction(11, 10)
    assert soft.filling.places[0].stuffed == soft.filling.places[0].litres
    assert firm.weights.fill > soft.weights.fill
    assert in_a_box("24 x 16 x 12", "20 x 12 x 8", "2", 30, fill=FillWish(full="firm")).filling.full == "firm"


def test_amounts_are_told_in_things_one_can_fetch() -> None:
    assert PAPER.fetched(Fraction(10)) == "4 sheets of crumpled paper"
    assert PILLOWS.fetched(Fraction(11)) == "9 air pillows"
    assert LOOSE.fetched(Fraction(130)) == "130 litres of loose fill, a third of a sack"
    assert LOOSE.fetched(Fraction(450)) == "450 litres of loose fill, 2 sacks"
    assert Fill("grocery bags", Mass(0), Money(0, "USD"), "sheets").fetched(Fraction(5)) == "5 litres of grocery bags"


def test_a_large_void_is_blocked_and_not_filled() -> None:
    boxed = in_a_box("30 x 16 x 12", "12 x 12 x 8", gap="2")
    filled = {one.void.where: one.fill.form for one in boxed.filling.places}
    assert filled["right"] == filled["left"] == "block"
    assert filled["under"] == "sheets"


def test_loose_fill_goes_only_around_what_is_wrapped_shut() -> None:
    wish = FillWish("loose fill")
    bare = in_a_box("24 x 16 x 12", "20 x 12 x 8", "2", fill=wish)
    assert {one.fill.name for one in bare.filling.places} == {"crumpled paper"}
    assert bare.filling.note == "No loose fill here: loom is not wrapped shut; crumpled paper goes in instead"
    shut = in_a_box("24 x 16 x 12", "18 x 10 x 6", "2", fill=wish, layers=(BUBBLE,))
    assert {one.fill.name for one in shut.filling.places} == {"loose fill"}
    assert shut.filling.note == ""


def test_loose_fill_never_goes_with_cloth_or_exhibits() -> None:
    wish = FillWish("loose fill", loose=False)
    boxed = in_a_box("24 x 16 x 12", "18 x 10 x 6", "2", fill=wish, layers=(BUBBLE,))
    assert {one.fill.name for one in boxed.filling.places} == {"crumpled paper"}
    assert boxed.filling.note.startswith("No loose fill here: not with such goods")


def test_another_fill_may_go_under_than_on_top() -> None:
    boxed = in_a_box("24 x 16 x 12", "20 x 12 x 8", "2", fill=FillWish(places={"under": "folded bubble"}))
    names = {one.void.where: one.fill.name for one in boxed.filling.places}
    assert names["under"] == "folded bubble"
    assert {names[where] for where in ("left", "right", "front", "back", "top")} == {"crumpled paper"}


def test_what_fills_is_weighed_and_paid_by_place() -> None:
    paper = in_a_box("24 x 16 x 12", "20 x 12 x 8", "2")
    pillows = in_a_box("24 x 16 x 12", "20 x 12 x 8", "2", fill=FillWish("air pillows"))
    litres = sum((one.stuffed for one in paper.filling.places), start=Fraction(0))
    assert paper.weights.fill.grams == pytest.approx(12 * float(litres))
    assert pillows.weights.fill.grams == pytest.approx(3 * float(litres))
    assert pillows.fill > paper.fill


def test_a_liner_is_no_place_to_fill() -> None:
    lined = in_a_box("24 x 16 x 12", "18 x 10 x 6", "2", liner=Layer(SHOP.materials["liner-foam"], 1))
    under = next(one for one in lined.filling.places if one.void.where == "under")
    assert under.void.depth < inches("3")
    assert under.void.volume_nm3 < inches("24").nm * inches("16").nm * under.void.depth.nm


def test_extras_that_lie_flat_take_no_place() -> None:
    slip = Extra("slip", sizes("9 x 6 x 1/8"), Mass(0), True)
    part = Part("loom", Box(*sizes("20 x 12 x 8")), read_mass("6 lb"), Gap.even(inches("2")))
    found = StockBox("found", sizes("24 x 16 x 12"), C, Money(100, "USD"), 1, False)
    at = replace(SHOP, stock=Stock((found,)))
    boxed = box_up(Load((wrap_up(part, (), SHOP),), (slip,)), "shelf", C, at)
    assert depths(boxed)["under"] == inches("2")


def test_a_kind_that_is_not_there_falls_back_on_the_usual_one() -> None:
    void = Void("under", inches("2"), 10**24)
    filling = fill_voids([void], FillWish("straw"), SHOP.fills, [], [])
    assert filling.places[0].fill == PAPER
