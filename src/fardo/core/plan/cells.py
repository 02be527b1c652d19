"""Things in the cells of a divider: how many cells there are, how large the inside is, and where each thing lies.

A cell is as large as the largest thing wrapped, up to the step of the tape; strips and the slip come on top (common
practice). Each thing stands in the middle of its cell.
"""

from __future__ import annotations

from dataclasses import replace

from fardo.core.arrange.ask import Answer
from fardo.core.arrange.body import Laid, stance
from fardo.core.arrange.turn import UNTURNED
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SLIP, Allowances
from fardo.core.make.inserts import divider
from fardo.core.make.inserts.strip import loose
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.plan.load import Load, bodies_of
from fardo.core.quantity import Length
from fardo.core.refusal import NoAnswer

CELLS = "a cell is as large as the largest thing, wrapped, up to the step of the tape (common practice)"


def divider_of(load: Load) -> Wanted | None:
    """The divider that is asked for, if one is."""
    return next((one for one in load.inserts if one.kind == divider.KIND), None)


def with_cells(load: Load) -> Load:
    """The load with the cells of its divider counted from the goods, where nobody said how many.

    Raises: NoAnswer where there are fewer cells than things, or one thing alone.
    """
    wanted = divider_of(load)
    if wanted is None:
        return load
    count = len(bodies_of(load))
    if wanted.along and wanted.across:
        if wanted.along * wanted.across < count:
            raise NoAnswer(f"{count} things, and the divider has {wanted.along} x {wanted.across} cells")
        return load
    if count < 2:
        raise NoAnswer("a divider parts two things or more")
    along, across = _grid(count, *_widest(load)[:2])
    inserts = tuple(replace(one, along=along, across=across) if one is wanted else one for one in load.inserts)
    return replace(load, inserts=inserts)


def turned_about(wanted: Wanted) -> Wanted:
    """The same divider in a box whose other side is the length."""
    return replace(wanted, along=wanted.across, across=wanted.along) if wanted.kind == divider.KIND else wanted


def in_cells(load: Load, t: Length, allowances: Allowances, inside: Sizes | None = None) -> Answer:
    """Where each thing stands in its cell.

    Args:
        t: of the strips. inside: of a box that is there; of what the cells come to where none is.
    """
    wanted = divider_of(load)
    assert wanted is not None
    bodies = bodies_of(load)
    low, high = (max(body.gap.at_walls((0, 1, 2), body.shape.thin)[end][2] for body in bodies) for end in range(2))
    widest = _widest(load)
    cells = (wanted.along, wanted.across)
    if inside is None:
        length, width = (
            allowances.at_least(allowances.at_least(side) * count + t * (count - 1)) + allowances[SLIP]
            for side, count in zip(widest[:2], cells, strict=True)
        )
        inside = (length, width, widest[2] + low + high)
    free = loose(inside, allowances)
    each = [Length((side.nm - t.nm * (count - 1)) // count) for side, count in zip(free, cells, strict=True)]
    start = [(whole - side).half() for whole, side in zip(inside[:2], free, strict=True)]
    laid: list[Laid | None] = []
    for n, body in enumerate(bodies):
        row, column = divmod(n, wanted.along)
        sizes = stance(body, UNTURNED).sizes
        x, y = (
            begin + (cell + t) * at + (cell - size).half()
            for begin, cell, at, size in zip(start, each, (column, row), sizes[:2], strict=True)
        )
        laid.append(Laid(UNTURNED, (x, y, low)))
    return Answer(inside, tuple(laid), tuple(range(len(bodies))))


def _widest(load: Load) -> Sizes:
    sizes = [stance(body, UNTURNED).sizes for body in bodies_of(load)]
    a, b, c = (max(side) for side in zip(*sizes, strict=True))
    return a, b, c


def _grid(count: int, length: Length, width: Length) -> tuple[int, int]:
    """The most compact, then that of fewest cells, the longer side along."""
    found = []
    for along in range(1, min(count, divider.MOST_CELLS) + 1):
        across = -(-count // along)
        if across > divider.MOST_CELLS:
            continue
        a, b = along * length.nm, across * width.nm
        found.append((a + b, along * across, a < b, along, across))
    *_, along, across = min(found)
    return along, across
