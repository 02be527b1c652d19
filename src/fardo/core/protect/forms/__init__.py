"""How materials are put on, one module a form. A new form is a new module here and a line in the register.

Each has `FORM`, `TITLE`, `ASKS` (what it asks of a layer) and `put_on(wearer, layer) -> Coat`, unless what wears it is
a box.
`HELD` says how it lies beside other things where that is not in its own shape, `LAPS` that a length of it meets itself
and laps, `ON_WALLS` that it goes on the walls of the box, `AROUND` that it goes around several things too, `OF_STOCK`
which boxes or mailers there a layer of it may be, `SHUTS` that loose fill does not get into what wears it. Layers go on
in the order in which a job has them.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from types import ModuleType

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Layer, Wearer, grown
from fardo.core.protect.forms import (
    bag,
    between,
    board_sleeve,
    corner,
    edge,
    face,
    inner_box,
    inside,
    liner,
    pad,
    strip_tape,
    stuffing,
    surface,
    tube,
    woven,
    wrap,
)
from fardo.core.protect.forms.asks import Held, OfStock
from fardo.core.protect.forms.one_side import on_one_side
from fardo.core.quantity import Length, volume_nm3
from fardo.core.refusal import BadInput

__all__ = [
    "BAGGED", "BOXED", "FORMS", "PADDED", "STIFF", "WOUND",
    "check_crossed", "goes_on_walls", "held_by", "put_on",
]  # fmt: skip

BOXED, BAGGED, PADDED, WOUND = inner_box.FORM, bag.FORM, pad.FORM, wrap.FORM
STIFF = frozenset({face.FORM, board_sleeve.FORM})
FORMS: dict[str, ModuleType] = {
    module.FORM: module
    for module in (
        surface,
        bag,
        strip_tape,
        stuffing,
        inside,
        woven,
        between,
        corner,
        face,
        board_sleeve,
        edge,
        tube,
        wrap,
        pad,
        inner_box,
        liner,
    )
}
_FIRMNESS: tuple[Held, ...] = ("own", "hull", "block")


def put_on(wearer: Wearer, layer: Layer) -> Coat:
    """One layer on what it is put on. Raises BadInput where its form does not suit that shape."""
    form = FORMS[layer.material.form]
    if not hasattr(form, "put_on"):
        allowed = ", ".join(name for name, one in FORMS.items() if hasattr(one, "put_on"))
        raise BadInput(
            f"{layer.material.name} is not put on a part", read=layer.material.code,
            allowed=f"a material of the forms {allowed}", field="material",
        )  # fmt: skip
    _check_side(layer)
    coat: Coat = form.put_on(wearer, layer) if layer.on == "all" or form is edge else on_one_side(wearer, layer)
    if coat.shell_nm3 is None and any(by.nm for by in coat.growth):
        coat = replace(coat, shell_nm3=_shell(wearer, coat.growth))
    gives = layer.material.gives * layer.layers
    return replace(coat, gives=gives.half() if coat.one_side else gives, reused=layer.reused)


def _shell(wearer: Wearer, growth: Sizes) -> int:
    """The room between a thing and what it is grown to, in nm3; of one that is no box as much all round as on the
    mean.
    """
    if wearer.shape.KIND == "box":
        after = grown(wearer.sizes, grown(growth, growth))
        return volume_nm3(*after) - volume_nm3(*wearer.sizes)
    before, added = _mean(wearer.grown), _mean(growth)
    return wearer.shape.wrapped_nm3(before + added) - wearer.shape.wrapped_nm3(before)


def _mean(sizes: Sizes) -> Length:
    return Length(sum(side.nm for side in sizes) // 3)


def held_by(forms: Iterable[str]) -> Held:
    """How what wears these lies beside other things."""
    held: list[Held] = [getattr(FORMS[form], "HELD", "own") for form in forms]
    return max(held, key=_FIRMNESS.index, default="own")


def goes_on_walls(form: str) -> bool:
    return getattr(FORMS[form], "ON_WALLS", False)


def goes_around_several(form: str) -> bool:
    return getattr(FORMS[form], "AROUND", False)


def shuts(form: str) -> bool:
    return getattr(FORMS[form], "SHUTS", False)


def of_stock(form: str) -> OfStock:
    """What there is that a layer of that form may be: nothing for most."""
    of: OfStock = getattr(FORMS[form], "OF_STOCK", "")
    return of


def _check_side(layer: Layer) -> None:
    """Raises BadInput where a layer is to go on one side and cannot."""
    if layer.on != "all" and "on" not in FORMS[layer.material.form].ASKS:
        allowed = ", ".join(name for name, module in FORMS.items() if "on" in module.ASKS)
        raise BadInput(
            f"{layer.material.name} goes all round", read=layer.on, allowed=f"a material of the forms {allowed}",
            field="on",
        )  # fmt: skip


def check_crossed(layer: Layer) -> None:
    """Raises BadInput where a layer is to be wound both ways and is not wound at all."""
    wound = [name for name, module in FORMS.items() if "crossed" in module.ASKS]
    if layer.crossed and layer.material.form not in wound:
        raise BadInput(
            f"{layer.material.name} is not wound, so that it cannot be wound both ways", read="crossed",
            allowed=f"a material of the form {', '.join(wound)}", field="crossed",
        )  # fmt: skip
