"""Where nothing that is there fits as it is: the box that can be re-cut, and what it lacks."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from fardo.core.make import Made, carrier_container, recut, shelf, stash

_AS_IT_IS = (shelf.NAME, stash.NAME, carrier_container.NAME)  # ways that take a box as it comes


def with_what_can_be_made_over(cannot: Iterable[tuple[str, str]], made: Iterable[Made]) -> Iterator[tuple[str, str]]:
    """The ways it cannot be boxed, and why, with the box that can be re-cut named where one is."""
    over = next((one for one in made if one.way == recut.NAME), None)
    for name, why in cannot:
        if over is not None and name in _AS_IT_IS:
            lacks = over.notes[0].removesuffix(".") if over.notes else ""
            why = f"{why}; {over.item} can be re-cut" + (f": {lacks[0].lower()}{lacks[1:]}" if lacks else "")
        yield name, why
