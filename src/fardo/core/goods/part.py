"""The goods as they are measured: parts in their own shapes, and the extras that must go in with them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Shape, Sizes
from fardo.core.quantity import INCH, ZERO, Length, Mass

__all__ = ["Extra", "ExtraPlace", "Part", "Rules", "Sizes"]

_AS_PAPER = INCH.half().half().half()  # 1/8 in: starting value
MOST_OF_ONE = 999  # of one thing in a job


def sides_less(sizes: Sizes, by: Length) -> Sizes:
    """Each side less by so much, down to nothing."""
    a, b, c = (max(side - by, ZERO) for side in sizes)
    return a, b, c


@dataclass(frozen=True, slots=True)
class Rules:
    """How a part may lie. It keeps its height upright where `this_side_up` or `keep_flat` is said.

    Args:
        bears: the most that may lie over it, None where nobody said.
        bundle: parts of one name are held together.
        apart: names of parts that it must not lie beside.
        not_with: names of parts that go in another parcel.
        hard_edges: they punch through a bag or a mailer.
        cushion_for: the part that it lies in front of and behind, half of it on each side.
    """

    this_side_up: bool = False
    keep_flat: bool = False
    no_load_on_top: bool = False
    bears: Mass | None = None
    bundle: str = ""
    apart: frozenset[str] = frozenset()
    hard_edges: bool = False
    cushion_for: str = ""
    not_with: frozenset[str] = frozenset()

    @property
    def upright(self) -> bool:
        return self.this_side_up or self.keep_flat


@dataclass(frozen=True, slots=True)
class Part:
    """A thing to send, measured bare and at its widest.

    Args:
        name: for lists and labels.
        count: how many alike.
        weight: of one.
        fragility: in g, what it bears; None where nobody said.
        gap: free around it once wrapped, filled when packed.
        proven: how it is packed in practice, where that stands over the cushion check.
    """

    name: str
    shape: Shape
    weight: Mass
    gap: Gap
    count: int = 1
    fragility: int | None = None
    rules: Rules = Rules()
    proven: str = ""

    @property
    def sizes(self) -> Sizes:
        return self.shape.sizes


ExtraPlace = Literal["inside the wrap", "beside", "on top", "outside"]


@dataclass(frozen=True, slots=True)
class Extra:
    """What must go in besides the goods: a bottle, a booklet, the card. It may lie on any side of its own.

    Args:
        place: where it goes; anywhere but beside the goods it is folded or lies flat and sizes no parcel.
    """

    name: str
    sizes: Sizes
    weight: Mass
    place: ExtraPlace = "beside"

    @property
    def lies_flat(self) -> bool:
        """Whether it never decides the size of a parcel."""
        return self.place != "beside"

    @staticmethod
    def as_paper(sizes: Sizes) -> bool:
        """Whether a thing so thin is taken for a slip or a card, where nobody said."""
        return min(sizes) <= _AS_PAPER
