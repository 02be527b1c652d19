"""Between: a sheet of card or foam between each two of a pile, as between two pictures back to back."""

from __future__ import annotations

from fardo.core.protect.coat import Coat, Cut, Layer, Wearer, along, square_metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.refusal import BadInput

FORM = "between"
TITLE = "between each two of a pile"
ASKS: tuple[Ask, ...] = ("layers",)


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """One fewer than lie in the pile. Raises BadInput for what lies by itself."""
    if wearer.pile < 2:
        raise BadInput(
            "nothing to lie between", read="one by itself", allowed="two or more in a pile: say Piles", field="material"
        )
    thin = wearer.shape.thin
    u, v = (wearer.shape.sizes[k] for k in range(3) if k != thin)
    sheets = (wearer.pile - 1) * layer.layers
    cuts = (Cut(sheets, max(u, v), min(u, v)),)
    growth = along(thin, (layer.material.thickness * sheets).half())
    says = ("Face to face or back to back, never face to back.",)
    return Coat(layer.material, growth, cuts, square_metres(cuts), says)
