"""Where a price can change with the size and the weight of a parcel: what charges, limits and rules hang on."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, fields

from fardo.core.quantity import Length, Mass


@dataclass(frozen=True, slots=True)
class Marks:
    """What is exactly at a mark counts below it.

    Args:
        longest, second: of those sides.
        around: of length and girth together.
        united_inches: of all three sides together.
        weight: as weighed.
        volume: nm3.
        tiers: a step that sides are rounded down to, and volumes in cubes of it.
        flat_side, flat_both: of a soft pack as it lies flat, of its longer side and of both together.
    """

    longest: tuple[Length, ...] = ()
    second: tuple[Length, ...] = ()
    around: tuple[Length, ...] = ()
    united_inches: tuple[Length, ...] = ()
    weight: tuple[Mass, ...] = ()
    volume: tuple[int, ...] = ()
    tiers: tuple[tuple[Length, tuple[int, ...]], ...] = ()
    flat_side: tuple[Length, ...] = ()
    flat_both: tuple[Length, ...] = ()

    @classmethod
    def all_of(cls, several: Iterable[Marks]) -> Marks:
        """Every mark of each."""
        listed = list(several)
        return cls(**{
            field.name: tuple(dict.fromkeys(mark for one in listed for mark in getattr(one, field.name)))
            for field in fields(cls)
        })  # fmt: skip


NO_MARKS = Marks()


def known(*marks: Length | None) -> tuple[Length, ...]:
    """Those there are."""
    return tuple(mark for mark in marks if mark is not None)
