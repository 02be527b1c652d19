"""The goods as they are measured: one box-shaped thing, and the extras that must go in with it."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass

Sizes = tuple[Length, Length, Length]  # length, width, height


@dataclass(frozen=True, slots=True)
class Part:
    """A thing to send, measured wrapped and at its widest.

    Args:
        name: for lists and labels. sizes: length, width, height as it stands in the box.
        weight: of one. gap: free on each of the six sides, filled when packed.
    """

    name: str
    sizes: Sizes
    weight: Mass
    gap: Length


@dataclass(frozen=True, slots=True)
class Extra:
    """What must go in besides the goods: a bottle, a booklet, the card. It may lie on any side of its own."""

    name: str
    sizes: Sizes
    weight: Mass
