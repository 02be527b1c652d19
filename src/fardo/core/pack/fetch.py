"""What is fetched before packing begins: the sum over the steps, by place, and what of it is short."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, get_args

from fardo.core.cut.drawing import Point
from fardo.core.fill.material import Fill
from fardo.core.make.stock import Stock
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, TapeUsed, Used, WrapUsed
from fardo.core.protect.material import Material
from fardo.core.quantity import ZERO, Length

Place = Literal["Boxes and mailers", "Board", "Wrap", "Fill", "Tape", "Tools"]
PLACES: tuple[Place, ...] = get_args(Place)


@dataclass(frozen=True, slots=True)
class Fetched:
    """Something that is fetched, once for all steps that take of it.

    Args:
        name: as it is called on its shelf.
        amount: pieces; of wrap what it is sold by; of fill litres; of tape metres.
        material, fill: of what it is, to show the amount.
        size: of a blank of board.
        length: of tape.
        short: how many are missing, where they are counted.
    """

    place: Place
    name: str
    amount: Fraction = Fraction(0)
    material: Material | None = None
    fill: Fill | None = None
    size: Point | None = None
    length: Length = ZERO
    short: int = 0


def to_fetch(steps: Iterable[PackingStep], stock: Stock) -> tuple[Fetched, ...]:
    """Everything the steps take, by place.

    Args:
        stock: that is there, to tell what is short.
    """
    every = tuple(steps)
    used = [one for step in every for one in step.used]
    return (
        *_boxes(used, stock), *_board(used), *_wrap(used), *_fill(used), *_tape(used),
        *(Fetched("Tools", tool, Fraction(1)) for tool in _tools(every)),
    )  # fmt: skip


def _boxes(used: Sequence[Used], stock: Stock) -> list[Fetched]:
    there: dict[str, int] = {one.name: one.count for one in stock.boxes}
    there |= {one.name: one.count for one in stock.pouches}
    counts: dict[str, int] = {}
    for one in used:
        if isinstance(one, BoxUsed):
            counts[one.name] = counts.get(one.name, 0) + one.count
        elif isinstance(one, WrapUsed) and one.taken:
            counts[one.taken] = counts.get(one.taken, 0) + int(one.amount)
    return [
        Fetched("Boxes and mailers", name, Fraction(count), short=max(count - there.get(name, count), 0))
        for name, count in counts.items()
    ]


def _board(used: Sequence[Used]) -> list[Fetched]:
    counts: dict[tuple[str, str, Point], int] = {}
    for one in used:
        if isinstance(one, BoardUsed):
            key = (one.board, one.blank, one.size)
            counts[key] = counts.get(key, 0) + one.count
    return [
        Fetched("Board", f"{board}, {blank}", Fraction(count), size=size)
        for (board, blank, size), count in counts.items()
    ]


def _wrap(used: Sequence[Used]) -> list[Fetched]:
    found: dict[str, tuple[Material, Fraction]] = {}
    for one in used:
        if isinstance(one, WrapUsed) and not one.taken:
            _, so_far = found.get(one.material.code, (one.material, Fraction(0)))
            found[one.material.code] = one.material, so_far + one.amount
    return [Fetched("Wrap", material.name, amount, material=material) for material, amount in found.values()]


def _fill(used: Sequence[Used]) -> list[Fetched]:
    found: dict[str, tuple[Fill, Fraction]] = {}
    for one in used:
        if isinstance(one, FillUsed):
            _, so_far = found.get(one.fill.name, (one.fill, Fraction(0)))
            found[one.fill.name] = one.fill, so_far + one.litres
    return [Fetched("Fill", fill.name, litres, fill=fill) for fill, litres in found.values()]


def _tape(used: Sequence[Used]) -> list[Fetched]:
    length = sum((one.total for one in used if isinstance(one, TapeUsed)), start=ZERO)
    return [Fetched("Tape", "tape", Fraction(length.nm, 10**9), length=length)] if length.nm else []


def _tools(steps: Iterable[PackingStep]) -> list[str]:
    """Each once, in the order in which it is first in hand; what is done by hand needs none."""
    return list(dict.fromkeys(step.tool for step in steps if step.tool and step.tool != "by hand"))
