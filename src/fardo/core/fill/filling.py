"""What goes into each void, and how full the box is packed.

Heavy and rigid goods are packed firm, over-full so that the lid pushes up a little and the fill settles; what a blow
would crush is packed not too full (two schools, common practice): by how fragile the parts are unless somebody says.
Large voids are blocked with board or an empty box and not filled; loose fill only tops up around what is wrapped shut,
and never with cloth or exhibits (common practice).
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from fardo.core.fill.material import Fill, named
from fardo.core.fill.voids import Void, Where
from fardo.core.quantity import INCH, Mass, Money, cubic_cm
from fardo.core.quantity.money import total

Full = Literal["firm", "soft"]
FULL: dict[Full, str] = {
    "firm": "over-full, so that the lid pushes up a little and the fill settles",
    "soft": "not too full: a blow must be taken by the fill and not by the goods",
}
OVER_FULL = Fraction(11, 10)  # so much more goes into what is packed firm: starting value
_SOFT_UP_TO = 60  # g, of the most fragile part: starting value
_LARGE, _LARGE_LITRES = INCH * 5, Fraction(10)  # a void that is blocked and not filled: starting values


@dataclass(frozen=True)
class FillWish:
    """What a job says of its fill.

    Args:
        name: of the kind of fill, nothing for the shop's usual.
        places: others by place.
        loose: whether loose fill may be used at all, None where nobody said.
        full: None where nobody said.
    """

    name: str = ""
    places: Mapping[Where, str] = field(default_factory=dict)
    loose: bool | None = None
    full: Full | None = None

    def __hash__(self) -> int:
        return hash((self.name, tuple(sorted(self.places.items())), self.loose, self.full))


@dataclass(frozen=True, slots=True)
class Filled:
    """A void and what goes in.

    Args:
        litres: of the void.
        stuffed: of fill, more where it is packed firm.
    """

    void: Void
    fill: Fill
    litres: Fraction
    stuffed: Fraction

    @property
    def weight(self) -> Mass:
        return self.fill.weight(self.stuffed)

    @property
    def price(self) -> Money:
        return self.fill.price(self.stuffed)

    @property
    def fetched(self) -> str:
        return self.fill.fetched(self.stuffed)


@dataclass(frozen=True, slots=True)
class Filling:
    """All that is filled.

    Args:
        places: in order.
        full: by which school.
        note: why something else goes in than was asked for.
    """

    places: tuple[Filled, ...]
    full: Full
    note: str = ""

    @property
    def weight(self) -> Mass:
        return Mass(sum(one.weight.ng for one in self.places))

    def price(self, currency: str) -> Money:
        return total([one.price for one in self.places], currency)

    @property
    def fetched(self) -> list[tuple[Fill, Fraction]]:
        """Each kind of fill with how many litres of it are stuffed in all."""
        found: dict[str, tuple[Fill, Fraction]] = {}
        for one in self.places:
            _, so_far = found.get(one.fill.name, (one.fill, Fraction(0)))
            found[one.fill.name] = (one.fill, so_far + one.stuffed)
        return list(found.values())


def fill_voids(
    voids: Sequence[Void],
    wish: FillWish,
    fills: Sequence[Fill],
    fragilities: Iterable[int | None],
    open_parts: Sequence[str],
) -> Filling:
    """What goes where.

    Args:
        fills: the shop's, the usual first.
        fragilities: of the parts, in g.
        open_parts: names of those that are not wrapped shut.
    """
    full = wish.full or _school(fragilities)
    more = OVER_FULL if full == "firm" else Fraction(1)
    usual = named(fills, wish.name) or fills[0]
    kept_out = _no_loose(wish, open_parts)
    instead = next((fill for fill in fills if fill.form not in ("loose", "block")), fills[0])
    block = next((fill for fill in fills if fill.form == "block"), None)
    note = ""
    places = []
    for void in voids:
        asked = named(fills, wish.places.get(void.where, ""))
        fill = asked or usual
        litres = cubic_cm(void.volume_nm3) / 1000
        if asked is None and block is not None and void.depth >= _LARGE and litres >= _LARGE_LITRES:
            fill = block
        if fill.form == "loose" and kept_out:
            fill, note = instead, f"No {fill.name} here: {kept_out}; {instead.name} goes in instead"
        stuffed = litres if fill.form == "block" else litres * more
        places.append(Filled(void, fill, litres, stuffed))
    return Filling(tuple(places), full, note)


def _school(fragilities: Iterable[int | None]) -> Full:
    known = [g for g in fragilities if g is not None]
    return "soft" if known and min(known) <= _SOFT_UP_TO else "firm"


def _no_loose(wish: FillWish, open_parts: Sequence[str]) -> str:
    """Why loose fill is kept out; nothing where it may be used."""
    if wish.loose is False:
        return "not with such goods"
    if open_parts:
        return f"{open_parts[0]} is not wrapped shut"
    return ""


NO_FILLING = Filling((), "firm")
NO_WISH = FillWish()
