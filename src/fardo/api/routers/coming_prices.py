"""Prices that change: fuel surcharges of all carriers, prices of a coming day beside today's, two versions of a tariff
set against each other and tried with a list of parcels.
"""

from __future__ import annotations

import json
from datetime import date
from typing import Annotated, Any

from fastapi import Path
from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import AppContext, Context
from fardo.api.resource import resource
from fardo.api.tariff_rows import TariffRow, view_tariff
from fardo.core.quantity import Money, show_mass, show_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.core.tariff.priced_twice import PricedTwice, price_twice
from fardo.core.tariff.service import Quote
from fardo.files.grid_csv import LARGEST_TABLE
from fardo.files.parcel_list import MOST_PARCELS, ListedParcel, read_parcels
from fardo.files.sending import closed_of
from fardo.files.tariff import TariffFile, read_tariff
from fardo.files.tariff_changes import tariff_differences
from fardo.files.tariff_fuel import fuel_rates, with_fuel
from fardo.files.tariff_years import from_file, raised, tariff_on
from fardo.files.typed import Day
from fardo.store.faults import Unreadable

router = resource("/api/tariffs", "tariffs")

Carrier = Annotated[str, Path(max_length=80)]
Revision = Annotated[int, Field(ge=1, le=10**9)]


class FuelRow(BaseModel):
    """One fuel surcharge of a carrier's, and the services that charge it."""

    carrier: str
    revision: int
    percent: str
    services: list[str]


@router.get("/-/fuel")
def fuel(context: Context) -> list[FuelRow]:
    """The fuel surcharges of all carriers, of prices that hold today or later."""
    return [
        FuelRow(
            carrier=stored.tariff.carrier, revision=stored.revision, percent=rate.percent,
            services=[f"{name}, {rate_plan}" for name, rate_plan in rate.services],
        )
        for stored in context.settings.stored_tariffs() if stored.archived_at is None
        for rate in fuel_rates(stored.tariff, date.today())
    ]  # fmt: skip


class FuelChange(BaseModel):
    """Another fuel surcharge, in the place of one that a carrier has."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 1, "was": "12.5", "percent": "13.25"}]})
    revision: Revision = Field(description="the version of the tariff it was read from")
    was: str = Field(max_length=20, description="as it was read")
    percent: str = Field(max_length=20)


@router.put("/{carrier}/fuel")
def change_fuel(carrier: Carrier, change: FuelChange, context: Context) -> TariffRow:
    """Changes a fuel surcharge in all services that charge it, as a new version of the tariff."""
    stored = context.settings.tariff(carrier)
    changed = with_fuel(stored.tariff, change.was, change.percent, date.today())
    context.settings.keep_tariff(changed, change.revision)
    return view_tariff(context.settings.tariff(carrier), context)


class Coming(BaseModel):
    """Prices that hold from a day on: of a tariff file, or the carrier's own raised by so much per cent."""

    model_config = ConfigDict(
        populate_by_name=True,
        json_schema_extra={"examples": [{"revision": 1, "from": "2030-01-07", "percent": "5.9"}]},
    )
    revision: Revision = Field(description="the version of the tariff they are put beside")
    first: Day = Field(alias="from")
    percent: str | None = Field(None, max_length=20)
    tariff: dict[str, Any] | None = Field(None, description="a tariff file of the same carrier")


@router.post("/{carrier}/coming", status_code=201)
def coming(carrier: Carrier, coming: Coming, context: Context) -> TariffRow:
    """Puts prices of a coming day beside today's, which end the day before. Nothing is kept of what has a fault."""
    own = context.settings.tariff(carrier).tariff
    if (coming.percent is None) == (coming.tariff is None):
        raise BadInput("both or neither", read="percent and tariff", allowed="one of them", field="percent")
    if coming.percent is not None:
        changed = raised(own, coming.percent, coming.first)
    else:
        changed = from_file(own, read_tariff(json.dumps(coming.tariff)), coming.first)
    context.settings.keep_tariff(changed, coming.revision)
    return view_tariff(context.settings.tariff(carrier), context)


class Side(BaseModel):
    """A version of a tariff, all of it or the prices of one day."""

    revision: Revision | None = Field(None, description="the newest unless said")
    day: date | None = Field(None, description="of which the prices are; else every price in it")

    def of(self, carrier: str, context: AppContext) -> TariffFile:
        """Raises Gone."""
        if self.revision is None:
            found = context.settings.tariff(carrier).tariff
        else:
            found = context.settings.tariff_version(carrier, self.revision)
        return found if self.day is None else tariff_on(found, self.day)


