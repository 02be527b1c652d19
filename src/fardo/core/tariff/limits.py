"""What a service does not take: a side, a girth or a weight over its limit. What is exactly at a limit is taken."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass, Units, show_length, show_mass
from fardo.core.tariff.marks import Marks, known
from fardo.core.tariff.parcel import Parcel


@dataclass(frozen=True, slots=True)
class Limits:
    """Each None where there is none. `second_side` is the middle one of the three, `united_inches` all three together,
    `thickness` the shortest; `bends` takes only what does, as a letter.
    """

    longest_side: Length | None = None
    second_side: Length | None = None
    length_and_girth: Length | None = None
    weight: Mass | None = None
    united_inches: Length | None = None
    thickness: Length | None = None
    bends: bool = False

    @property
    def marks(self) -> Marks:
        return Marks(
            known(self.longest_side), known(self.second_side), known(self.length_and_girth), known(self.united_inches)
        )


def over_limit(parcel: Parcel, limits: Limits, units: Units) -> str | None:
    """The first limit that is broken, as a sentence in the tariff's units, or None."""
    if not _broken(parcel, limits):
        return None
    longest, second, _ = parcel.sides
    for what, measure, most in (
        ("longest side", longest, limits.longest_side),
        ("second side", second, limits.second_side),
        ("length and girth", longest + parcel.girth, limits.length_and_girth),
        ("length, width and height together", parcel.united_inches, limits.united_inches),
        ("thickness", parcel.sides[2], limits.thickness),
    ):
        if most is not None and measure > most:
            # The measure goes up and the limit down, so that the two are never shown as equal.
            shown, limit = show_length(measure, units, "up"), show_length(most, units, "down")
            return f"{what} is {shown}; the most is {limit}"
    if limits.bends and parcel.stiff:
        return "is stiff; only what bends is taken"
    if limits.weight is not None and parcel.weight > limits.weight:
        return f"weighs {show_mass(parcel.weight, units, 'up')}; the most is {show_mass(limits.weight, units, 'down')}"
    return None


def _broken(parcel: Parcel, limits: Limits) -> bool:
    """Whether any is, in whole nanometres: asked for by the thousand."""
    a, b, c = (side.nm for side in parcel.sides)
    return (
        (limits.longest_side is not None and a > limits.longest_side.nm)
        or (limits.second_side is not None and b > limits.second_side.nm)
        or (limits.length_and_girth is not None and a + 2 * (b + c) > limits.length_and_girth.nm)
        or (limits.united_inches is not None and a + b + c > limits.united_inches.nm)
        or (limits.thickness is not None and c > limits.thickness.nm)
        or (limits.bends and parcel.stiff)
        or (limits.weight is not None and parcel.weight > limits.weight)
    )
