"""Postage by size alone: volume tiers, soft-pack tiers, and a price for a container, whatever it weighs up to a cap.

Volume tiers: each side rounded down to a step, the volume up to so much, the longest side and the weight limited (0.1
to 0.5 ft3, a quarter inch, 18 in, 20 lb). Soft packs: by flat length + width, neither over so much (up to 21, 27, 31,
34, 36 in; 18 in). Containers: by name, up to 70 lb. (The forms of the Domestic Mail Manual, from memory.)
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction

from fardo.core.quantity import Length, Mass, Money, Units, show_length, show_mass, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.core.tariff.charges.rows import falls
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.measure import WeightRule, round_side
from fardo.core.tariff.parcel import Parcel


@dataclass(frozen=True, slots=True)
class VolumeTiers(Charge):
    """Postage by tiers of volume.

    Args:
        zones: the columns, none for one price everywhere.
        rows: volume up to and including, nm3, rising, and the price a column.
        unit: what the rows are told in, nm3 and its name.
        step: sides are rounded down to it.
        longest, weight: at most.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[Fraction, tuple[Money, ...]], ...]
    unit: tuple[int, str]
    step: Length
    longest: Length
    weight: Mass
    units: Units = "in"

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        parcel = sent.parcel
        a, b, c = (round_side(side, self.step, "down") for side in parcel.sides)
        _at_most("longest side", parcel.length, self.longest, self.units)
        _weighs_at_most(parcel.weight, self.weight, self.units)
        volume = Fraction(volume_nm3(a, b, c), self.unit[0])
        at = bisect_left(self.rows, volume, key=lambda row: row[0])
        shown = " x ".join(show_length(side, self.units, "down").text for side in (a, b, c))
        if at == len(self.rows):
            raise NoAnswer(
                f"{shown} is {float(volume):.3f} {self.unit[1]}; the tiers end at {float(self.rows[-1][0]):g}"
            )
        up_to, prices = self.rows[at]
        why = f"{shown} is {float(volume):.3f} {self.unit[1]}, tier up to {float(up_to):g}; its weight does not count"
        return ChargeLine("postage", f"postage by volume, zone {sent.zone.zone}", sent.price(self.zones, prices), why)

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        ends = tuple((row * self.unit[0] / self.step.nm**3).__floor__() for row, _ in self.rows)
        return Marks(longest=(self.longest,), weight=(self.weight,), tiers=((self.step, ends),))

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return (falls(self.rows, self.zones, lambda key: f"{float(key):g}"),)


@dataclass(frozen=True, slots=True)
class SoftPackTiers(Charge):
    """Postage of a soft pack by tiers of its flat size.

    Args:
        zones: the columns, none for one price everywhere.
        rows: flat length + width up to and including, rising, and the price a column.
        side, weight: at most.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[Length, tuple[Money, ...]], ...]
    side: Length
    weight: Mass
    units: Units = "in"

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        parcel = sent.parcel
        if parcel.form != "soft" or parcel.flat is None:
            raise NoAnswer("takes soft packs only")
        length, width = parcel.flat
        _at_most("flat side", max(length, width), self.side, self.units)
        _weighs_at_most(parcel.weight, self.weight, self.units)
        both = length + width
        at = bisect_left(self.rows, both, key=lambda row: row[0])
        shown = show_length(both, self.units, "up").text
        if at == len(self.rows):
            most = show_length(self.rows[-1][0], self.units, "down").text
            raise NoAnswer(f"flat length and width are {shown}; the tiers end at {most}")
        up_to, prices = self.rows[at]
        tier = show_length(up_to, self.units, "down").text
        why = f"flat length and width are {shown}, tier up to {tier}; its weight does not count"
        return ChargeLine(
            "postage", f"postage for a soft pack, zone {sent.zone.zone}", sent.price(self.zones, prices), why
        )

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        sums = tuple(up_to for up_to, _ in self.rows)
        return Marks(weight=(self.weight,), flat_side=(self.side,), flat_both=sums)

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return (falls(self.rows, self.zones, lambda key: f"{float(key.inches):g} in"),)


@dataclass(frozen=True, slots=True)
class ContainerPrice(Charge):
    """One price for a container of the carrier's own.

    Args:
        zones: the columns, none for one price everywhere.
        rows: by the name of the carrier's own container.
        weight: at most.
    """

    zones: tuple[str, ...]
    rows: tuple[tuple[str, tuple[Money, ...]], ...]
    weight: Mass
    units: Units = "in"

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine:
        parcel = sent.parcel
        for name, prices in self.rows:
            if name == parcel.container:
                _weighs_at_most(parcel.weight, self.weight, self.units)
                why = f"in its own {name}; its weight does not count up to {show_mass(self.weight, self.units, 'down')}"
                return ChargeLine("postage", f"postage for the {name}", sent.price(self.zones, prices), why)
        raise NoAnswer("takes only what is in its own " + " or ".join(name for name, _ in self.rows))

    def marks(self, parcels: tuple[Parcel, ...]) -> Marks:
        return Marks(weight=(self.weight,))

    def look_over(self, weights: WeightRule) -> tuple[Iterable[str], ...]:
        return (("a container is named twice",),) if len({row for row, _ in self.rows}) < len(self.rows) else ()


def _at_most(what: str, measure: Length, most: Length, units: Units) -> None:
    if measure > most:
        shown, limit = show_length(measure, units, "up"), show_length(most, units, "down")
        raise NoAnswer(f"{what} is {shown}; the most is {limit}")


def _weighs_at_most(weight: Mass, most: Mass, units: Units) -> None:
    if weight > most:
        raise NoAnswer(f"weighs {show_mass(weight, units, 'up')}; the most is {show_mass(most, units, 'down')}")
