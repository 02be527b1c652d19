"""Strength of corrugated boxes against published rows and a formula worked by hand.

Uniform Freight Classification rule 41 / NMFC item 222: rows from memory. McKee, Gander and Wachuta (1963), simplified.
"""

from __future__ import annotations

import math
from dataclasses import replace
from fractions import Fraction

import pytest

from fardo.core.board.strength import Trust, certificate, compression, enough, judge
from fardo.core.quantity import POUND
from tests.made_up import shop, sizes

SINGLE = [(23, 20, 40), (26, 35, 50), (29, 50, 60), (32, 65, 75), (40, 80, 85), (44, 95, 95), (55, 120, 105)]
DOUBLE = [(42, 80, 85), (48, 100, 95), (51, 120, 105), (61, 140, 110), (71, 160, 115), (82, 180, 120)]


@pytest.mark.parametrize(("walls", "rows"), [(1, SINGLE), (2, DOUBLE)])
def test_the_certificate_has_its_published_rows(walls: int, rows: list[tuple[int, int, int]]) -> None:
    for crush, pounds, united in rows:
        limits = certificate(crush, walls)
        assert limits is not None
        assert (limits.gross, limits.united) == (POUND * pounds, united)
        between = certificate(crush + 1, walls)
        assert between == limits  # a board between two rows is good for the lower
    assert certificate(rows[0][0] - 1, walls) is None


def test_compression_by_hand() -> None:
    # 5.87 x 32 lb/in x sqrt(5/32 in x 60 in): 187.84 x 3.0619.
    assert compression(32, 5 / 32, 60) == pytest.approx(187.84 * math.sqrt(9.375))
    # Twice the board's crush is twice the box's; four times around or as thick again twice as well.
    assert compression(64, 5 / 32, 60) == pytest.approx(2 * compression(32, 5 / 32, 60))
    assert compression(32, 5 / 32, 240) == pytest.approx(2 * compression(32, 5 / 32, 60))


def test_a_box_is_judged_by_weight_and_by_its_sides() -> None:
    grade = replace(shop().grade("C"), edge_crush=32)
    assert judge(sizes("30 x 25 x 20"), POUND * 65, grade).warnings == ()
    (heavy,) = judge(sizes("30 x 25 x 20"), POUND * 66, grade).warnings
    assert "65 lb" in heavy
    (large,) = judge(sizes("30 x 25 x 20 1/16"), POUND * 65, grade).warnings
    assert "75 in" in large


def test_used_and_re_cut_boxes_are_trusted_with_less() -> None:
    grade = replace(shop().grade("C"), edge_crush=32)
    size = sizes("20 x 15 x 10")
    new, used, made_over = (judge(size, POUND * 40, grade, condition) for condition in ("new", "used", "re-cut"))
    assert new.warnings == used.warnings == ()
    assert len(made_over.warnings) == 1
    assert new.compression > used.compression > made_over.compression
    assert new.stack == pytest.approx(new.compression / 5)
    assert "dearest" in judge(size, POUND, grade, "used", dear=True).warnings[0]
    assert judge(size, POUND, grade, "new", dear=True).warnings == ()


def test_a_shop_trusts_board_as_far_as_it_says() -> None:
    grade, size = shop().grade("C"), sizes("20 x 15 x 10")
    wary = Trust(used=Fraction(2, 5), recut=Fraction(1, 4), damp=Fraction(1, 5), safety=Fraction(10))
    new = judge(size, POUND * 40, grade, "new", trust=wary)
    assert new.stack == pytest.approx(new.compression / 10)
    assert new.damp == pytest.approx(new.stack / 5)
    used = judge(size, POUND * 40, grade, "used", trust=wary)
    assert used.compression == pytest.approx(new.compression * 0.4)
    assert "trusted with 40%" in used.warnings[0]


def test_the_lightest_board_that_is_certified_is_named() -> None:
    grades = list(shop().grades.values())
    light = enough(sizes("20 x 15 x 10"), POUND * 10, grades)
    heavy = enough(sizes("40 x 30 x 20"), POUND * 90, grades)
    assert light is not None
    assert heavy is not None
    assert light.weight_per_m2.ng < heavy.weight_per_m2.ng
    assert enough(sizes("60 x 60 x 60"), POUND * 10, grades) is None


def test_a_large_wall_bulges_and_damp_air_takes_half() -> None:
    grade = replace(shop().grade("C"), edge_crush=32, walls=1)
    assert not judge(sizes("40 x 20 x 12"), POUND, grade).bulges
    large = judge(sizes("40 x 21 x 12"), POUND, grade)
    assert large.bulges
    assert not judge(sizes("40 x 21 x 12"), POUND, replace(grade, walls=2)).bulges
    assert large.damp == pytest.approx(large.stack / 2)
