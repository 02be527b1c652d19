"""Wrap: bubble or foam wound around, in counted layers, one way or both ways.

Growth per side is layers x thickness. Layer i around a girth takes girth + 8 x thickness x (i - 1/2), plus an overlap
(common practice).
"""

from __future__ import annotations

from collections.abc import Iterable

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, plus, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.protect.material import Material
from fardo.core.quantity import Length
from fardo.core.why import Why

FORM = "wrap"
TITLE = "wound around"
ASKS: tuple[Ask, ...] = ("layers", "crossed", "bubbles")
LAPS = True

_SMOOTH_IN = "Smooth side to the goods, bubbles outside: nothing prints itself into a finish."
_BUBBLES_IN = "Bubbles to the goods, smooth side outside: it slides better and tapes better."


def winding(girth: Length, thickness: Length, layers: int) -> Length:
    """The length of `layers` layers wound on each other, without overlap.

    >>> inch = Length.of_inches
    >>> float(winding(inch(20), inch("0.5"), 2).inches)  # 22 for the first layer, 26 for the second
    48.0
    """
    return girth * layers + thickness * (4 * layers * layers)


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    long, middle, short = wearer.axes
    material, sizes = layer.material, wearer.sizes
    thick = material.thickness * layer.layers
    if not layer.crossed:
        # The ends are folded over, each by half the lesser side.
        cuts, why = _strips(wearer.girth(long), sizes[long] + sizes[short], layer)
        return Coat(material, all_round(thick), cuts, square_metres(cuts), _says(wearer, layer), why)
    first, why = _strips(wearer.girth(long), sizes[long], layer)
    # The second way goes over the first: the girth across the middle axis is grown by it on the short side only.
    second, _ = _strips(wearer.girth(middle) + thick * 4, sizes[middle] + thick * 2, layer)
    cuts = (*first, *second)
    growth = [thick, thick, thick]
    growth[short] = thick * 2
    by: Sizes = (growth[0], growth[1], growth[2])
    return Coat(material, by, cuts, square_metres(cuts), _says(wearer, layer), why)


def _strips(girth: Length, width: Length, layer: Layer) -> tuple[tuple[Cut, ...], Why]:
    """The lengths to cut to cover `width`, side by side where the roll is narrower."""
    material = layer.material
    wound = winding(girth, material.thickness, layer.layers)
    length = plus(wound, material.overlap)
    why = Why(
        "layers x girth + 4 x thickness x layers², plus the overlap",
        (("girth", girth), ("thickness", material.thickness), ("layers", str(layer.layers)), ("wound", wound),
         ("overlap", f"{float(material.overlap * 100):g} %")),
        "layer i takes girth + 8 x thickness x (i - 1/2) (common practice)",
    )  # fmt: skip
    return strips(material, length, width), why


def strips(material: Material, length: Length, width: Length) -> tuple[Cut, ...]:
    """One piece, or as many full widths of the roll as cover `width`."""
    if material.width is None or width <= material.width:
        return (Cut(1, length, width),)
    return (Cut(-(-width.nm // material.width.nm), length, material.width),)


def _says(wearer: Wearer, layer: Layer) -> tuple[str, ...]:
    return tuple(_sentences(layer, layer.bubbles or wearer.bubbles))


def _sentences(layer: Layer, bubbles: str) -> Iterable[str]:
    if layer.crossed:
        yield "Once around the long way, once across, so that every side is covered."
    if layer.material.bubbly:
        yield _SMOOTH_IN if bubbles == "out" else _BUBBLES_IN
