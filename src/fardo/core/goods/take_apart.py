"""Taking apart: which step saves how much, what is kept in which bag, and how it all goes back together.

How far to go is a choice. The receiver's sheet is the chosen steps read backwards.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from fardo.core.quantity import Length, Mass

LIFTING = "Over 50 lb (23 kg): two people lift it, or a trolley does. Local rules may ask for less."


@dataclass(frozen=True, slots=True)
class TakeApartStep:
    """A step of taking goods apart.

    Args:
        do: what is done.
        tool: with what.
        turn: which way a thread turns.
        caution: shown beside the step.
        keep: what comes loose and where it is kept, which makes a bag.
        back: how it goes back on; without it the step is turned round in words.
        frees: names of the parts that come off.
    """

    id: str
    do: str
    tool: str = ""
    turn: str = ""
    caution: str = ""
    keep: str = ""
    back: str = ""
    frees: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class BagLabel:
    """What stands on a bag of small hardware. `number` of `of` bags."""

    number: int
    of: int
    holds: str
    goes_to: str


@dataclass(frozen=True, slots=True)
class BackStep:
    """A step of putting together, for the receiver. `bag` is the number of the bag it needs, 0 for none."""

    number: int
    do: str
    tool: str
    turn: str
    caution: str
    bag: int


def side_after(side: Length, saves: Length, taken: bool) -> Length | None:
    """A side of the thing once a step is taken, or left again; None where it would come to nothing.

    Args:
        saves: what the step takes off it.
    """
    after = side - saves if taken else side + saves
    return after if after.nm > 0 else None


def weight_after(weight: Mass, count: int, off: Iterable[tuple[Mass, int]], taken: bool) -> Mass | None:
    """What each of `count` things weighs once a step is taken, or left again: its share of what came off them less, or
    more. None where it would come to nothing.

    Args:
        off: what comes off, the weight of one and how many.
    """
    share = sum(one.ng * times for one, times in off) // count
    after = weight.ng - share if taken else weight.ng + share
    return Mass(after) if after > 0 else None


def bag_labels(steps: Sequence[TakeApartStep]) -> tuple[BagLabel, ...]:
    """One label for each step that leaves something small, in the order of taking apart."""
    bags = [step for step in steps if step.keep]
    # A step that frees nothing leaves its screws where they were: at the thing itself.
    return tuple(BagLabel(n, len(bags), step.keep, ", ".join(step.frees)) for n, step in enumerate(bags, 1))


def put_back(steps: Sequence[TakeApartStep]) -> tuple[BackStep, ...]:
    """The chosen steps, last first."""
    bags = [step.id for step in steps if step.keep]
    return tuple(
        BackStep(
            n,
            step.back or f"Undo: {step.do[0].lower()}{step.do[1:]}",
            step.tool,
            step.turn,
            step.caution,
            bags.index(step.id) + 1 if step.id in bags else 0,
        )
        for n, step in enumerate(reversed(steps), 1)
    )
