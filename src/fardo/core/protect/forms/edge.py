"""Edge caps: a profile pushed over the four long edges of a slab."""

from __future__ import annotations

from dataclasses import replace

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, all_round, metres
from fardo.core.protect.forms.asks import Ask, Held
from fardo.core.protect.forms.one_side import AXES
from fardo.core.protect.material import IN_WORDS_OF_SIDES
from fardo.core.quantity import ZERO
from fardo.core.refusal import BadInput

FORM = "edge"
TITLE = "caps along the edges"
ASKS: tuple[Ask, ...] = ("on",)
HELD: Held = "block"


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    if layer.on != "all":
        return _on_one_edge(wearer, layer)
    long, middle, _ = (wearer.sizes[axis] for axis in wearer.axes)
    cuts = (Cut(2, long), Cut(2, middle))
    return Coat(layer.material, all_round(layer.material.thickness), cuts, metres([long, long, middle, middle]))


def _on_one_edge(wearer: Wearer, layer: Layer) -> Coat:
    """One cap along the edge that looks that way; it grips both faces."""
    axis, thin = AXES[layer.on], wearer.axes[2]
    if axis == thin:
        raise BadInput(
            "that side is a face and no edge", read=layer.on, allowed="a side across its length or width", field="on"
        )
    edge = next(wearer.sizes[k] for k in range(3) if k not in (axis, thin))
    growth = [ZERO, ZERO, ZERO]
    growth[axis], growth[thin] = layer.material.thickness.half(), layer.material.thickness
    by: Sizes = (growth[0], growth[1], growth[2])
    says = (f"{IN_WORDS_OF_SIDES[layer.on]} only.",)
    return replace(Coat(layer.material, by, (Cut(1, edge),), metres([edge]), says), one_side=True)
