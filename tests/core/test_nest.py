"""How many blanks a sheet gives."""

from __future__ import annotations

import pytest

from fardo.core.board.grade import Sheet
from fardo.core.cut.nest import count_on_sheet
from tests.made_up import inches


@pytest.mark.parametrize(
    ("blank", "sheet", "count"),
    [
        (("14", "12"), ("30", "24"), 4),  # common practice: a 24 x 30 sheet gives four of the 14 x 12 blank
        (("14", "12"), ("24", "30"), 4),
        (("14 1/16", "12"), ("24", "28"), 3),
        (("5", "3"), ("8", "8"), 3),  # four would fit as a pinwheel, but no cut from edge to edge makes one
        (("7", "5"), ("12", "12"), 3),  # a plain grid gives two
        (("31", "24"), ("30", "24"), 0),
        (("30", "24"), ("24", "30"), 1),
    ],
)
def test_a_sheet_gives_so_many(blank: tuple[str, str], sheet: tuple[str, str], count: int) -> None:
    size = (inches(blank[0]), inches(blank[1]))
    assert count_on_sheet(size, Sheet(inches(sheet[0]), inches(sheet[1]))) == count


def test_more_are_never_promised_than_the_area_holds() -> None:
    for a in range(3, 20):
        for b in range(2, 12):
            count = count_on_sheet((inches(str(a)), inches(str(b))), Sheet(inches("48"), inches("36")))
            assert (48 // a) * (36 // b) <= count <= 48 * 36 // (a * b)
