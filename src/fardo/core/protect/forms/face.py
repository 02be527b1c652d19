"""Stiff faces: a sheet of board on the front and on the back of a slab."""

from __future__ import annotations

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, along, square_metres
from fardo.core.protect.forms.asks import Ask, Held

FORM = "face"
TITLE = "stiff faces, front and back"
ASKS: tuple[Ask, ...] = ("layers", "on")
HELD: Held = "block"


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    long, middle, short = wearer.axes
    cuts = (Cut(2 * layer.layers, wearer.sizes[long], wearer.sizes[middle]),)
    says = ("Smooth side to the goods. Taped to the corner guards or to each other, never to the goods.",)
    growth = along(short, layer.material.thickness * layer.layers)
    return Coat(layer.material, growth, cuts, square_metres(cuts), says)
