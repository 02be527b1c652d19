"""Prices of a coming day beside those of today: the same services twice, each with the days on which they hold."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, timedelta

from fardo.core.quantity import Money, read_decimal
from fardo.core.refusal import BadInput
from fardo.files.tariff import MOST_SERVICES, ServiceEntry, TariffFile, check_tariff

_MOST_PER_CENT = 100


def with_coming(tariff: TariffFile, coming: Sequence[ServiceEntry], first: date) -> TariffFile:
    """The tariff with the prices of a coming day beside its own, which end the day before.

    A service that the coming ones do not name goes on as it is.

    Args:
        tariff: as it is kept; it is not changed.
        coming: services of the same carrier, in its currency and units.
        first: the day from which they hold.

    Raises: BadInput where prices begin on that day or later already, or the whole cannot be kept.
    """
    named = {(one.name, one.programme) for one in coming}
    kept = []
    for service in tariff.services:
        if (service.name, service.programme) in named and (service.valid_to is None or service.valid_to >= first):
            if service.valid_from is not None and service.valid_from >= first:
                raise BadInput(
                    f"{service.name} has prices from {service.valid_from} already", read=str(first),
                    allowed="a day after those begin, or change those", field="from",
                )  # fmt: skip
            service = service.model_copy(update={"valid_to": first - timedelta(days=1)})
        kept.append(service)
    begun = [one.model_copy(update={"valid_from": max(one.valid_from or first, first)}, deep=True) for one in coming]
    whole = tariff.model_copy(update={"services": [*kept, *begun]})
    if len(whole.services) > MOST_SERVICES:
        raise BadInput(
            f"{len(whole.services)} services", read=tariff.carrier,
            allowed=f"at most {MOST_SERVICES}: remove services that ended", field="services",
        )  # fmt: skip
    check_tariff(whole)
    return whole


def tariff_on(tariff: TariffFile, day: date) -> TariffFile:
    """The services whose prices hold on a day, as if they always did, so that two days can be compared."""
    holding = [
        one.model_copy(update={"valid_from": None, "valid_to": None}) for one in tariff.services if one.holds_on(day)
    ]
    return tariff.model_copy(update={"services": holding})


def from_file(tariff: TariffFile, coming: TariffFile, first: date) -> TariffFile:
    """The same with the services of another tariff file of the carrier.

    Raises: BadInput where that is of another carrier, or in another currency or unit.
    """
    for name in ("carrier", "currency", "units"):
        own, other = getattr(tariff, name), getattr(coming, name)
        if own != other:
            raise BadInput(f"another {name.removesuffix('s')}", read=other, allowed=own, field=name)
    return with_coming(tariff, coming.services, first)


def raised(tariff: TariffFile, percent: str, first: date) -> TariffFile:
    """The same with every price that holds until then raised, or lowered, by so much per cent, to the nearest coin.

    Percentages (fuel), included and declared values stay.

    Raises: BadInput for what is no percentage of up to 100.
    """
    by = read_decimal(percent, least=-_MOST_PER_CENT, most=_MOST_PER_CENT, more_than_least=True, field="percent")
    last = first - timedelta(days=1)
    own = tariff_on(tariff, last).services
    if not own:
        raise BadInput("no prices", read=str(last), allowed="a day on which some service has prices", field="from")
    coming = [one.model_copy(deep=True) for one in own]
    for service in coming:
        for charge in service.charges:
            charge.reprice(lambda price: str(Money.read(price, tariff.currency).share(1 + by / 100)))
    return with_coming(tariff, coming, first)
