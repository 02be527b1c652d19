"""Looks a service over for what is most likely a slip: gaps, prices that fall as they should rise, days that overlap.

Nothing here is refused: a tariff may mean it so. What cannot be read at all is refused where it is read.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import TypeVar

from fardo.core.quantity import Money
from fardo.core.tariff.charges import (
    Charge,
    ContainerPrice,
    Cover,
    Distance,
    ForAll,
    Freight,
    Fuel,
    Packing,
    Residential,
    SoftPackTiers,
    Surcharge,
    VolumeTiers,
    WeightGrid,
    bare,
)
from fardo.core.tariff.charges.freight import DENSITY_CLASSES
from fardo.core.tariff.measure import weigh
from fardo.core.tariff.service import Service

Key = TypeVar("Key")
_OFTEN = 3  # so many findings of one kind are told, then how many more


def look_over(service: Service) -> list[str]:
    """What to look at again, in words, each naming its charge, row and column."""
    found: list[str] = []
    zones = {row.zone for row in service.zones}
    for n, charge in enumerate(service.charges, 1):
        inner = bare(charge)
        name = f"charge {n}"
        columns = getattr(inner, "zones", ())
        if columns:
            found += [f"{name}: no column for zone {zone}" for zone in sorted(zones - set(columns))]
            found += [f"{name}: the column {zone} is no zone of the service" for zone in columns if zone not in zones]
        if isinstance(inner, WeightGrid):
            found += _few(_falls(name, inner.rows, columns, lambda key: weigh(key, service.weights)), name)
            found += _few(_gaps(name, inner, service), name)
        if isinstance(inner, VolumeTiers):
            found += _few(_falls(name, inner.rows, columns, lambda key: f"{float(key):g}"), name)
        if isinstance(inner, SoftPackTiers):
            found += _few(_falls(name, inner.rows, columns, lambda key: f"{float(key.inches):g} in"), name)
        if isinstance(inner, Freight):
            listed = {row for row, _ in inner.rows}
            found += [f"{name}: no row for class {code}" for _, code in DENSITY_CLASSES if code not in listed]
        if isinstance(inner, ContainerPrice) and len({row for row, _ in inner.rows}) < len(inner.rows):
            found.append(f"{name}: a container is named twice")
        if isinstance(inner, Surcharge) and inner.percent is not None and not inner.percent:
            found.append(f"{name}: {inner.what} is 0 %")
        if isinstance(inner, Packing):
            found += _few(_falls(name, inner.rows, columns, lambda key: f"{float(key.inches):g} in"), name)
    found += _taken_of_one(service)
    if not any(_posts(charge) for charge in service.charges):
        found.append("no charge is postage: it never gives a price")
    return found


def overlapping(services: Sequence[Service], of: Service | None = None) -> list[str]:
    """Services of one name and programme whose days overlap: both would be asked. Args: of: looks at this one only."""
    found = []
    for n, one in enumerate(services):
        if of is not None and one is not of:
            continue
        for other in services[:n]:
            if (one.name, one.programme) != (other.name, other.programme):
                continue
            starts = [service.valid[0] for service in (one, other)]
            ends = [service.valid[1] for service in (one, other)]
            apart = any(
                end is not None and start is not None and end < start
                for end, start in ((ends[0], starts[1]), (ends[1], starts[0]))
            )
            if not apart:
                found.append(f"{one.name}, {one.programme}: two price lists hold on the same day")
    return found


def _taken_of_one(service: Service) -> Iterator[str]:
    """A percentage of each parcel by itself does not see a line that is made once for all of them."""
    once = {_kind(bare(charge)) for charge in service.charges if isinstance(charge, ForAll)}
    for n, charge in enumerate(service.charges, 1):
        inner = bare(charge)
        if isinstance(charge, ForAll) or not isinstance(inner, Fuel | Surcharge):
            continue
        for kind in sorted(once & set(inner.on)):
            yield f"charge {n}: taken of {kind}, which is charged once for all parcels, and not once for all itself"


def _kind(charge: Charge) -> str:
    """The kind of the lines it makes."""
    named = {Residential: "residential", Fuel: "fuel", Cover: "cover", Packing: "packing"}
    return charge.code if isinstance(charge, Surcharge) else named.get(type(charge), "postage")


def _posts(charge: Charge) -> bool:
    inner = bare(charge)
    if isinstance(inner, Surcharge):
        return inner.code == "postage"
    return isinstance(inner, WeightGrid | VolumeTiers | SoftPackTiers | ContainerPrice | Freight | Distance)


def _falls(
    name: str, rows: Sequence[tuple[Key, tuple[Money, ...]]], columns: Sequence[str], say: Callable[[Key], str]
) -> Iterator[str]:
    """Where more costs less."""
    for (_, before), (key, prices) in pairwise(rows):
        for column, (low, high) in enumerate(zip(before, prices, strict=True)):
            if high < low:
                zone = f", zone {columns[column]}" if columns else ""
                yield f"{name}: the row up to {say(key)} costs {high}, less than the row before it, {low}{zone}"


def _gaps(name: str, grid: WeightGrid, service: Service) -> Iterator[str]:
    """Where rows are more than a step apart and others are not: most likely one was left out."""
    widths = [after[0].ng - before[0].ng for before, after in pairwise(grid.rows)]
    usual = min(widths, default=0)
    for (before, _), width in zip(grid.rows, widths, strict=False):
        if usual == service.weights.step.ng and width == 2 * usual:
            yield f"{name}: no row between {weigh(before, service.weights)} and two steps more"


def _few(found: Iterator[str], name: str) -> list[str]:
    every = list(found)
    more = len(every) - _OFTEN
    return every if more <= 0 else [*every[:_OFTEN], f"{name}: and {more} more like it"]
