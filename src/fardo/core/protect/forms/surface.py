"""Surface: tissue, glassine or film next to the goods, so that nothing else touches the finish.

It adds nothing that one could measure (common practice).
"""

from __future__ import annotations

from fardo.core.protect.coat import NONE, Coat, Layer, Wearer, plus, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.protect.forms.wrap import strips, winding

FORM = "surface"
TITLE = "next to the goods"
ASKS: tuple[Ask, ...] = ("layers", "on")
AROUND = True  # also around several things
LAPS = True


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    long, _, short = wearer.axes
    material, sizes = layer.material, wearer.sizes
    length = plus(winding(wearer.girth(long), material.thickness, layer.layers), material.overlap)
    cuts = strips(material, length, sizes[long] + sizes[short])
    says = ("Only low-tack tape holds it; packing tape touches board only.",)
    return Coat(material, NONE, cuts, square_metres(cuts), says)
