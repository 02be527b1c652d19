"""A strip woven around a handle: in an S through it and hooked around the thing (common practice).

Its length is once around the thing and four times what the handle sticks out.
"""

from __future__ import annotations

from fardo.core.goods.shape import Cup
from fardo.core.protect.coat import NONE, Coat, Cut, Layer, Wearer, metres, plus, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.refusal import BadInput

FORM = "woven"
TITLE = "strip woven around a handle"
ASKS: tuple[Ask, ...] = ("layers", "lengths")
_HANDLE_TURNS = 4


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """Raises BadInput for a shape that has no handle, where no length is typed."""
    lengths = layer.lengths
    if not lengths:
        if not isinstance(wearer.shape, Cup):
            raise BadInput(
                "no handle is known on this shape", read=wearer.shape.KIND, field="lengths",
                allowed="the shape cup, or the length of each strip",
            )  # fmt: skip
        around = wearer.shape.body_girth + wearer.shape.handle * _HANDLE_TURNS
        lengths = (plus(around, layer.material.overlap),) * layer.layers
    width = layer.material.width
    cuts = tuple(Cut(1, length, width) for length in lengths)
    amount = square_metres(cuts) if layer.material.sold == "m2" else metres(lengths)
    says = ("In an S through the handle until it is full, then once around and hooked into itself.",)
    return Coat(layer.material, NONE, cuts, amount, says)
