"""Day lists of up to twelve blanks nested on sheets: how many sheets, the fewest by area, and how long it takes."""

from __future__ import annotations

import random
import time

from benchmarks.table import show, times_row
from fardo.core.board.grade import Sheet
from fardo.core.cut.lay_out import CutPiece, plan_cuts
from fardo.core.quantity import INCH

_LISTS = 50
_SHEET = Sheet(INCH * 60, INCH * 40)


def run() -> None:
    seconds, taken, least, changes = [], 0, 0, 0
    for seed in range(_LISTS):
        draw = random.Random(seed)
        pieces = [
            CutPiece(f"blank {n}", (INCH * draw.randint(8, 44), INCH * draw.randint(6, 30)), "either way")
            for n in range(draw.randint(4, 12))
        ]
        begun = time.perf_counter()
        plan = plan_cuts(pieces, [_SHEET])
        seconds.append(time.perf_counter() - begun)
        taken, least, changes = taken + len(plan.sheets), least + plan.least, changes + plan.fence_changes
    show(
        f"{_LISTS} day lists nested by straight cuts, ms",
        ("lists", "rounds", "median", "95 %", "worst", "aim"),
        [times_row("up to 12 blanks", seconds, "under 5000")],
    )
    show(
        "Sheets taken, and the fewest that the area allows",
        ("sheets", "by area", "fence settings"),
        [(str(taken), str(least), str(changes))],
    )
