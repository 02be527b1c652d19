"""Zones by postcode prefix: the longest prefix that fits decides, first for where it comes from, then for where to."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class ZoneRow:
    """From every postcode that begins with `origin`, to those that begin with one of `prefixes` (a single prefix or a
    range such as ``730-739``), the zone is `zone`; `days` is the least and most it takes."""

    origin: str
    prefixes: tuple[str, ...]
    zone: str
    days: tuple[int, int]


def find_zone(rows: Iterable[ZoneRow], origin: str, destination: str) -> ZoneRow | None:
    """The row that fits best, or None where the carrier does not go."""
    best, best_fit = None, (-1, -1)
    for row in rows:
        if not origin.startswith(row.origin):
            continue
        for prefix in row.prefixes:
            length = _covers(prefix, destination)
            if length is not None and (len(row.origin), length) > best_fit:
                best, best_fit = row, (len(row.origin), length)
    return best


def _covers(prefix: str, code: str) -> int | None:
    """How many characters of `code` the prefix or range settles; None where it does not fit."""
    low, _, high = prefix.partition("-")
    return len(low) if low <= code[: len(low)] <= (high or low) and len(code) >= len(low) else None
