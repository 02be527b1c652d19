"""Looks a service over for what is most likely a slip: gaps, prices that fall as they should rise, days that overlap.

Nothing here is refused: a tariff may mean it so. What cannot be read at all is refused where it is read.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fardo.core.tariff.service import Service

_OFTEN = 3  # so many findings of one kind are told, then how many more


def look_over(service: Service) -> list[str]:
    """What to look at again, in words, each naming its charge, row and column."""
    found: list[str] = []
    zones = {row.zone for row in service.zones}
    for n, charge in enumerate(service.charges, 1):
        name, columns = f"charge {n}", charge.columns
        if columns:
            found += [f"{name}: no column for zone {zone}" for zone in sorted(zones - set(columns))]
            found += [f"{name}: the column {zone} is no zone of the service" for zone in columns if zone not in zones]
        for slips in charge.look_over(service.weights):
            found += _few((f"{name}: {slip}" for slip in slips), name)
    found += _taken_of_one(service)
    if not any(charge.line_kind == "postage" for charge in service.charges):
        found.append("no charge is postage: it never gives a price")
    return found


def overlapping(services: Sequence[Service], of: Service | None = None) -> list[str]:
    """Services of one name and rate plan whose days overlap: both would be asked.

    Args:
        of: looks at this one only.
    """
    found = []
    for n, one in enumerate(services):
        if of is not None and one is not of:
            continue
        for other in services[:n]:
            if (one.name, one.rate_plan) != (other.name, other.rate_plan):
                continue
            starts = [service.valid[0] for service in (one, other)]
            ends = [service.valid[1] for service in (one, other)]
            apart = any(
                end is not None and start is not None and end < start
                for end, start in ((ends[0], starts[1]), (ends[1], starts[0]))
            )
            if not apart:
                found.append(f"{one.name}, {one.rate_plan}: two price lists hold on the same day")
    return found


def _taken_of_one(service: Service) -> Iterator[str]:
    """A percentage of each parcel by itself does not see a line that is made once for all of them."""
    once = {charge.line_kind for charge in service.charges if charge.once}
    for n, charge in enumerate(service.charges, 1):
        for kind in sorted(once & set(charge.taken_of)) if not charge.once else ():
            yield f"charge {n}: taken of {kind}, which is charged once for all parcels, and not once for all itself"


def _few(found: Iterator[str], name: str) -> list[str]:
    every = list(found)
    more = len(every) - _OFTEN
    return every if more <= 0 else [*every[:_OFTEN], f"{name}: and {more} more like it"]
