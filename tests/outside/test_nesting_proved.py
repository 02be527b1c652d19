"""Day lists nested on sheets, against the number of sheets that OR-Tools proves to be the least, and against rectpack.

The model is written here anew: pieces in bins, two-dimensional no-overlap, any cut; so the least it proves is the least
for a saw too. Where the sheets' area already proves it, nothing is asked.
"""

from __future__ import annotations

import random

import pytest
import rectpack
from ortools.sat.python import cp_model

from fardo.core.board.grade import Sheet
from fardo.core.cut.lay_out import CutPiece, plan_cuts
from fardo.core.quantity import INCH

SHEET = Sheet(INCH * 60, INCH * 40)
LISTS = 25
MET = 23  # nine of ten


def day_list(seed: int) -> list[CutPiece]:
    """Up to twelve blanks of whole inches, every third with its flutes across."""
    draw = random.Random(seed)
    found = []
    for n in range(draw.randint(4, 12)):
        size = (INCH * draw.randint(8, 44), INCH * draw.randint(6, 30))
        found.append(CutPiece(f"blank {n}", size, "across the blank" if n % 3 == 0 else "either way"))
    return found


def proved_least(pieces: list[CutPiece], most: int) -> int | None:
    """The least number of sheets below or at `most`, None where it is not proved."""
    area = sum(p.size[0].nm * p.size[1].nm for p in pieces) / (SHEET.length.nm * SHEET.width.nm)
    for number in range(-int(-area // 1), most):
        said = _go_on(pieces, number)
        if said == cp_model.UNKNOWN:
            return None
        if said != cp_model.INFEASIBLE:
            return number
    return most


def _go_on(pieces: list[CutPiece], number: int) -> int:
    a, b = 60, 40
    model = cp_model.CpModel()
    on = [[model.new_bool_var("") for _ in range(number)] for _ in pieces]
    for row in on:
        model.add_exactly_one(row)
    for sheet in range(number):
        xs, ys = [], []
        for n, piece in enumerate(pieces):
            w, h = int(piece.size[0].inches), int(piece.size[1].inches)
            ways = [(w, h), (h, w)] if piece.flutes == "either way" else [(w, h)]
            chosen = [model.new_bool_var("") for _ in ways]
            model.add(sum(chosen) == on[n][sheet])
            for pick, (p, q) in zip(chosen, ways, strict=True):
                if p > a or q > b:
                    model.add(pick == 0)
                    continue
                x, y = model.new_int_var(0, a - p, ""), model.new_int_var(0, b - q, "")
                xs.append(model.new_optional_fixed_size_interval_var(x, p, pick, ""))
                ys.append(model.new_optional_fixed_size_interval_var(y, q, pick, ""))
        model.add_no_overlap_2d(xs, ys)
        model.add(sum(int(p.size[0].inches * p.size[1].inches) * on[n][sheet] for n, p in enumerate(pieces)) <= a * b)
    solver = cp_model.CpSolver()
    solver.parameters.max_deterministic_time = 10
    solver.parameters.num_workers = 1
    return solver.solve(model)


@pytest.fixture(scope="module")
def plans() -> list[tuple[list[CutPiece], int]]:
    lists = [day_list(seed) for seed in range(LISTS)]
    return [(pieces, len(plan_cuts(pieces, [SHEET]).sheets)) for pieces in lists]


def test_as_few_sheets_as_are_proved_to_be_the_least(plans: list[tuple[list[CutPiece], int]]) -> None:
    least = [proved_least(pieces, number) for pieces, number in plans]
    assert sum(one is not None for one in least) >= MET
    met = sum(one == number for one, (_, number) in zip(least, plans, strict=True))
    assert met >= MET, f"{met} of {LISTS}"


def test_never_more_sheets_than_rectpacks_guillotine(plans: list[tuple[list[CutPiece], int]]) -> None:
    """A general-purpose packer; it knows no flutes, so lists are compared in which all may be turned."""
    for seed in range(12):
        pieces = [CutPiece(p.name, p.size, "either way") for p in day_list(seed)]
        packer = rectpack.newPacker(rotation=True, pack_algo=rectpack.GuillotineBssfSas)
        for piece in pieces:
            packer.add_rect(int(piece.size[0].inches), int(piece.size[1].inches))
        packer.add_bin(60, 40, count=float("inf"))
        packer.pack()
        assert len(plan_cuts(pieces, [SHEET]).sheets) <= len(packer)
