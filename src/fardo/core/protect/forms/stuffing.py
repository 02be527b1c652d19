"""Stuffing: hollows filled so that they keep their shape. It adds nothing outside."""

from __future__ import annotations

from fractions import Fraction

from fardo.core.goods.shape import Cylinder, Ring, Shape
from fardo.core.protect.coat import NONE, Coat, Layer, Wearer
from fardo.core.protect.forms.asks import Ask, Held
from fardo.core.quantity import cubic_cm, volume_nm3
from fardo.core.refusal import BadInput

FORM = "stuffing"
TITLE = "stuffed into the hollow"
ASKS: tuple[Ask, ...] = ("hollow",)
HELD: Held = "hull"


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    hollow = volume_nm3(*layer.hollow) if layer.hollow else _hollow(wearer.shape)
    if not hollow:
        raise BadInput(
            "the hollow is not known", read="nothing", allowed="its size, such as 10 x 4 x 3 in", field="hollow"
        )
    if layer.material.fills:
        pads = -(-hollow // layer.material.fills)
        says: tuple[str, ...] = (f"{pads} {'pad' if pads == 1 else 'pads'} in each.",)
        return Coat(layer.material, NONE, (), Fraction(pads), says, shell_nm3=0)
    says = ("Firm enough to keep its shape, not to spread it.",)
    # The hole of a ring is room of the box; any other hollow is inside what was measured.
    shell = None if isinstance(wearer.shape, Ring) else 0
    return Coat(layer.material, NONE, (), Fraction(cubic_cm(hollow) / 1000), says, shell_nm3=shell)


def _hollow(shape: Shape) -> int:
    """The hole of a ring; others are measured."""
    if isinstance(shape, Ring):
        return Cylinder(shape.inner_diameter, shape.thickness).volume_nm3
    return 0
