"""The cut list as CSV: a row a blank, with its sizes in the shop's unit and in millimetres."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Sequence

from fardo.core.board.grade import Grade
from fardo.core.cut.drawing import Blank, Line
from fardo.core.quantity import Units
from fardo.files.drawn import exact_text
from fardo.files.parts_csv import safe_cell


def cut_list(blanks: Sequence[Blank], grade: Grade, units: Units) -> str:
    """Rows of name, count, board, sizes, flutes, and how much is cut and scored in each."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(["blank", "count", "board", f"along, {units}", f"across, {units}", "along, mm", "across, mm",
                   "flutes", "cuts, mm", "scores, mm"])  # fmt: skip
    for blank in blanks:
        cuts = sum(_length(line) for line in blank.lines if line.kind in ("cut", "slot", "liner-cut"))
        scores = sum(_length(line) for line in blank.lines if line.kind in ("score", "second-score"))
        x, y = blank.size
        rows.writerow([safe_cell(blank.name), blank.count, safe_cell(grade.code), exact_text(x, units),
                       exact_text(y, units), f"{x.mm:g}", f"{y.mm:g}", blank.flutes, f"{cuts:.1f}",
                       f"{scores:.1f}"])  # fmt: skip
    return out.getvalue()


def _length(line: Line) -> float:
    return math.dist([side.mm for side in line.start], [side.mm for side in line.end])
