"""The shop's own figures in the place of placeholders: a table of prices and, where its zones are others, a zone chart,
both as they are pasted from a spreadsheet or read from CSV.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Any, cast

from pydantic import ValidationError

from fardo.core.refusal import BadInput
from fardo.files.charges import ChargeEntry, Rows
from fardo.files.grid_csv import in_the_table, read_grid
from fardo.files.pasted import pasted_rows
from fardo.files.tariff import ServiceEntry, TariffFile, ZoneEntry, check_tariff
from fardo.files.typed import complaints

_MOST_LINES = 4000
_MOST_IN_A_ROW = 2000
_RANGE = re.compile(r"\s*[-–]\s*")
_DAYS = re.compile(r"(\d{1,3})(?:\s*[-–]\s*(\d{1,3}))?")
_HEADS = ("to", "postcode", "postcodes", "zip", "destination", "from")


def with_own_prices(tariff: TariffFile, service: int, table: str, zones: str = "") -> TariffFile:
    """The tariff with a service's own prices, which are placeholders no more.

    Args:
        tariff: as it is kept; it is not changed.
        service: which of its services, from 0.
        table: zones on the first line, then a row a weight (a volume, a size, a container).
        zones: a zone chart, a line each: postcodes, zone, days. Empty where the zones stay as they are.

    Raises: BadInput naming the row and the column.
    """
    if not 0 <= service < len(tariff.services):
        raise BadInput(
            "no such service", read=str(service), allowed=f"0 to {len(tariff.services) - 1}", field="service"
        )
    changed = tariff.model_copy(deep=True)
    of = changed.services[service]
    at = next((n for n, charge in enumerate(of.charges) if isinstance(charge, Rows)), None)
    if at is None:
        raise BadInput("no table", read=of.name, allowed="a service with a table of prices", field="service")
    read = read_grid(table.encode(), cast(Rows, of.charges[at]))
    of.charges[at] = cast(ChargeEntry, read)
    if zones.strip():
        of.zones = read_zones(zones, of.zones[0].days)
    _let_zones_fit(of, {row.zone for row in of.zones})
    of.placeholder = False
    try:
        check_tariff(changed)
    except BadInput as problem:
        if problem.field == f"services[{service}].charges[{at}].zones":
            missing = ", ".join(sorted({row.zone for row in of.zones} - set(read.zones)))
            raise BadInput(
                f"no column for zone {missing}", read=", ".join(read.zones) or "one column for all",
                allowed="a column for every zone it goes to, or a zone chart pasted beside it", field="table, row 1",
            ) from problem  # fmt: skip
        raise in_the_table(problem) from problem
    return changed


def read_zones(text: str, days: tuple[int, int]) -> list[ZoneEntry]:
    """A zone chart: ``100-119, 2`` or ``100-119, 2, 1-2``, a line each; lines of one zone and days are one row.

    Args:
        text: as it was pasted.
        days: of a line that says none.

    Raises: BadInput naming the row.
    """
    found: dict[tuple[str, tuple[int, int]], list[str]] = {}
    for n, cells in pasted_rows(text, _MOST_LINES, "the zone chart", "zones"):
        if n == 1 and cells[0].lower() in _HEADS:
            continue
        if len(cells) < 2 or not cells[0] or not cells[1]:
            read, allowed = ", ".join(cells)[:60], "postcodes, zone, days: 100-119, 2, 1-2"
            raise BadInput("not a line of a chart", read=read, allowed=allowed, field=f"zones, row {n}")
        said = _days(cells[2:], days, n)
        found.setdefault((cells[1], said), []).append(_range(cells[0], n))
    if not found:
        raise BadInput("no lines", read="nothing", allowed="postcodes, zone, days: a line each", field="zones")
    try:
        return [
            ZoneEntry.model_validate({"from": "", "to": to, "zone": zone, "days": of})
            for (zone, of), every in found.items()
            for to in _batched(every)
        ]
    except ValidationError as error:
        raise next(complaints(error, ZoneEntry)).under("zones") from error


def _batched(ranges: list[str]) -> Iterator[list[str]]:
    """So many to a row as one holds."""
    for first in range(0, len(ranges), _MOST_IN_A_ROW):
        yield ranges[first : first + _MOST_IN_A_ROW]


def _range(cell: str, n: int) -> str:
    low, *beyond = _RANGE.split(cell.upper(), maxsplit=1)
    high = beyond[0] if beyond else low
    if not (low.isalnum() and high.isalnum() and len(low) == len(high) and low <= high):
        allowed = "the first signs of a postcode, or a range of them such as 100-119"
        raise BadInput("not postcodes", read=cell[:40], allowed=allowed, field=f"zones, row {n}")
    return f"{low}-{high}" if beyond else low


def _days(cells: Sequence[str], otherwise: tuple[int, int], n: int) -> tuple[int, int]:
    if not cells or not cells[0]:
        return otherwise
    said = _DAYS.fullmatch(cells[0])
    if said is None:
        raise BadInput("not days", read=cells[0][:40], allowed="2 or 1-2", field=f"zones, row {n}")
    return int(said[1]), int(said[2] or said[1])


def _let_zones_fit(service: ServiceEntry, zones: set[str]) -> None:
    """A surcharge with a price a zone, of zones that are no more, asks the middle one of them everywhere."""
    for n, charge in enumerate(service.charges):
        prices: Any = getattr(charge, "prices", None)
        of: list[str] = getattr(charge, "zones", [])
        if prices and of and not isinstance(charge, Rows) and not zones <= set(of):
            update = {"zones": [], "prices": [prices[len(prices) // 2]]}
            service.charges[n] = charge.model_copy(update=update)
