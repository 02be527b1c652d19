"""What is fetched before packing begins: the sum over the steps, by place, and what of it is short."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal, TypeVar, get_args

from fardo.core.cut.drawing import Point
from fardo.core.fill.material import Fill
from fardo.core.make.stock import Stock
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, TapeUsed, Used, WrapUsed
from fardo.core.plan.boxed import Boxed
from fardo.core.protect.material import Material

T = TypeVar("T")
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
        short: how many are missing, where they are counted.
    """

    place: Place
    name: str
    amount: Fraction = Fraction(0)
    material: Material | None = None
    fill: Fill | None = None
    size: Point | None = None
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
    taken = [(one.name, Fraction(one.count)) for one in used if isinstance(one, BoxUsed)]
    taken += [(one.taken, one.amount) for one in used if isinstance(one, WrapUsed) and one.taken]
    return [
        Fetched("Boxes and mailers", name, count, short=max(int(count) - there.get(name, int(count)), 0))
        for name, count in _sums(taken)
    ]


def _board(used: Sequence[Used]) -> list[Fetched]:
    cut = [((one.board, one.blank, one.size), Fraction(one.count)) for one in used if isinstance(one, BoardUsed)]
    return [Fetched("Board", f"{board}, {blank}", count, size=size) for (board, blank, size), count in _sums(cut)]


def _wrap(used: Sequence[Used]) -> list[Fetched]:
    wrap = [(one.material, one.amount) for one in used if isinstance(one, WrapUsed) and not one.taken]
    return [Fetched("Wrap", material.name, amount, material=material) for material, amount in _sums(wrap)]


def _fill(used: Sequence[Used]) -> list[Fetched]:
    fill = [(one.fill, one.litres) for one in used if isinstance(one, FillUsed)]
    return [Fetched("Fill", kind.name, litres, fill=kind) for kind, litres in _sums(fill)]


def _tape(used: Sequence[Used]) -> list[Fetched]:
    metres = sum((Fraction(one.total.nm, 10**9) for one in used if isinstance(one, TapeUsed)), Fraction(0))
    return [Fetched("Tape", "tape", metres)] if metres else []


def _sums(found: Iterable[tuple[T, Fraction]]) -> Iterable[tuple[T, Fraction]]:
    """Each once with how much of it there is, in the order in which it first comes."""
    sums: dict[T, Fraction] = {}
    for what, amount in found:
        sums[what] = sums.get(what, Fraction(0)) + amount
    return sums.items()


def _tools(steps: Iterable[PackingStep]) -> list[str]:
    """Each once, in the order in which it is first in hand; what is done by hand needs none."""
    return list(dict.fromkeys(step.tool for step in steps if step.tool and step.tool != "by hand"))


def stock_used(boxed: Boxed) -> dict[str, int]:
    """Boxes and mailers of the stock that a packed parcel uses up, those that parts are packed in too, by name."""
    used: Counter[str] = Counter()
    for taken in boxed.made.taken:
        used[taken.item.name] += taken.count
    for coat in boxed.coats:
        if coat.taken is not None:
            used[coat.taken.name] += coat.takes
    return dict(used)
