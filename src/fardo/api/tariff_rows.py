"""A carrier's tariff as a list has it: its services, their charges in words, what to look at again, its versions."""

from __future__ import annotations

from datetime import date

from pydantic import BaseModel, Field

from fardo.api.context import AppContext
from fardo.core.tariff.lint import look_over, overlapping
from fardo.files.charges import Rows
from fardo.store.settings import StoredTariff


class ChargeRow(BaseModel):
    """A charge by its name on the bill, and in words: 4.35 to a residential address."""

    called: str
    words: str


class ServiceRow(BaseModel):
    """A service of a tariff, and what to look at again in it."""

    name: str
    programme: str
    zones: list[str]
    charges: list[ChargeRow]
    valid: str
    findings: list[str]
    other_way: bool
    note: str
    placeholder: bool = Field(description="whether its prices are invented, until the carrier's own are entered")
    takes: str = Field(description="what the first column of its prices says: weights, volumes, ...; empty: no table")


class TariffRow(BaseModel):
    carrier: str
    currency: str
    rate: str | None = Field(description="of its currency into the shop's, where there is one")
    known: bool = Field(description="whether its currency can be reckoned")
    revision: int
    saved_at: str
    archived: bool
    services: list[ServiceRow]
    over_the_wire: bool = Field(description="whether it is live quotes too")
    findings: list[str]
    coming: list[date] = Field(description="the days after today from which other prices hold")
    versions: list[tuple[int, str]] = Field(description="revision and when it was saved, newest first")


def view_tariff(stored: StoredTariff, context: AppContext) -> TariffRow:
    """A carrier's tariff as a list has it."""
    tariff, exchange = stored.tariff, context.today.shop.exchange
    services = tariff.to_core()
    rate = exchange.rates.get(tariff.currency)
    return TariffRow(
        carrier=tariff.carrier, currency=tariff.currency, rate=None if rate is None else f"{float(rate):g}",
        known=exchange.knows(tariff.currency), revision=stored.revision, saved_at=stored.saved_at,
        archived=stored.archived_at is not None, findings=overlapping(services),
        coming=sorted({one.valid_from for one in tariff.services if one.valid_from and one.valid_from > date.today()}),
        versions=context.settings.tariff_versions(tariff.carrier),
        over_the_wire=any(wire.carrier == tariff.carrier for wire in context.today.file.wires),
        services=[
            ServiceRow(
                name=entry.name, programme=entry.programme, zones=sorted({zone.zone for zone in entry.zones}),
                charges=[ChargeRow(called=one.called, words=one.words(tariff.units)) for one in entry.charges],
                valid=f"{entry.valid_from or ''} to {entry.valid_to or ''}".strip()
                if entry.valid_from or entry.valid_to else "",
                findings=look_over(service),
                other_way=entry.other_way,
                note=entry.note,
                placeholder=entry.placeholder,
                takes=next((one.first_column for one in entry.charges if isinstance(one, Rows)), ""),
            )
            for entry, service in zip(tariff.services, services, strict=True)
        ],
    )  # fmt: skip
