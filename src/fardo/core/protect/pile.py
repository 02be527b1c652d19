"""Piles of flat things: as even as can be, no more than a sleeve holds, half of each turned about (common practice)."""

from __future__ import annotations

from dataclasses import replace

from fardo.core.goods.shape import Box, Disc, Outline, Shape, Sizes
from fardo.core.quantity import ZERO
from fardo.core.refusal import BadInput


def divide(count: int, piles: int) -> tuple[int, ...]:
    """How many go on each pile, the higher piles first.

    >>> divide(23, 3)
    (8, 8, 7)
    """
    if not 1 <= piles <= count:
        raise BadInput(
            "not a number of piles for so many things", read=f"{piles} piles of {count}", allowed=f"1 to {count}",
            field="piles",
        )  # fmt: skip
    each, over = divmod(count, piles)
    return (each + 1,) * over + (each,) * (piles - over)


def piles_needed(count: int, holds: int) -> int:
    """The fewest piles of which none has more than `holds`, what a sleeve holds."""
    return -(-count // holds)


def stacked(shape: Shape, count: int) -> Shape:
    """A pile of flat things as one. Raises BadInput for a shape that is not flat."""
    if isinstance(shape, Disc | Outline):
        return replace(shape, thickness=shape.thickness * count)
    if isinstance(shape, Box):
        thin = min(("height", "width", "length"), key=lambda side: getattr(shape, side).nm)
        return replace(shape, **{thin: getattr(shape, thin) * count})
    raise BadInput("not a flat thing", read=shape.KIND, allowed="a box, disc or outline in piles", field="shape.kind")


def lying(shape: Shape, count: int) -> tuple[Sizes, ...]:
    """Where each of a pile lies in it: one on the other, through the thickness."""
    thin = shape.thin if isinstance(shape, Box) else 2
    step = shape.sizes[thin]
    spots = []
    for n in range(count):
        x, y, z = (step * n if axis == thin else ZERO for axis in range(3))
        spots.append((x, y, z))
    return tuple(spots)


def how_to_pile(count: int) -> tuple[str, ...]:
    """What is said beside a pile of so many."""
    if count < 2:
        return ()
    return (
        f"Turn {count // 2} of the {count} about, every other one, so that spines alternate and the pile lies level.",
        "Stiff backs look out at the top and the bottom; the dearest lies in the middle.",
    )
