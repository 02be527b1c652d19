"""A sleeve of card or board right around a flat thing, over its edges: four panels and a tab, open at two ends."""

from __future__ import annotations

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, square_metres
from fardo.core.protect.forms.asks import Ask, Held
from fardo.core.quantity import INCH

FORM = "board-sleeve"
TITLE = "sleeve of card or board"
ASKS: tuple[Ask, ...] = ("layers",)
HELD: Held = "block"
_TAB = INCH  # common practice


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """It adds its board across its width and its thickness, and nothing along its length."""
    long, middle, short = wearer.axes
    t = layer.material.thickness
    cuts = tuple(
        Cut(1, (wearer.sizes[middle] + wearer.sizes[short]) * 2 + t * (8 * n + 4) + _TAB, wearer.sizes[long])
        for n in range(layer.layers)
    )
    growth = [t * layer.layers] * 3
    growth[long] = t * 0
    by: Sizes = (growth[0], growth[1], growth[2])
    says = ("Smooth side in, the seam at the back. The edges are inside; the two ends are open.",)
    return Coat(layer.material, by, cuts, square_metres(cuts), says)
