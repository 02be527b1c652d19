"""Edge caps: a profile pushed over the four long edges of a slab."""

from __future__ import annotations

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, metres
from fardo.core.protect.forms.asks import Ask, Held

FORM = "edge"
TITLE = "caps along the edges"
ASKS: tuple[Ask, ...] = ()
HELD: Held = "block"


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    long, middle, _ = (wearer.sizes[axis] for axis in wearer.axes)
    cuts = (Cut(2, long), Cut(2, middle))
    return Coat(layer.material, all_round(layer.material.thickness), cuts, metres([long, long, middle, middle]))
