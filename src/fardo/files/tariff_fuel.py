"""Fuel surcharges in one place: a line for each per cent of a carrier's, changed in all its services at once."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date

from fardo.core.quantity import read_decimal
from fardo.core.refusal import BadInput
from fardo.files.charges import FuelEntry
from fardo.files.tariff import ServiceEntry, TariffFile

_MOST = 100


@dataclass(frozen=True, slots=True)
class FuelRate:
    """One per cent of a carrier's.

    Args:
        percent: as it is typed.
        services: by name and rate plan, those that charge it.
    """

    percent: str
    services: tuple[tuple[str, str], ...]


def fuel_rates(tariff: TariffFile, day: date) -> list[FuelRate]:
    """Those of services whose prices hold on that day or later, in the order of the file."""
    found: dict[str, list[tuple[str, str]]] = {}
    for service, fuel in _fuels(tariff, day):
        named = found.setdefault(fuel.percent, [])
        if (service.name, service.programme) not in named:
            named.append((service.name, service.programme))
    return [FuelRate(percent, tuple(services)) for percent, services in found.items()]


def with_fuel(tariff: TariffFile, was: str, percent: str, day: date) -> TariffFile:
    """The tariff with another per cent wherever it was that one, in prices that hold on that day or later.

    Raises: BadInput for what is no per cent from 0 to 100, and where no service charges what it was.
    """
    typed = percent.strip().removesuffix("%").strip()
    read_decimal(typed, most=_MOST, field="percent")
    changed = tariff.model_copy(deep=True)
    of = [fuel for _, fuel in _fuels(changed, day) if fuel.percent == was]
    if not of:
        rates = ", ".join(one.percent for one in fuel_rates(tariff, day)) or "none"
        raise BadInput("no such fuel surcharge", read=was, allowed=rates, field="was")
    for fuel in of:
        fuel.percent = typed
    return changed


def _fuels(tariff: TariffFile, day: date) -> Iterator[tuple[ServiceEntry, FuelEntry]]:
    for service in tariff.services:
        if service.valid_to is None or service.valid_to >= day:
            yield from ((service, charge) for charge in service.charges if isinstance(charge, FuelEntry))
