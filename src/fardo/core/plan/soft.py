"""What may travel in a bag or a mailer as it is: what does not break and has no hard edges, small sturdy things in a
padded mailer, flat things between boards, or what is in a closed box of its own (common practice).

The figures are starting values that a shop can change.
"""

from __future__ import annotations

from fardo.core.make.soft import SoftGates
from fardo.core.make.stock import POUCHES, PouchKind
from fardo.core.plan.load import Load
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.cushion import NO_LIMIT
from fardo.core.protect.forms import BOXED, STIFF
from fardo.core.quantity import INCH

_STIFFENS: frozenset[PouchKind] = frozenset({"rigid"})
_FLAT_TO = INCH * 2  # what is thicker is no flat thing between boards: starting value
_SOFT_WALLS: frozenset[PouchKind] = frozenset({"bag"})


def kept_out(load: Load, gates: SoftGates) -> dict[str, str]:
    """Of each kind of mailer that a load may not travel in, the gate it fails, in words."""
    found: dict[str, str] = {}
    for kind in POUCHES:
        if load.goods_weight > gates.heaviest:
            found[kind] = "too heavy for a bag or mailer: Settings says how heavy it may be"
            continue
        fails = (why for unit in load.units if (why := _fails(unit, kind, gates)))
        if (why := next(fails, None)) is not None:
            found[kind] = why
    return found


def _fails(unit: Wrapped, kind: PouchKind, gates: SoftGates) -> str | None:
    forms = {coat.material.form for coat in unit.coats}
    part = unit.part
    if BOXED in forms:
        return None
    bears = part.fragility
    if bears is None:
        return f"{part.name}: say how fragile it is first; only what does not break goes in a bag or mailer bare"
    between_boards = bool(STIFF & forms) and min(unit.sizes) <= _FLAT_TO
    if bears < gates.bears:
        return f"{part.name} may break: only a closed box of it goes in a bag or mailer"
    if kind in _SOFT_WALLS and bears < NO_LIMIT and not between_boards:
        return f"{part.name} may break in a bare bag: a mailer, or a closed box in the bag"
    if part.rules.keep_flat and kind not in _STIFFENS and not between_boards:
        return f"{part.name} must stay flat: a rigid mailer, or boards on both sides of it"
    if part.rules.hard_edges and kind != "padded":
        return f"{part.name} has hard edges that punch out: a closed box of it may go in a bag"
    if kind in _SOFT_WALLS and not unit.coats:
        return f"{part.name} is bare: wrap it first; what has hard edges goes in a box"
    return None
