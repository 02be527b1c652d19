"""How worn a used box is: four questions, and what each takes off the strength that a used box is trusted with.

Common practice; the shares are starting values.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

WearCode = Literal["crushed", "torn", "again", "damp"]


@dataclass(frozen=True, slots=True)
class Wear:
    """A sign of wear and what it takes off the strength.

    Args:
        question: answered yes where it is so.
        keeps: the share of its strength that is left; 0 where such a box is not used again.
    """

    question: str
    keeps: Fraction


WEAR: dict[WearCode, Wear] = {
    "crushed": Wear("a corner or an edge is crushed", Fraction(4, 5)),
    "torn": Wear("a wall is torn, cut or holed", Fraction(7, 10)),
    "again": Wear("it was sent more than once", Fraction(4, 5)),
    "damp": Wear("it is soft or was wet", Fraction(0)),
}


def left_of(worn: Iterable[WearCode]) -> Fraction:
    """The share of its strength that is left.

    >>> left_of({"crushed", "again"})
    Fraction(16, 25)
    """
    left = Fraction(1)
    for code in worn:
        left *= WEAR[code].keeps
    return left
