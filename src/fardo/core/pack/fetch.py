"""What is fetched before packing begins: the sum over the steps, by place, and what of it is short."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal, TypeVar, get_args

from fardo.core.cut.drawing import Point
from fardo.core.fill.material import Fill
from fardo.core.make.stock import Stock
from fardo.core.pack.packing_step import BoardUsed, BoxUsed, FillUsed, PackingStep, Used, WrapUsed
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.shop import Supplies
from fardo.core.plan.tape import TapeStrips
from fardo.core.protect.material import Material

T = TypeVar("T")
NOT_COUNTED = Supplies()
Place = Literal["Boxes and mailers", "Board", "Wrap", "Fill", "Tape", "Papers", "Tools"]
PLACES: tuple[Place, ...] = get_args(Place)


@dataclass(frozen=True, slots=True)
class Fetched:
    """Something that is fetched, once for all steps that take of it.

    Args:
        name: as it is called on its shelf.
        amount: pieces; of wrap what it is sold by; of fill litres; of tape metres.
        material, fill: of what it is, to show the amount.
        size: of a blank of board.
        short: how much is missing of what is counted, as `amount`.
    """

    place: Place
    name: str
    amount: Fraction = Fraction(0)
    material: Material | None = None
    fill: Fill | None = None
    size: Point | None = None
    short: Fraction = Fraction(0)


def to_fetch(steps: Iterable[PackingStep], stock: Stock, supplies: Supplies = NOT_COUNTED) -> tuple[Fetched, ...]:
    """Everything the steps take, by place.

    Args:
        stock: of boxes and mailers that is there, to tell what is short.
        supplies: of wrap, fill and tape.
    """
    every = tuple(steps)
    used = [one for step in every for one in step.used]
    return (
        *_boxes(used, stock), *_board(used), *_wrap(used, supplies), *_fill(used, supplies), *_tape(used, supplies),
        *(Fetched("Tools", tool, Fraction(1)) for tool in _tools(every)),
    )  # fmt: skip


def _boxes(used: Sequence[Used], stock: Stock) -> list[Fetched]:
    there: dict[str, Fraction | int] = {one.name: one.count for one in stock.boxes}
    there |= {one.name: one.count for one in stock.pouches}
    taken = [(one.name, Fraction(one.count)) for one in used if isinstance(one, BoxUsed)]
    taken += [(one.taken, one.amount) for one in used if isinstance(one, WrapUsed) and one.taken]
    return [
        Fetched("Boxes and mailers", name, count, short=_short(count, there.get(name))) for name, count in _sums(taken)
    ]


def _board(used: Sequence[Used]) -> list[Fetched]:
    cut = [((one.board, one.blank, one.size), Fraction(one.count)) for one in used if isinstance(one, BoardUsed)]
    return [Fetched("Board", f"{board}, {blank}", count, size=size) for (board, blank, size), count in _sums(cut)]


def _wrap(used: Sequence[Used], supplies: Supplies) -> list[Fetched]:
    wrap = [(one.material, one.amount) for one in used if isinstance(one, WrapUsed) and not one.taken]
    return [
        Fetched("Wrap", one.name, amount, material=one, short=_short(amount, supplies.wrap.get(one.code)))
        for one, amount in _sums(wrap)
    ]


def _fill(used: Sequence[Used], supplies: Supplies) -> list[Fetched]:
    # What each step takes up, so that no sheet is wanting at the last.
    fill = [(one.fill, one.fill.taken(one.litres)) for one in used if isinstance(one, FillUsed)]
    return [
        Fetched("Fill", kind.name, litres, fill=kind, short=_short(litres, supplies.fill.get(kind.name)))
        for kind, litres in _sums(fill)
    ]


def _tape(used: Sequence[Used], supplies: Supplies) -> list[Fetched]:
    metres = sum((Fraction(one.total.nm, 10**9) for one in used if isinstance(one, TapeStrips)), Fraction(0))
    return [Fetched("Tape", "tape", metres, short=_short(metres, supplies.tape))] if metres else []


def _short(wanted: Fraction, there: Fraction | int | None) -> Fraction:
    """How much is missing; nothing of what is not counted."""
    return Fraction(0) if there is None else max(wanted - there, Fraction(0))


def _sums(found: Iterable[tuple[T, Fraction]]) -> Iterable[tuple[T, Fraction]]:
    """Each once with how much of it there is, in the order in which it first comes."""
    sums: dict[T, Fraction] = {}
    for what, amount in found:
        sums[what] = sums.get(what, Fraction(0)) + amount
    return sums.items()


def _tools(steps: Iterable[PackingStep]) -> list[str]:
    """Each once, in the order in which it is first in hand; what is done by hand needs none."""
    return list(dict.fromkeys(step.tool for step in steps if step.tool and step.tool != "by hand"))


@dataclass(frozen=True, slots=True)
class StockUsed:
    """What a packed parcel uses up.

    Args:
        boxes: boxes and mailers of the stock, those that parts are packed in too, by name.
        wrap: by the code of the material, of what it is sold by.
        fill: by its name, litres.
        tape: metres.
    """

    boxes: Mapping[str, int] = field(default_factory=dict)
    wrap: Mapping[str, Fraction] = field(default_factory=dict)
    fill: Mapping[str, Fraction] = field(default_factory=dict)
    tape: Fraction = Fraction(0)


NOTHING_USED = StockUsed()


def stock_used(boxed: Boxed) -> StockUsed:
    """What a packed parcel takes off the stock, as its plan counts it."""
    boxes: Counter[str] = Counter()
    for taken in boxed.made.taken:
        boxes[taken.item.name] += taken.count
    for coat in boxed.coats:
        if coat.taken is not None:
            boxes[coat.taken.name] += coat.takes
    return StockUsed(
        dict(boxes),
        dict(_sums((coat.material.code, coat.amount) for coat in boxed.coats if coat.taken is None)),
        dict(_sums((one.fill.name, one.fill.taken(one.stuffed)) for one in boxed.filling.places)),
        Fraction(boxed.tape_length.nm, 10**9),
    )
