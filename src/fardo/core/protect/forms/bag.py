"""Bag, sleeve or flat envelope drawn over: flat it is as wide as width and height, as long as length and height."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round
from fardo.core.protect.forms.asks import Ask, OfStock
from fardo.core.quantity import Length

FORM = "bag"
SHUTS = True  # loose fill does not get in
TITLE = "bag or sleeve drawn over"
ASKS: tuple[Ask, ...] = ("layers", "item")
OF_STOCK: OfStock = "mailers"
AROUND = True  # also around several things


def flat_size(length: Length, width: Length, height: Length) -> tuple[Length, Length]:
    """The least flat length and width of a bag around a box, without seams (common practice).

    >>> inch = Length.of_inches
    >>> [float(side.inches) for side in flat_size(inch(7), inch(4), inch(4))]
    [11.0, 8.0]
    """
    return length + height, width + height


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    long, middle, short = (wearer.sizes[axis] for axis in wearer.axes)
    length, width = flat_size(long, middle, short)
    says = ("At least this size laid flat, inside its seams.",)
    growth = all_round(layer.material.thickness * layer.layers)
    return Coat(layer.material, growth, (Cut(layer.layers, length, width),), Fraction(layer.layers), says)
