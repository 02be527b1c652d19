"""Boxes and mailers at hand, typed or pasted, one a line: ``14 x 10 x 6, 25``; a box has three sides, a mailer two.

A line may say more, in any order: a name, a price (``1.20``), how many (``25``), ``used``. A CSV file with these in
columns reads the same.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import NamedTuple

from pydantic import ValidationError

from fardo.core.make.stock import PouchKind
from fardo.core.quantity import Units, read_length
from fardo.core.refusal import BadInput
from fardo.files.pasted import pasted_rows
from fardo.files.stock import BoxEntry, PouchEntry
from fardo.files.typed import complaints

LARGEST_LIST = 200_000
_MOST = 2000
_CROSS = re.compile(r"\s*[x×*]\s*", re.IGNORECASE)
_PRICE = re.compile(r"[0-9]{1,6}[.,][0-9]{2}")
_COUNT = re.compile(r"[0-9]{1,9}")
_SIZED = re.compile(r"[0-9].*[x×*].*[0-9]", re.IGNORECASE)
_UNITS = ("in", "cm", "mm")
_NAME = 80
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
    found = StockLines([], [])
    rows = pasted_rows(text, _MOST, "what was pasted", "lines")
    for n, row in rows:
        cells = [cell for cell in row if cell]
        if n == 1 and len(rows) > 1 and not any(_SIZED.search(cell) for cell in cells):
            continue  # the heads of a table
        try:
            one = _read(_Line.of(cells), units, board)
        except BadInput as problem:
            raise BadInput(problem.why, read=problem.read, allowed=problem.allowed, field=f"line {n}") from problem
        except ValidationError as error:
            raise next(complaints(error)).under(f"line {n}") from error
        if isinstance(one, BoxEntry):
            found.boxes.append(one)
        else:
            found.mailers.append(one)
    return found


@dataclass(slots=True)
class _Line:
    """What a line says, in whatever order it says it."""

    size: str = ""
    name: str = ""
    price: str = ""
    count: int | None = None
    used: bool = False

    @property
    def counted(self) -> int:
        return 1 if self.count is None else self.count

    @classmethod
    def of(cls, cells: list[str]) -> _Line:
        """Raises BadInput for a line without a size, and for a cell that is nothing of all this."""
        line = cls()
        for cell in cells:
            if not line.size and _SIZED.search(cell):
                at = next(n for n, sign in enumerate(cell) if sign in "0123456789")
                line.name, line.size = line.name or cell[:at].strip(), cell[at:].lower()
            elif cell.lower() == "used":
                line.used = True
            elif not line.price and _PRICE.fullmatch(cell):
                line.price = cell.replace(",", ".")
            elif line.count is None and _COUNT.fullmatch(cell):
                line.count = int(cell)
            elif any(sign.isalpha() for sign in cell):
                line.name = line.name or cell
            else:
                raise BadInput("not understood", read=cell[:60], allowed="a size, a name, one price, one count, used")
        if not line.size:
            raise BadInput("no size", read=", ".join(cells)[:60], allowed="a line such as 14 x 10 x 6, 25")
        return line


def _read(line: _Line, units: Units, board: str) -> BoxEntry | PouchEntry:
    """Raises BadInput for sides that cannot be read, ValidationError for what a shop cannot have."""
    unit = next((one for one in _UNITS if line.size.endswith(one)), units)
    sides = _CROSS.split(line.size.removesuffix(unit).strip())
    for side in sides:
        read_length(f"{side} {unit}", units)
    across = " x ".join(sides)
    if len(sides) == 3:
        name = line.name or f"{'used ' if line.used else ''}{across}"
        return BoxEntry(
            name=name,
            inside=f"{across} {unit}",
            board=board,
            price=line.price or "0.00",
            count=line.counted,
            used=line.used,
        )
    if len(sides) != 2:
        raise BadInput(f"{len(sides)} sides", read=line.size[:60], allowed="three sides for a box, two for a mailer")
    name = line.name or f"mailer {across}"
    kind = _kind(name)
    width, length = (f"{side} {unit}" for side in sides)
    return PouchEntry(
        name=name, kind=kind, width=width, length=length, wall=_WALL[units],
        thickest=_THICKEST[units].get(kind), weight=_WEIGHT[units], price=line.price or "0.00", count=line.counted,
    )  # fmt: skip
