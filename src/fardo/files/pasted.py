"""Rows of a table as it is pasted from a spreadsheet, typed, or read from a CSV file."""

from __future__ import annotations

import csv
import io
from itertools import islice

from fardo.core.refusal import BadInput

_DELIMITERS = (",", ";", "\t")


def pasted_rows(text: str, most: int, what: str, field: str) -> list[tuple[int, list[str]]]:
    """The rows in which something stands, each with its number, from 1, and its cells without blanks around them.

    The delimiter is the one of which the first row has most; lines end as they do on any system.

    Args:
        text: the table.
        most: lines of it at most, empty ones with them.
        what: it is read from, for the refusal.
        field: it is in, for the refusal.

    Raises: BadInput for what is no table, or has too many lines.
    """
    first = next((line for line in text.splitlines() if line.strip()), "")
    table = csv.reader(io.StringIO(text, newline=None), delimiter=max(_DELIMITERS, key=first.count))
    try:
        rows = [[cell.strip() for cell in row] for row in islice(table, most + 1)]
    except csv.Error as fault:
        raise BadInput(f"not a table ({fault})", read=what, allowed="a row a line, as CSV", field=field) from fault
    if len(rows) > most:
        raise BadInput("too many rows", read=f"more than {most} lines", allowed=f"at most {most}", field=field)
    return [(n, row) for n, row in enumerate(rows, 1) if any(row)]
