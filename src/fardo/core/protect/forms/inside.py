"""Foam or card inside a thing: under a cover, a wedge with a notch under a floating plate. It adds nothing outside."""

from __future__ import annotations

from fardo.core.protect.coat import NONE, Coat, Cut, Layer, Wearer, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.refusal import BadInput

FORM = "inside"
TITLE = "inside the thing"
ASKS: tuple[Ask, ...] = ("layers", "hollow")


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """As many pieces of the room's length and width as fill its height, for each of `layers` places.

    Raises: BadInput where the room is not said.
    """
    if layer.hollow is None:
        raise BadInput(
            "the room inside is not known", read="nothing", field="hollow",
            allowed="length x width x height of what goes in, such as 16 x 12 x 1 in",
        )  # fmt: skip
    length, width, height = layer.hollow
    t = layer.material.thickness
    pieces = max(1, -(-height.nm // t.nm)) if t.nm else 1
    cuts = (Cut(pieces * layer.layers, max(length, width), min(length, width)),)
    says = ("Cut a notch where something stands in the way. It holds what floats; it does not press on it.",)
    return Coat(layer.material, NONE, cuts, square_metres(cuts), says, shell_nm3=0)
