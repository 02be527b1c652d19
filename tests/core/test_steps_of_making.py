"""What is done to make a box, step by step: where a blade is in hand, its cautions stand beside it."""

from __future__ import annotations

import pytest

from fardo.core.make import WAYS, make_box
from tests.made_up import allowances, shop, sizes

CUT_OUT = ["tray", "part-lid", "slotted", "overlap", "half-slotted", "halves", "boxed-twice", "five-panel"]


@pytest.mark.parametrize("way", CUT_OUT)
def test_a_blade_is_in_hand_where_a_step_cuts_and_nowhere_else(way: str) -> None:
    made = make_box(way, sizes("20 x 12 x 9"), shop().grade("C"), allowances("1/16"), WAYS[way].SCHOOLS[0])
    assert len(made.steps) > 2
    assert {step.do: step.knife for step in made.steps} == {
        step.do: step.do.startswith(("Cut ", "Trim ", "Slit ")) for step in made.steps
    }
    if way not in ("five-panel",):  # its cuts are all straight through
        assert any(step.knife for step in made.steps)
