"""Reads where a job goes: places, value, where it was sold, what it wishes of its services, parcels that go with it."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace

from fardo.core.goods.hazard import Hazards
from fardo.core.goods.part import MOST_OF_ONE
from fardo.core.plan.channel import Channel, closed_to
from fardo.core.plan.house import NO_HOUSE, About, House, house_for
from fardo.core.plan.journey import Journey, Wishes, abroad
from fardo.core.plan.sale import Sale
from fardo.core.quantity import ZERO, Mass, Money, read_distance
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.files.channel import read_fees, read_sale_label
from fardo.files.field_reading import FieldReading, is_empty
from fardo.files.job import BesideEntry, JobFile, PartEntry, Ship
from fardo.files.typed import to_count, to_length, to_mass, to_money, to_sizes

NO_PARCEL = BesideEntry()
LEAVES_FROM, GOES_TO = "postcode it leaves from", "postcode it goes to"
_MOST_DAYS = 365


def _count(part: PartEntry) -> int:
    """Of one part; one where it cannot be read, which is told where it is read."""
    try:
        return to_count(part.count, "", MOST_OF_ONE)
    except BadInput:
        return 1


class JourneyReading(FieldReading):
    """Keeps what is missing and what is wrong, and goes on.

    Args:
        house: rules that hold for the job.
    """

    house: House = NO_HOUSE

    def rules_that_hold(self, job: JobFile, channel: Channel | None) -> House:
        """Of the shop's, by what the job says so far."""
        about = About(
            job.kind or "", channel.name if channel is not None else "", self.value(job),
            sum(_count(part) for part in job.parts), job.ship.to or "",
            job.ship.to_country.upper() or self.shop.country, job.day.isoformat() if job.day else None,
            frozenset(job.rules_left_out),
        )  # fmt: skip
        return house_for(self.shop.rules, about)

    def value(self, job: JobFile) -> Money | None:
        """Declared of all of it; what is wrong with it is told where it goes."""
        with suppress(BadInput):
            return None if is_empty(job.value) else Money.read(job.value or "", self.shop.currency)
        return None

    def sale(self, job: JobFile, channel: Channel | None) -> Sale | None:
        """What it sold for; None where that is not said, or cannot be read."""
        said, currency = job.sale, self.shop.currency
        if said is None or not (said.price.strip() or said.postage.strip()):
            return None
        price = self.attempt(to_money, said.price.strip() or "0", currency, "sale.price")
        postage = self.attempt(to_money, said.postage.strip() or "0", currency, "sale.postage")
        if price is None or postage is None:
            return None
        return Sale(price, postage, read_fees(channel.fees, currency) if channel is not None else None)

    def channel(self, job: JobFile) -> Channel | None:
        """Where it was sold; one that the shop does not have is told."""
        if not job.channel:
            return None
        found = next((one for one in self.shop.channels if one.name == job.channel), None)
        if found is None:
            allowed = ", ".join(one.name for one in self.shop.channels) or "none is set"
            problem = BadInput("not a channel of this shop", read=job.channel, allowed=allowed, field="channel")
            self.problems.append(problem)
        return found

    def country(self, ship: Ship) -> str:
        """Code of the country it goes to, nothing at home."""
        for field, code in (("ship.from_country", ship.from_country), ("ship.to_country", ship.to_country)):
            if code and not (len(code) == 2 and code.isascii() and code.isalpha()):
                self.problems.append(BadInput("no country", read=code, allowed="its two letters", field=field))
        return abroad(ship.to_country, ship.from_country, self.shop.country)

    def wishes(self, job: JobFile) -> Wishes:
        path = "wishes.sides_sum_at_most"
        sides = self.optional(job.wishes.sides_sum_at_most, None, to_length, self.shop.units, path)
        said = job.wishes.days_at_most
        days = None if is_empty(said) else self.attempt(to_count, said, "wishes.days_at_most", _MOST_DAYS)
        path = "wishes.parcel_weight_at_most"
        weight = self.optional(job.wishes.parcel_weight_at_most, None, to_mass, self.shop.units, path)
        return Wishes(days, sides, weight)

    def journey(self, job: JobFile, shop_origin: str, hazards: Hazards, channel: Channel | None) -> Journey | None:
        origin = self.needed(LEAVES_FROM, job.ship.origin or shop_origin, read_postcode, "ship.from")
        destination = self.needed(GOES_TO, job.ship.to, read_postcode, "ship.to")
        value: Money | None = None
        if not is_empty(job.value):
            value = self.attempt(Money.read, job.value, self.shop.currency, under="value")
            if value is None:
                return None
        faults = len(self.problems)
        distance = self.optional(job.ship.distance, None, read_distance, self.shop.units, field="ship.distance")
        if not origin or not destination:
            return None
        ship = job.ship
        signature = ship.signature or self.house.signature or (value is not None and self.shop.asks_to_sign(value))
        country = self.country(ship)
        at_door = Parcel(
            (ZERO, ZERO, ZERO), Mass(0), origin, destination, ship.residential, signature=signature, country=country
        )
        beside = [self.beside(entry, n, at_door) for n, entry in enumerate(job.beside) if entry != NO_PARCEL]
        if None in beside or len(self.problems) > faults:
            return None
        closed = tuple(parcel for parcel in beside if parcel is not None)
        day = job.day.isoformat() if job.day else None
        label = channel.label if channel is not None else None
        if job.label is not None:
            label = self.attempt(read_sale_label, job.label, self.shop.units, "label")
        return self.attempt(
            Journey, origin, destination, ship.residential, value, hazards, day, signature, closed, distance, country,
            self.wishes(job), label, closed_to(channel, self.shop.channels),
            Money(1, self.shop.currency) if self.house.cover else self.shop.cover_from, self.house,
        )  # fmt: skip

    def beside(self, entry: BesideEntry, n: int, at_door: Parcel) -> Parcel | None:
        """A closed parcel that goes to the same door; None where something of it is missing or wrong."""
        units, path, of = self.shop.units, f"beside[{n}]", f"of {entry.name or f'parcel {n + 2}'}"
        sizes = self.needed(f"size {of}", entry.size, to_sizes, units, f"{path}.size")
        weight = self.needed(f"weight {of}", entry.weight, to_mass, units, f"{path}.weight")
        faults = len(self.problems)
        value: Money | None = None
        if not is_empty(entry.value):
            value = self.attempt(Money.read, entry.value, self.shop.currency, under=f"{path}.value")
        if sizes is None or weight is None or len(self.problems) > faults:
            return None
        return replace(at_door, sizes=sizes, weight=weight, value=value)
