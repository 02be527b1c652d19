"""Pipe insulation on tubes, cut to the length of each: those of a frame of bars, of a round bar, or as typed."""

from __future__ import annotations

from collections import Counter

from fardo.core.goods.shape import Bars, Cylinder, Shape, Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.quantity import Length, both_units
from fardo.core.refusal import BadInput

FORM = "tube"
TITLE = "insulation on each tube"
ASKS: tuple[Ask, ...] = ("layers", "lengths")


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    lengths, across = _tubes(wearer.shape)
    lengths = layer.lengths or lengths
    if not lengths:
        raise BadInput(
            "no tubes are known on this shape", read="nothing", allowed="the length of each tube to cover",
            field="lengths",
        )  # fmt: skip
    material = layer.material
    says = ["Slit along, pushed on, held with low-tack tape."]
    if across is not None and material.inner is not None and across > material.inner:
        says.append(
            f"The tube is {both_units(across)} across and this goes over {both_units(material.inner, 'down')}: "
            "it stays open along its slit; turn the slit inwards."
        )
    cuts = tuple(Cut(count, length) for length, count in sorted(Counter(lengths).items(), reverse=True))
    return Coat(material, _growth(wearer.shape, material.thickness * layer.layers), cuts, metres(lengths), tuple(says))


def _tubes(shape: Shape) -> tuple[tuple[Length, ...], Length | None]:
    if isinstance(shape, Bars):
        return shape.lengths, shape.diameter
    if isinstance(shape, Cylinder):
        return (shape.length,), shape.diameter
    return (), None


def _growth(shape: Shape, thickness: Length) -> Sizes:
    """A tube is not covered at its ends; in a frame its ends may look any way."""
    return (thickness, thickness, Length(0)) if isinstance(shape, Cylinder) else all_round(thickness)
