"""A layer on one side of a thing only: a flat piece that covers that face or end, nothing on the others."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, along, square_metres
from fardo.core.protect.material import IN_WORDS_OF_SIDES, Side

# Which way of a thing each side lies across.
AXES: dict[Side, int] = {"left": 0, "right": 0, "front": 1, "back": 1, "below": 2, "above": 2}


def on_one_side(wearer: Wearer, layer: Layer) -> Coat:
    """As large as the side, as many as there are layers. It adds its thickness once, half of it on each side of the
    thing, which stays in the middle of its size.
    """
    axis = AXES[layer.on]
    u, v = (wearer.sizes[k] for k in range(3) if k != axis)
    cuts = (Cut(layer.layers, max(u, v), min(u, v)),)
    thick = layer.material.thickness * layer.layers
    amount = {"m2": square_metres(cuts), "each": Fraction(layer.layers)}[layer.material.sold]
    says = (f"{IN_WORDS_OF_SIDES[layer.on]} only.",)
    return replace(Coat(layer.material, along(axis, thick.half()), cuts, amount, says), one_side=True)
