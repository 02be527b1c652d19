"""An insert that a job asks for, and what is cut for it."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

MOST_PIECES = 200  # of one kind
MINUTES_A_PIECE = Fraction(1)  # to cut and fold one: starting value

Where = Literal["below", "above", "both"]
Field = Literal["count", "where", "along", "across", "size", "length", "depth"]
_MEASURES: tuple[tuple[Field, str], ...] = (
    ("size", "length x width x height of the thing"), ("length", "a measure"), ("depth", "a measure"),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Asks:
    """What a kind of insert asks for.

    Args:
        field: of `Wanted`.
        label: beside its field on the screen.
    """

    field: Field
    label: str


@dataclass(frozen=True, slots=True)
class Wanted:
    """An insert that a job asks for. What its kind does not ask for is left out.

    Args:
        kind: one of the register.
        where: whether under or over the goods.
        along, across: cells; 0 where they come from the goods.
        size: of the thing it is for.
        length, depth: its own.
    """

    kind: str
    count: int = 1
    where: Where = "below"
    along: int = 0
    across: int = 0
    size: Sizes | None = None
    length: Length | None = None
    depth: Length | None = None

    @property
    def from_goods(self) -> bool:
        """Whether nobody said how many cells there are."""
        return not (self.along or self.across)

    def must_have(self, asks: tuple[Asks, ...]) -> None:
        """Raises BadInput naming a measure that is asked for and not there."""
        asked = {one.field for one in asks}
        for field, allowed in _MEASURES:
            if field in asked and getattr(self, field) is None:
                raise BadInput("nothing given", read="", allowed=allowed, field=field)


@dataclass(frozen=True, slots=True)
class Insert:
    """An insert of board, worked out.

    Args:
        blanks: to cut.
        says: what a packer should know, with {} where a measure belongs.
        measures: in that order.
    """

    kind: str
    blanks: tuple[Blank, ...]
    says: str = ""
    measures: tuple[Length, ...] = ()
