"""Zones by postcode prefix: what fits longest decides, first for where it comes from, then for where it goes."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class ZoneRow:
    """From every postcode that begins with `origin`, to those that begin with one of `prefixes` (a single prefix or a
    range such as ``730-739``), the zone is `zone`; `days` is the least and most it takes. `country` is the code of
    the one it goes to, nothing at home: a postcode of another country is never one of home.
    """

    origin: str
    prefixes: tuple[str, ...]
    zone: str
    days: tuple[int, int]
    country: str = ""


def find_zone(rows: Iterable[ZoneRow], origin: str, destination: str, country: str = "") -> ZoneRow | None:
    """The row that fits best, or None where the carrier does not go. A longer prefix fits better than a shorter, one
    prefix better than a range of equal length, and of what fits alike the first row counts.
    """
    best, best_fit = None, (-1, -1, False)
    for row in rows:
        if row.country != country or not origin.startswith(row.origin):
            continue
        for prefix in row.prefixes:
            low, dash, _ = prefix.partition("-")
            fit = (len(row.origin), len(low), not dash)
            if covers(prefix, destination) and fit > best_fit:
                best, best_fit = row, fit
    return best


def covers(prefix: str, code: str) -> bool:
    """Whether a postcode begins with a prefix, or with one of a range of them.

    >>> [covers("730-739", code) for code in ("73120", "74000", "73")]
    [True, False, False]
    """
    low, _, high = prefix.partition("-")
    return len(code) >= len(low) and low <= code[: len(low)] <= (high or low)
