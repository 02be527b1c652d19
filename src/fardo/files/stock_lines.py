"""Boxes and mailers at hand, typed or pasted, one a line: ``14 x 10 x 6, 25``; a box has three sides, a mailer two.

A line may say more, in any order: a name, a price (``1.20``), how many (``25``), ``used``. A CSV file with these in
columns reads the same.
"""

from __future__ import annotations

import csv
import io
import re
from typing import NamedTuple

from fardo.core.make.stock import PouchKind
from fardo.core.quantity import Units, read_length
from fardo.core.refusal import BadInput
from fardo.files.stock import BoxEntry, PouchEntry

LARGEST_LIST = 200_000
_MOST = 2000
_CROSS = re.compile(r"\s*[x×*]\s*", re.IGNORECASE)
_PRICE = re.compile(r"\d{1,6}[.]\d{2}")
_COUNT = re.compile(r"\d{1,6}")
_SIZED = re.compile(r"\d.*[x×*].*\d", re.IGNORECASE)
_WALL = {"in": "1/32 in", "cm": "1 mm"}  # of a mailer of which only the size is said: starting value
# What a paper envelope and a rigid mailer take at most: starting values.
_THICKEST: dict[Units, dict[str, str]] = {
    "in": {"flat": "1/4 in", "rigid": "1/2 in"}, "cm": {"flat": "6 mm", "rigid": "12 mm"},
}  # fmt: skip
_WEIGHT = {"in": "1 oz", "cm": "30 g"}


_KINDS: tuple[tuple[tuple[str, ...], PouchKind], ...] = (
    (("bag",), "bag"), (("rigid", "board"), "rigid"), (("envelope", "paper"), "flat"),
)  # fmt: skip


def _kind(name: str) -> PouchKind:
    """Of which kind a mailer of that name is; padded where it does not say."""
    return next((kind for words, kind in _KINDS if any(word in name.lower() for word in words)), "padded")


class StockLines(NamedTuple):
    """What was read."""

    boxes: list[BoxEntry]
    mailers: list[PouchEntry]


def read_stock_lines(text: str, units: Units, board: str) -> StockLines:
    """Boxes and mailers from lines.

    Args:
        text: as it was typed or pasted.
        units: of sides that say none.
        board: code of what boxes are taken to be of.

    Raises: BadInput naming the line.
    """
    if len(text) > LARGEST_LIST:
        raise BadInput("too large", read=f"{len(text)} signs", allowed=f"at most {LARGEST_LIST}", field="lines")
    first = text.lstrip().splitlines()[0] if text.strip() else ""
    boxes: list[BoxEntry] = []
    mailers: list[PouchEntry] = []
    for n, row in enumerate(csv.reader(io.StringIO(text), delimiter=max(",\t;", key=first.count)), 1):
        cells = [cell.strip() for cell in row if cell.strip()]
        if not cells or (n == 1 and not any(_SIZED.search(cell) for cell in cells)):
            continue  # an empty line, or the heads of a table
        if n > _MOST:
            raise BadInput("more lines than a list has", read=str(n), allowed=f"at most {_MOST}", field="lines")
        _read(cells, units, board, f"line {n}", boxes, mailers)
    return StockLines(boxes, mailers)


def _before_figures(cell: str) -> tuple[str, str]:
    """What stands in a cell before its first figure, and from there on: ``bag 24 x 36``."""
    at = next(n for n, sign in enumerate(cell) if sign.isdigit())
    return cell[:at].strip(), cell[at:]


def _read(
    cells: list[str], units: Units, board: str, field: str, boxes: list[BoxEntry], mailers: list[PouchEntry]
) -> None:  # fmt: skip
    sized = next((cell for cell in cells if _SIZED.search(cell)), None)
    if sized is None:
        raise BadInput("no size", read=", ".join(cells)[:60], allowed="a line such as 14 x 10 x 6, 25", field=field)
    price = next((cell for cell in cells if _PRICE.fullmatch(cell)), "0.00")
    count = next((cell for cell in cells if _COUNT.fullmatch(cell)), "1")
    used = any(cell.lower() == "used" for cell in cells)
    rest = [cell for cell in cells if cell not in (sized, price, count) and cell.lower() != "used"]
    unit = next((one for one in ("in", "cm", "mm") if sized.lower().rstrip().endswith(one)), units)
    named, figures = _before_figures(sized)
    sides = _CROSS.split(figures.lower().removesuffix(unit).strip())
    for side in sides:
        read_length(f"{side} {unit}", units, field=field)
    if len(sides) == 3:
        inside = f"{' x '.join(sides)} {unit}"
        name = named or rest[0] if named or rest else f"{'used ' if used else ''}{' x '.join(sides)}"
        boxes.append(BoxEntry(name=name[:80], inside=inside, board=board, price=price, count=int(count), used=used))
    elif len(sides) == 2:
        width, length = (f"{side} {unit}" for side in sides)
        name = named or rest[0] if named or rest else f"mailer {' x '.join(sides)}"
        mailers.append(
            PouchEntry(name=name[:80], kind=_kind(name), width=width, length=length, wall=_WALL[units],
                       thickest=_THICKEST[units].get(_kind(name)), weight=_WEIGHT[units], price=price, count=int(count))
        )  # fmt: skip
    else:
        allowed = "three sides for a box, two for a mailer"
        raise BadInput(f"{len(sides)} sides", read=sized[:60], allowed=allowed, field=field)
