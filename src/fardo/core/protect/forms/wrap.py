"""Wrap: bubble or foam wound around, in counted layers, one way or both ways.

Growth per side is layers x thickness. Layer i around a girth takes girth + 8 x thickness x (i - 1/2), plus an overlap,
and is wider than the one under it (common practice).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, plus, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.protect.material import Material
from fardo.core.quantity import ZERO, Length
from fardo.core.why import Why

FORM = "wrap"
SHUTS = True  # loose fill does not get in
TITLE = "wound around"
ASKS: tuple[Ask, ...] = ("layers", "crossed", "bubbles", "on")
AROUND = True  # also around several things
LAPS = True

_SMOOTH_IN = "Smooth side to the goods, bubbles outside: bubbles leave no marks on the finish."
_BUBBLES_IN = "Bubbles to the goods, smooth side outside: it slides better and tapes better."


def winding(girth: Length, thickness: Length, layers: int) -> Length:
    """The length of `layers` layers wound on each other, without overlap.

    >>> inch = Length.of_inches
    >>> float(winding(inch(20), inch("0.5"), 2).inches)  # 22 for the first layer, 26 for the second
    48.0
    """
    return girth * layers + thickness * (4 * layers * layers)


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """Once around, its ends folded over, or in two bands that cross.

    A layer goes over the one before: on each side it is wider by the thickness of that, along the goods and where its
    ends fold over the lesser side.
    """
    long, middle, short = wearer.axes
    material, sizes = layer.material, wearer.sizes
    t, count = material.thickness, layer.layers
    if not layer.crossed:
        cuts = tuple(
            piece
            for n in range(count)
            for piece in strips(
                material, _wound(wearer.girth(long), layer, n, n + 1), sizes[long] + sizes[short] + t * (4 * n), t * 2
            )
        )
        cuts = alike(cuts)
        return Coat(
            material,
            all_round(t * count),
            cuts,
            square_metres(cuts),
            _says(wearer, layer),
            _why(wearer.girth(long), layer),
        )
    first = strips(material, _wound(wearer.girth(long), layer, 0, count), sizes[long])
    # The second way goes over the first: the girth across the middle axis is grown by it on the short side only.
    across = count if layer.across is None else layer.across
    thick, over = t * count, t * across
    second = strips(material, _wound(wearer.girth(middle) + thick * 4, layer, 0, across), sizes[middle] + thick * 2)
    cuts = (*first, *second)
    growth = [over, over, over]
    growth[middle], growth[short] = thick, thick + over
    by: Sizes = (growth[0], growth[1], growth[2])
    return Coat(material, by, cuts, square_metres(cuts), _says(wearer, layer), _why(wearer.girth(long), layer))


def _wound(girth: Length, layer: Layer, first: int, end: int) -> Length:
    """What is cut for layers `first` up to `end` around a girth, the overlap with it."""
    t = layer.material.thickness
    return plus(winding(girth, t, end) - winding(girth, t, first), layer.material.overlap)


def _why(girth: Length, layer: Layer) -> Why:
    material = layer.material
    return Why(
        "layer i: girth + 8 x thickness x (i - 1/2), plus the overlap; wider by 4 x thickness than the one under it",
        (("girth", girth), ("thickness", material.thickness), ("layers", str(layer.layers)),
         ("overlap", f"{float(material.overlap * 100):g} %")),
        "common practice",
    )  # fmt: skip


def strips(material: Material, length: Length, width: Length, pressed: Length = ZERO) -> tuple[Cut, ...]:
    """One piece, or as many full widths of the roll as cover `width`; where the roll tears at perforations, all of its
    width up to the next.

    Args:
        pressed: what of the width may be missing, as folded ends are pressed together.
    """
    roll = material.width
    if material.tears_every is not None:
        length = length.to_step(material.tears_every, "up")
    if roll is None or (width <= roll and material.tears_every is None):
        return (Cut(1, length, width),)
    return (Cut(max(1, -(-(width.nm - pressed.nm) // roll.nm)), length, roll),)


def alike(cuts: Iterable[Cut]) -> tuple[Cut, ...]:
    """Pieces of one size counted together."""
    counted = Counter[tuple[Length, Length | None]]()
    for cut in cuts:
        counted[cut.length, cut.width] += cut.count
    return tuple(Cut(count, length, width) for (length, width), count in counted.items())


def _says(wearer: Wearer, layer: Layer) -> tuple[str, ...]:
    return tuple(_sentences(layer, layer.bubbles or wearer.bubbles))


def _sentences(layer: Layer, bubbles: str) -> Iterable[str]:
    if layer.crossed:
        ways = f"{layer.layers} around the long way, {layer.across or layer.layers} across"
        yield f"{ways}, so that every side is covered."
    if layer.material.bubbly:
        yield _SMOOTH_IN if bubbles == "out" else _BUBBLES_IN
