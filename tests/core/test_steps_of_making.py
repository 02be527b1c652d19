"""What is done to make a box, step by step: where a blade is in hand, its cautions stand beside it."""

from __future__ import annotations

from dataclasses import replace

import pytest

from fardo.core.make import WAYS, make_box
from tests.made_up import allowances, inches, shop, sizes

CUT_OUT = ["tray", "part-lid", "slotted", "overlap", "half-slotted", "halves", "boxed-twice", "five-panel"]


@pytest.mark.parametrize("way", CUT_OUT)
def test_a_blade_is_in_hand_where_a_step_cuts_and_nowhere_else(way: str) -> None:
    made = make_box(way, sizes("20 x 12 x 9"), shop().grade("C"), allowances("1/16"), WAYS[way].SCHOOLS[0])
    assert len(made.steps) > 2
    assert {step.do: step.knife for step in made.steps} == {
        step.do: step.do.startswith(("Cut ", "Trim ", "Slit ")) for step in made.steps
    }
    # The cuts of a five-panel folder are all straight through, before its steps.
    assert any(step.knife for step in made.steps) == (way != "five-panel")


def test_a_box_cut_larger_because_it_comes_out_smaller_is_told_as_it_comes_out() -> None:
    """Cut 1/4 in longer and 1/8 wider, it is inside and outside what an exact one is, and its blank is larger."""
    off = (inches("1/4"), inches("1/8"), inches("0"))
    grade = shop().grade("C")
    exact = make_box("slotted", sizes("20 x 12 x 9"), grade, allowances(), "exact")
    found = replace(grade, trims=(("slotted", off),))
    larger = make_box("slotted", sizes("20 x 12 x 9"), found, allowances(), "exact")
    assert (larger.needed, larger.inside, larger.outside) == (exact.needed, exact.inside, exact.outside)
    assert larger.blanks[0].size[0] == exact.blanks[0].size[0] + (off[0] + off[1]) * 2
