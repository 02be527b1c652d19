"""A parcel as a carrier sees it: outside sizes, weight, where from and to."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from operator import attrgetter
from typing import Literal

from fardo.core.quantity import Length, Mass, Money, volume_nm3
from fardo.core.refusal import BadInput

Form = Literal["box", "soft", "not rectangular"]
_nanometres = attrgetter("nm")  # quicker than comparing lengths as such; prices are asked for by the thousand
_CODE = re.compile(r"[A-Z0-9][A-Z0-9 -]{0,10}[A-Z0-9]")


@dataclass(frozen=True, slots=True)
class Parcel:
    """A closed parcel as a carrier sees it.

    Args:
        sizes: outside, in any order.
        weight: actual.
        origin, destination: postcodes.
        residential: to a home.
        value: declared, or None.
        hazards: tags of what services may refuse, see goods/hazard.
        form: a rectangular box, a soft pack, or what is not rectangular.
        flat: length and width of a soft pack as it lies empty.
        container: the carrier's own that it is in, by name.
        signature: whether one is asked for.
        beside: other parcels that go with it to the same door; a value of theirs is their own.
        distance: by road to that door, where somebody said.
        country: it goes to, by its code, nothing at home.
        stiff: whether it does not bend, as a letter does.
    """

    sizes: tuple[Length, Length, Length]
    weight: Mass
    origin: str
    destination: str
    residential: bool = False
    value: Money | None = None
    hazards: frozenset[str] = frozenset()
    form: Form = "box"
    flat: tuple[Length, Length] | None = None
    container: str = ""
    signature: bool = False
    beside: tuple[Parcel, ...] = ()
    distance: Length | None = None
    country: str = ""
    stiff: bool = True

    def of_sizes(self, sizes: tuple[Length, Length, Length]) -> Parcel:
        """The same with other sizes; quicker than `replace`, as a map of prices asks for hundreds."""
        return Parcel(
            sizes, self.weight, self.origin, self.destination, self.residential, self.value, self.hazards, self.form,
            self.flat, self.container, self.signature, self.beside, self.distance, self.country, self.stiff,
        )  # fmt: skip

    @property
    def sides(self) -> tuple[Length, Length, Length]:
        """Longest first: a carrier's length is the longest side."""
        a, b, c = sorted(self.sizes, key=_nanometres, reverse=True)
        return a, b, c

    @property
    def length(self) -> Length:
        return self.sides[0]

    @property
    def girth(self) -> Length:
        """All the way round across the length: 2 (width + height)."""
        return (self.sides[1] + self.sides[2]) * 2

    @property
    def united_inches(self) -> Length:
        """Length, width and height together, as luggage is measured."""
        a, b, c = self.sizes
        return a + b + c

    @property
    def volume_nm3(self) -> int:
        return volume_nm3(*self.sizes)


def soft_pack(parcel: Parcel, flat: tuple[Length, Length] | None = None) -> Parcel:
    """The same parcel in a bag or an envelope.

    Args:
        flat: its length and width as it lies empty and trimmed; what a bag needs around such a parcel, l + h and w + h
            without seams (common practice), where that is not said.
    """
    a, b, c = parcel.sides
    return replace(parcel, form="soft", flat=flat or (a + c, b + c))


def read_postcode(text: str, field: str = "") -> str:
    """A postcode in capitals without outer spaces. Raises BadInput for anything that cannot be one."""
    code = " ".join(text.upper().split())
    if not _CODE.fullmatch(code):
        raise BadInput("not a postcode", read=text, allowed="2 to 12 letters and digits, such as 73120", field=field)
    return code
