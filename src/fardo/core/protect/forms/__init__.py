"""How materials are put on, one module a form. A new form is a new module here and a line in the register.

Each has `FORM`, `TITLE`, `ORDER` (surface first, then shape, then wrap, common practice) and
`put_on(wearer, layer) -> Coat`. `CROSSED` says that it can be wound both ways.
"""

from __future__ import annotations

from types import ModuleType

from fardo.core.protect.coat import Coat, Layer, Wearer
from fardo.core.protect.forms import bag, corner, edge, face, pad, stuffing, surface, tube, wrap
from fardo.core.refusal import BadInput

__all__ = ["BOXED", "FORMS", "LINER", "check_crossed", "put_on"]

BOXED = "box"  # a box of its own: made as every box is, see plan/wrapped
LINER = "liner"  # lines the walls of the box, see forms/liner
FORMS: dict[str, ModuleType] = {
    module.FORM: module for module in (surface, bag, stuffing, corner, face, edge, tube, wrap, pad)
}


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """One layer on what it is put on. Raises BadInput where its form does not suit that shape."""
    form = layer.material.form
    if form not in FORMS:
        raise BadInput(
            f"{layer.material.name} is not put on a part", read=layer.material.code,
            allowed="a material of the forms " + ", ".join(FORMS), field="material",
        )  # fmt: skip
    coat: Coat = FORMS[form].put_on(wearer, layer)
    return coat


def check_crossed(layer: Layer) -> None:
    """Raises BadInput where a layer is to be wound both ways and is not wound at all."""
    form = layer.material.form
    wound = [name for name, module in FORMS.items() if getattr(module, "CROSSED", False)]
    if layer.crossed and form not in wound:
        raise BadInput(
            f"{layer.material.name} is not wound, so that it cannot be wound both ways", read="crossed",
            allowed=f"a material of the form {', '.join(wound)}", field="crossed",
        )  # fmt: skip
