"""Things in the cells of a divider: how many cells there are, how large the inside is, and where each thing lies.

A cell is as large as the largest thing wrapped, up to the step of the tape; strips and the slip come on top (common
practice). Each thing stands in the middle of its cell.
"""

from __future__ import annotations

from dataclasses import replace

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.body import Body, Laid, stance
from fardo.core.arrange.turn import TURNS, UNTURNED, Turn
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import SLIP, Allowances
from fardo.core.make.inserts import divider
from fardo.core.make.inserts.wanted import Wanted
from fardo.core.plan.load import Load, bodies_of
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import NoAnswer

CELLS = "a cell is as large as the largest thing, wrapped, up to the step of the tape (common practice)"


def divider_of(load: Load) -> Wanted | None:
    """The divider that is asked for, if one is."""
    return next((one for one in load.inserts if one.kind == divider.KIND), None)


def lacks_cells(load: Load) -> bool:
    """Whether a divider is asked for whose cells nobody said, for one thing alone."""
    wanted = divider_of(load)
    return wanted is not None and wanted.from_goods and len(load.units) < 2


def with_cells(load: Load) -> Load:
    """The load with the cells of its divider counted from the goods, where nobody said how many; without a divider
    where it is one thing alone.

    Raises: NoAnswer where there are fewer cells than things.
    """
    wanted = divider_of(load)
    if wanted is None:
        return load
    count = len(load.units)
    if not wanted.from_goods:
        if wanted.along * wanted.across < count:
            raise NoAnswer(f"{count} things, and the divider has {wanted.along} x {wanted.across} cells")
        return load
    if count < 2:
        return replace(load, inserts=tuple(one for one in load.inserts if one is not wanted))
    along, across = _grid(count, *_widest(load)[:2])
    inserts = tuple(replace(one, along=along, across=across) if one is wanted else one for one in load.inserts)
    return replace(load, inserts=inserts)


def turned_about(wanted: Wanted) -> Wanted:
    """The same divider in a box whose other side is the length."""
    return replace(wanted, along=wanted.across, across=wanted.along) if wanted.kind == divider.KIND else wanted


def in_cells(load: Load, t: Length, allowances: Allowances, inside: Sizes | None = None) -> Arrangement:
    """Where each thing stands in its cell; extras that take room lie over the divider.

    Args:
        t: of the strips.
        inside: of a box that is there; of what the cells come to where none is.
    """
    wanted = divider_of(load)
    assert wanted is not None
    goods = [body for body in bodies_of(load) if not body.extra]
    low, high = (max(body.gap.at_walls((0, 1, 2), body.shape.thin)[end][2] for body in goods) for end in range(2))
    widest = _widest(load)
    cells = (wanted.along, wanted.across)
    over = [_lying_flat(body) for body in bodies_of(load) if body.extra]
    if inside is None:
        length, width = (
            allowances.at_least(allowances.at_least(side + t) * count - t) + allowances[SLIP]
            for side, count in zip(widest[:2], cells, strict=True)
        )
        for _, (long, wide, _) in over:
            length, width = max(length, long), max(width, wide)
        inside = (length, width, sum((sizes[2] for _, sizes in over), start=low + widest[2] + high))
    each = divider.cells_in(inside, cells, t, allowances)
    # All of them in the middle: the cells at the ends take what is over.
    start = [
        (whole - (cell + t) * count + t).half() for whole, cell, count in zip(inside[:2], each, cells, strict=True)
    ]
    laid: list[Laid | None] = []
    for n, body in enumerate(goods):
        row, column = divmod(n, wanted.along)
        sizes = stance(body, UNTURNED).sizes
        x, y = (
            begin + (cell + t) * at + (cell - size).half()
            for begin, cell, at, size in zip(start, each, (column, row), sizes[:2], strict=True)
        )
        laid.append(Laid(UNTURNED, (x, y, low)))
    top = low + widest[2] + high
    for turn, (_, _, high_as_it_lies) in over:
        laid.append(Laid(turn, (ZERO, ZERO, top)))
        top = top + high_as_it_lies
    return Arrangement(inside, tuple(laid), tuple(range(len(laid))))


def _lying_flat(body: Body) -> tuple[Turn, Sizes]:
    """How an extra lies over the divider: on its largest side, its longest along."""
    by_turn = ((turn, stance(body, turn).sizes) for turn in TURNS)
    return min(by_turn, key=lambda one: (one[1][2].nm, -one[1][0].nm, one[0]))


def _widest(load: Load) -> Sizes:
    sizes = [stance(body, UNTURNED).sizes for body in bodies_of(load) if not body.extra]
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
