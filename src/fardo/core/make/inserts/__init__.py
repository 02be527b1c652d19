"""What goes into a box of board, cut with it, one module a kind. A new kind is a new module here and a line in the
register.

Each has `KIND`, `TITLE`, `ASKS` (what is asked of it, in the order of asking), `COUNT` (how many there are to begin
with) and `cut(wanted, inside, t, allowances) -> Insert`. One that takes room of the inside says how much by
`room(wanted, t)`, one that can be asked for in vain refuses it by `check(wanted)`, and one that goes on a thing before
that is packed has `ON_GOODS`. All of it is common practice;
the sizes follow from the way board folds (see `made`).
"""

from __future__ import annotations

from types import ModuleType

from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import Allowances
from fardo.core.make.inserts import corner_cap, divider, edge_cap, liner, pad, sleeve, spacer
from fardo.core.make.inserts.wanted import Insert, Wanted
from fardo.core.quantity import ZERO, Length

INSERTS: dict[str, ModuleType] = {
    module.KIND: module for module in (pad, liner, divider, sleeve, spacer, edge_cap, corner_cap)
}
_NO_ROOM = (ZERO, ZERO, ZERO)


def check_insert(wanted: Wanted) -> Wanted:
    """The insert itself. Raises BadInput naming what it lacks or cannot be."""
    module = INSERTS[wanted.kind]
    wanted.must_have(module.ASKS)
    if hasattr(module, "check"):
        module.check(wanted)
    return wanted


def cut_insert(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    """What is cut for an insert of a box of that inside. Raises BadInput naming what it lacks or cannot be."""
    module = INSERTS[check_insert(wanted).kind]
    cut: Insert = module.cut(wanted, inside, t, allowances)
    return cut


def goes_on_goods(kind: str) -> bool:
    """Whether it goes on a thing before that is packed."""
    return getattr(INSERTS[kind], "ON_GOODS", False)


def room_of(wanted: Wanted, t: Length) -> tuple[Length, Length, Length]:
    """What an insert takes of the inside: under the goods, over them, and at each wall."""
    takes = getattr(INSERTS[wanted.kind], "room", None)
    return takes(wanted, t) if takes else _NO_ROOM
