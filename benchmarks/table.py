"""Prints a table and the percentiles in it."""

from __future__ import annotations

from collections.abc import Sequence

from rich.console import Console
from rich.table import Table


def percentile(values: Sequence[float], per_cent: int) -> float:
    """The smallest value that at least so many per cent are not above (nearest rank)."""
    ordered = sorted(values)
    return ordered[max(0, -(-len(ordered) * per_cent // 100) - 1)]


def show(title: str, columns: Sequence[str], rows: Sequence[Sequence[str]]) -> None:
    table = Table(*columns, title=title, title_justify="left")
    for row in rows:
        table.add_row(*row)
    Console(width=110).print(table)


def times_row(name: str, seconds: Sequence[float], target: str) -> tuple[str, ...]:
    """Name, count, median, 95th percentile, worst, in milliseconds."""
    ms = [f"{1000 * value:.1f}" for value in (percentile(seconds, 50), percentile(seconds, 95), max(seconds))]
    return name, str(len(seconds)), *ms, target
