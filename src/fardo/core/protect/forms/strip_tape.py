"""Low-tack tape over three sides of a pile, an inch onto each face (common practice): it never touches a sleeve with
packing tape.
"""

from __future__ import annotations

from fardo.core.protect.coat import NONE, Coat, Cut, Layer, Wearer, metres
from fardo.core.protect.forms.asks import Ask
from fardo.core.quantity import INCH

FORM = "tape"
TITLE = "tape over three sides"
ASKS: tuple[Ask, ...] = ()
_SIDES = 3
_ONTO_A_FACE = INCH


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    strip = wearer.sizes[wearer.axes[2]] + _ONTO_A_FACE * 2
    says = ("Over three sides, turned under at one end to pull it off by.",)
    return Coat(layer.material, NONE, (Cut(_SIDES, strip),), metres([strip] * _SIDES), says)
