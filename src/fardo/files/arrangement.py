"""An arrangement in a job file: where each thing lies in the inside of the box, within its liner.

It is kept as what it is, a claim: whoever reads it asks whether it still holds for the parts as they are.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fardo.core.arrange.ask import Arrangement
from fardo.core.arrange.body import Body, lay
from fardo.core.goods.part import Sizes
from fardo.core.plan.load import Load, bodies_of, placed
from fardo.core.quantity import Length
from fardo.files.typed import Strict

_FAR_MM = 100_000.0
Coordinate = Annotated[float, Field(ge=-_FAR_MM, le=_FAR_MM, allow_inf_nan=False)]
Entry = Annotated[float, Field(ge=-1.0, le=1.0, allow_inf_nan=False)]
Place = tuple[Coordinate, Coordinate, Coordinate]
TurnEntry = tuple[tuple[Entry, Entry, Entry], tuple[Entry, Entry, Entry], tuple[Entry, Entry, Entry]]


class PlacedEntry(Strict):
    """One thing: a point p of it bare lies at turn x p + at. Where a part is piled, a thing is a pile."""

    name: str = Field(max_length=120)
    number: int = Field(ge=1, le=999, description="which of that name")
    at_mm: Place
    turn: TurnEntry
    goes_in: int = Field(ge=1, le=2000, description="when it goes in, from above")
    locked: bool = Field(False, description="it stays there when the rest is arranged anew")


class ArrangementEntry(Strict):
    inside_mm: Place
    placements: list[PlacedEntry] = Field(max_length=200)
    extras: list[PlacedEntry] = Field(default_factory=list, max_length=60)


def read_arrangement(entry: ArrangementEntry, load: Load) -> Arrangement | None:
    """The arrangement as it is said, or None where its things are not those of the load."""
    bodies = bodies_of(load)
    said = [*((e, False) for e in entry.placements), *((e, True) for e in entry.extras)]
    by_name = {(e.name, e.number, extra): e for e, extra in said}
    keys = _keys(bodies)
    if len(by_name) != len(said) or set(by_name) != set(keys):
        return None
    entries = [by_name[key] for key in keys]
    inside, places = _lengths(entry.inside_mm), [_lengths(one.at_mm) for one in entries]
    order = sorted(range(len(entries)), key=lambda n: (entries[n].goes_in, n))
    laid = [lay(body, one.turn, at, one.locked) for body, one, at in zip(bodies, entries, places, strict=True)]
    whole = tuple(one for one in laid if one is not None)
    return Arrangement(inside, whole, tuple(order)) if len(whole) == len(laid) else None


def write_arrangement(load: Load, answer: Arrangement) -> ArrangementEntry:
    """As it is kept; what has no place is left out."""
    keys = _keys(bodies_of(load))
    placements: list[PlacedEntry] = []
    extras: list[PlacedEntry] = []
    for one in placed(load, answer):
        name, number, extra = keys[one.number]
        x, y, z = one.origin
        entry = PlacedEntry(
            name=name, number=number, at_mm=(x.mm, y.mm, z.mm), turn=one.laid.turn, goes_in=one.goes_in,
            locked=one.laid.locked,
        )  # fmt: skip
        (extras if extra else placements).append(entry)
    a, b, c = answer.inside
    return ArrangementEntry(inside_mm=(a.mm, b.mm, c.mm), placements=placements, extras=extras)


def _keys(bodies: tuple[Body, ...]) -> list[tuple[str, int, bool]]:
    """The name of each thing, which of that name it is, and whether it is an extra."""
    counts: dict[tuple[str, bool], int] = {}
    keys = []
    for body in bodies:
        name = body.name[:120]
        counts[name, body.extra] = counts.get((name, body.extra), 0) + 1
        keys.append((name, counts[name, body.extra], body.extra))
    return keys


def _lengths(mm: Place) -> Sizes:
    a, b, c = (Length.of_mm(round(value, 6)) for value in mm)
    return a, b, c
