"""A packing step: what is done, with how much of what, for how long, and what to heed meanwhile."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.cut.drawing import Point
from fardo.core.fill.material import Fill
from fardo.core.goods.part import Sizes
from fardo.core.plan.tape import TapeStrips
from fardo.core.protect.coat import Cut
from fardo.core.protect.material import Material
from fardo.core.quantity import Length

Section = Literal["Take apart", "Wrap", "Box", "Pack", "Check", "Close", "Send"]
Measure = Length | Sizes


@dataclass(frozen=True, slots=True)
class BoardUsed:
    """Blanks that are cut from sheet.

    Args:
        board: its name.
        blank: the name of the blank.
        size: it is cut from.
    """

    board: str
    blank: str
    size: Point
    count: int


@dataclass(frozen=True, slots=True)
class BoxUsed:
    """Boxes or mailers that are taken from stock or from the stash."""

    name: str
    count: int


@dataclass(frozen=True, slots=True)
class WrapUsed:
    """A wrap.

    Args:
        amount: of what it is sold by.
        cuts: the pieces to cut.
        taken: the name of the box or mailer from stock that it is, with `amount` of them; nothing for what is cut.
    """

    material: Material
    amount: Fraction
    cuts: tuple[Cut, ...] = ()
    taken: str = ""


@dataclass(frozen=True, slots=True)
class FillUsed:
    """Fill that is stuffed in, in litres."""

    fill: Fill
    litres: Fraction


Used = BoardUsed | BoxUsed | WrapUsed | FillUsed | TapeStrips


@dataclass(frozen=True, slots=True)
class PackingStep:
    """One step at the bench.

    Args:
        key: tells it from every other of the plan.
        section: of the work it belongs to.
        do: in words, with {} where a measure belongs.
        measures: in that order.
        says: how it is done, in sentences.
        used: what it takes.
        tool: it is done with.
        cautions: that stand beside it.
        minutes: it takes.
        people: it takes, one or two.
        goes_in: so many things lie in the box once it is done; None where the box is not in the picture.
        count: what must be there once it is done, each with its number.
        of: the box or the pieces that it is done with: with others it is another step.
    """

    key: str
    section: Section
    do: str
    measures: tuple[Measure, ...] = ()
    says: tuple[str, ...] = ()
    used: tuple[Used, ...] = ()
    tool: str = ""
    cautions: tuple[str, ...] = ()
    minutes: Fraction = Fraction(0)
    people: int = 1
    goes_in: int | None = None
    count: tuple[tuple[str, int], ...] = ()
    of: str = ""

    @property
    def tick(self) -> str:
        """What a tick of it is kept by: what was done for another box is not done for this one."""
        return f"{self.key}, {self.of}" if self.of else self.key


def done_otherwise(steps: Sequence[str], done: Collection[str]) -> bool:
    """Whether a step that was done is to be done again, with another box or other pieces.

    Args:
        steps: the ticks of today's steps.
        done: the ticks there are, of whatever plan.
    """
    again = {_whatever_with(step) for step in steps if step not in done}
    return any(_whatever_with(step) in again for step in done if step not in steps)


def _whatever_with(tick: str) -> str:
    """The key of a step, without what it is done with."""
    return tick.partition(", ")[0]
