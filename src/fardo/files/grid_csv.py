"""The table of a charge as CSV: a row a weight (a volume, a size, a class), a column a zone, as a spreadsheet has it.

``up to,2,3,4`` on the first line, then ``1 lb,7.41,8.14,8.87``; a table that is the same for all zones has one column
named ``all``. A tail, so much for every step beyond the last row, is a last line that begins with ``each further``.
"""

from __future__ import annotations

import csv
import io
import re

from fardo.core.refusal import BadInput
from fardo.files.charges import GridEntry, Rows, TailEntry
from fardo.files.parts_csv import safe_cell
from fardo.files.pasted import pasted_rows

LARGEST_TABLE = 400_000  # bytes
_MOST_ROWS, _MOST_ZONES = 1000, 60
_FIRST = "up to"
_ALL = "all zones"
_FURTHER = re.compile(r"each further\s+(?P<step>.+)", re.IGNORECASE)


def grid_csv(table: Rows) -> str:
    """The table as it would be read in again."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow([_FIRST, *(safe_cell(zone) for zone in table.zones or [_ALL])])
    rows.writerows([[safe_cell(cell) for cell in row] for row in table.rows])
    if isinstance(table, GridEntry) and table.tail is not None:
        rows.writerow([f"each further {table.tail.step}", *table.tail.prices])
    return out.getvalue()


def read_grid(content: bytes, table: Rows) -> Rows:
    """The table with the zones, rows and tail of the file, not yet read to the last price: its service does that.

    Raises: BadInput naming the row, as its file counts them, and the column.
    """
    if len(content) > LARGEST_TABLE:
        raise BadInput(
            "too large", read=f"{len(content)} bytes", allowed=f"at most {LARGEST_TABLE} bytes", field="table"
        )
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadInput("not text", read="the file", allowed="CSV in UTF-8", field="table") from error
    found = pasted_rows(text, _MOST_ROWS + 3, "the file", "table")
    if len(found) < 2:
        raise BadInput("no rows", read="the file", allowed="zones on the first line, a row a weight", field="table")
    for at, (n, _) in enumerate(found, 1):
        if n != at:
            raise BadInput(
                "an empty row", read="nothing", allowed="a row a weight, one below the other", field=f"row {at}"
            )
    (_, head), *rows = found
    zones = head[1:]
    if len(rows) > _MOST_ROWS:
        raise BadInput("more rows than a table has", read="the file", allowed=f"at most {_MOST_ROWS}", field="table")
    if not zones or len(zones) > _MOST_ZONES or "" in zones or len(set(zones)) < len(zones):
        allowed = f'1 to {_MOST_ZONES} zones, each named once, after "{_FIRST}"'
        raise BadInput("not a line of zones", read=", ".join(head)[:80], allowed=allowed, field="row 1")
    for n, row in rows:
        if len(row) != len(zones) + 1:
            raise BadInput(
                f"{len(row) - 1} prices", read=", ".join(row)[:80], allowed=f"one for each of {len(zones)} columns",
                field=f"row {n}",
            )  # fmt: skip
    tail = None
    if isinstance(table, GridEntry) and (further := _FURTHER.fullmatch(rows[-1][1][0])):
        tail = TailEntry(step=further["step"], prices=rows[-1][1][1:])
        rows = rows[:-1]
    if not rows:
        raise BadInput("no rows", read="the file", allowed="a row a weight before the last", field="table")
    changes: dict[str, object] = {
        "zones": [] if zones in ([_ALL], ["all"]) and not table.zones else zones,
        "rows": [row for _, row in rows],
    }
    if isinstance(table, GridEntry):
        changes["tail"] = tail
    return table.model_copy(update=changes)


def in_the_table(problem: BadInput) -> BadInput:
    """A refusal of a row in the words of the file: ``row 5, column 3``, its first line being row 1."""
    if problem.field.endswith("].zones"):
        return BadInput(problem.why, read=problem.read, allowed=problem.allowed, field="row 1")
    found = re.search(r"(?:rows\[(\d+)\]|tail\.prices)(?:\[(\d+)\])?$", problem.field)
    if found is None:
        return problem
    row = "the last row" if found[1] is None else f"row {int(found[1]) + 2}"
    before = 2 if found[1] is None else 1  # a tail's prices are counted without the cell that names it
    column = "" if found[2] is None else f", column {int(found[2]) + before}"
    return BadInput(problem.why, read=problem.read, allowed=problem.allowed, field=f"{row}{column}")
