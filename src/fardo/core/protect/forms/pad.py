"""Pad: a flat piece under and over, as wide as the thing; end discs on a hub are the same with a cut-out."""

from __future__ import annotations

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, along, square_metres
from fardo.core.protect.forms.asks import Ask, OfStock

FORM = "pad"
TITLE = "pads under and over"
ASKS: tuple[Ask, ...] = ("layers", "on", "item")
OF_STOCK: OfStock = "mailers"


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    length, width, _ = wearer.sizes
    cuts = (Cut(2 * layer.layers, length, width),)
    return Coat(layer.material, along(2, layer.material.thickness * layer.layers), cuts, square_metres(cuts))