class TwoSides(BaseModel):
    """Two versions or days of a tariff, and parcels to price by both."""

    model_config = ConfigDict(
        populate_by_name=True,
        json_schema_extra={
            "examples": [
                {
                    "was": {"day": "2026-12-01"}, "now": {"day": "2030-01-08"}, "from": "10440",
                    "parcels": "24 x 12 x 8 in, 9 lb, 73120",
                }
            ]
        },
    )  # fmt: skip
    was: Side
    now: Side
    origin: str = Field("", alias="from", max_length=20, description="the shop's own postcode unless said")
    parcels: str = Field("", max_length=LARGEST_TABLE, description="a line each: size, weight, postcode, residential")
    sent: bool = Field(False, description="and those that were weighed and measured closed, the last of them")


class DifferenceRow(BaseModel):
    of: str
    was: str
    now: str


class PricedRow(BaseModel):
    """A parcel by both; empty where it has no price, and why."""

    called: str
    was: str
    now: str
    by: tuple[str, str] = Field(description="the service, of each")
    why_not: tuple[str, str]
    more: str = Field(description="than by the first, less with a minus sign; empty unless both price it")


class Compared(BaseModel):
    """What differs, and what parcels cost by both, in the shop's currency."""

    differences: list[DifferenceRow]
    parcels: list[PricedRow]
    counted: int = Field(description="parcels that both price, which the sums are of")
    was: str
    now: str
    more: str
    percent: str = Field(description="how much more that is in all")


@router.post("/{carrier}/compare")
def compare_versions(carrier: Carrier, sides: TwoSides, context: Context) -> Compared:
    """Sets two versions of a tariff, or the prices of two days, against each other; keeps nothing."""
    today = context.today
    was, now = sides.was.of(carrier, context), sides.now.of(carrier, context)
    listed = []
    if sides.parcels.strip():
        origin = read_postcode(sides.origin or today.file.postcode, "from")
        listed += read_parcels(sides.parcels, origin, today.shop.units)
    if sides.sent:
        listed += _sent(context, MOST_PARCELS - len(listed))
    priced = price_twice([one.parcel for one in listed], was.to_core(), now.to_core(), today.shop.exchange)
    more, per_cent = priced.more, priced.per_cent_more
    return Compared(
        differences=[DifferenceRow(of=one.of, was=one.was, now=one.now) for one in tariff_differences(was, now)],
        parcels=[_row(one.called, both) for one, both in zip(listed, priced.parcels, strict=True)],
        counted=priced.counted, was=str(priced.was), now=str(priced.now), more=_signed(more),
        percent="" if per_cent is None else f"{float(per_cent):+.1f} %",
    )  # fmt: skip


def _row(called: str, priced: PricedTwice) -> PricedRow:
    def by(quote: Quote | None) -> str:
        return "" if quote is None else f"{quote.service}, {quote.rate_plan}"

    was, now = ("" if one is None else str(one.amount) for one in (priced.was, priced.now))
    return PricedRow(
        called=called, was=was, now=now, by=(by(priced.was), by(priced.now)), why_not=priced.why_not,
        more="" if priced.more is None else _signed(priced.more),
    )  # fmt: skip


def _signed(amount: Money) -> str:
    return f"+{amount}" if amount > Money(0, amount.currency) else str(amount)


def _sent(context: AppContext, most: int) -> list[ListedParcel]:
    """The parcels that were weighed and measured closed, as boxes; a job without a postcode is passed over."""
    today = context.today
    units = today.shop.units
    measured = dict(context.sendings.measured(most))
    found = []
    for line in context.jobs.lines(list(measured)):
        try:
            job = line.read().job
            closed = closed_of(measured[line.id].closed, units)
            destination = read_postcode(job.ship.to or "", "to")
            origin = read_postcode(job.ship.origin or today.file.postcode, "from")
        except (BadInput, Unreadable):
            continue
        if closed.weight is None or closed.sides is None:
            continue
        parcel = Parcel(closed.sides, closed.weight, origin, destination, job.ship.residential)
        called = (line.title, show_sizes(closed.sides, units, "up").text, show_mass(closed.weight, units, "up").text)
        found.append(ListedParcel(", ".join(called), parcel))
    return found
