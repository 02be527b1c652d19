"""The carriers a shop asks: their services of today, and the version of a tariff that a job keeps."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from fardo.core.tariff.service import Service, find_service


@dataclass(frozen=True, slots=True)
class Carriers:
    """The carriers' services, today's and earlier ones.

    Args:
        services: of today, archived ones left out.
        versions: by carrier, the number of its tariff of today.
        kept: the services of the earlier version by which a job was priced, where it keeps one.
    """

    services: tuple[Service, ...] = ()
    versions: Mapping[str, int] = field(default_factory=dict)
    kept: tuple[Service, ...] = ()

    def earlier(self, called: tuple[str, str, str], day: str | None) -> Service | None:
        """The service by the version that is kept; None where that is today's, or is not there.

        Args:
            called: carrier, service and rate plan.
            day: 2026-07-11, None for any.
        """
        return find_service(self.kept, called, day)

    def currency_of(self, carrier: str) -> str | None:
        """That a carrier prices in; None where it has no tariff here."""
        return next((service.currency for service in self.services if service.carrier == carrier), None)

    def with_earlier(self, service: Service | None) -> tuple[Service, ...]:
        """Today's services, this one in the place of the one that is called so."""
        if service is None:
            return self.services
        return (*(one for one in self.services if one.called != service.called), service)
