"""The gap around a part as a job says it: one length, or lengths by place."""

from __future__ import annotations

from pydantic import Field

from fardo.core.goods.gap import Gap
from fardo.core.quantity import ZERO, Length, Units
from fardo.core.refusal import BadInput
from fardo.files.typed import Measure, Strict, to_length, with_units


class GapEntry(Strict):
    """What is kept free around a part, by place. What is left out follows the shop's habit; `below` and `above` follow
    `wall`.
    """

    wall: Measure | None = Field(None, description="to the walls of the box")
    between: Measure | None = Field(None, description="to other things; of two things the larger holds")
    below: Measure | None = Field(None, description="under it")
    above: Measure | None = Field(None, description="over it")
    edges: Measure | None = Field(None, description="at the four edges of a flat thing")
    faces: Measure | None = Field(None, description="at the two faces of a flat thing")


PLACES = tuple(GapEntry.model_fields)


def to_gap(said: str | float | GapEntry | None, habit: Length, touches: bool, units: Units, field: str) -> Gap:
    """The gap that a part says, by place or one for all.

    Args:
        said: as the job has it, None where it says nothing.
        habit: the shop's, for so fragile a thing.
        touches: whether it is in piles or packed as one, so that nothing is between unless that is said.

    Raises: BadInput naming `field`.
    """
    if not isinstance(said, GapEntry):
        everywhere = habit if said is None else to_length(said, units, field, zero=True)
        return Gap(everywhere, ZERO if touches else everywhere)

    def read(place: str) -> Length | None:
        value = getattr(said, place)
        return None if _empty(value) else to_length(value, units, f"{field}.{place}", zero=True)

    wall = read("wall")
    wall = habit if wall is None else wall
    between = read("between")
    if between is None:
        between = ZERO if touches else wall
    return Gap(wall, between, read("below"), read("above"), read("edges"), read("faces"))


def gap_of_text(text: str, units: Units, field: str) -> GapEntry:
    """A gap by place, as in one cell of a table; bare numbers keep the unit that they have there.

    Raises: BadInput naming `field`.

    >>> gap_of_text("edges 2 in, faces 1/2", "in", "gap").faces
    '1/2 in'
    """
    found: dict[str, str] = {}
    for one in text.split(","):
        place, _, length = one.strip().partition(" ")
        if place.lower() not in PLACES or place.lower() in found:
            raise BadInput("not a place of a gap", read=place, allowed=", ".join(PLACES) + ", each once", field=field)
        to_length(length, units, field, zero=True)
        found[place.lower()] = length.strip()
    return with_units(GapEntry.model_validate(found), units)


def text_of_gap(said: GapEntry) -> str:
    """By place, for one cell of a table."""
    each = ((place, getattr(said, place)) for place in PLACES)
    return ", ".join(
        f"{place} {value if isinstance(value, str) else f'{value:g} mm'}" for place, value in each if not _empty(value)
    )


def _empty(value: str | float | None) -> bool:
    return value is None or (isinstance(value, str) and not value.strip())
