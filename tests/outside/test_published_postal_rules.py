"""Dimensional weight as published, values from memory.

Domestic Mail Manual: over one cubic foot (1728 in3) a parcel is billed by length x width x height / 166, each side
rounded to the nearest inch. IATA: a volumetric kilo is 6000 cm3. Examples worked here from those rules.
"""

from __future__ import annotations

from fractions import Fraction

import pytest

from fardo.core.quantity import POUND, Mass, read_length, read_mass
from fardo.core.tariff.measure import Dimensional, WeightRule, bill_weight
from fardo.core.tariff.parcel import Parcel

DMM = Dimensional(Fraction(166), "in3/lb", "nearest-half-up", Fraction(1728))
IATA = Dimensional(Fraction(6000), "cm3/kg", "nearest-half-up")


def billed(sides: str, weight: str, rule: Dimensional, step: Mass) -> Mass:
    a, b, c = (read_length(side) for side in sides.split(" x "))
    return bill_weight(Parcel((a, b, c), read_mass(weight), "10440", "73120"), rule, WeightRule(step)).billed


@pytest.mark.parametrize(
    ("sides", "weight", "pounds"),
    [
        ("12 x 12 x 12", "4 lb", 4),  # one cubic foot is not more than one cubic foot
        ("18 x 12 x 10", "4 lb", 14),  # 2160 / 166 = 13.01
        ("18 1/4 x 12 1/4 x 9 3/4", "4 lb", 14),  # rounds to 18 x 12 x 10
        ("18 1/2 x 12 1/2 x 9 1/2", "4 lb", 15),  # rounds to 19 x 13 x 10 = 2470: 14.88
        ("18 x 12 x 10", "21 lb", 21),
    ],
)
def test_domestic_mail_manual(sides: str, weight: str, pounds: int) -> None:
    assert billed(sides, weight, DMM, POUND) == POUND * pounds


@pytest.mark.parametrize(
    ("sides", "weight", "grams"),
    [
        ("60 cm x 40 cm x 30 cm", "8 kg", 12_000),
        ("50 cm x 40 cm x 31 cm", "8 kg", 10_500),
        ("30 cm x 20 cm x 10 cm", "8 kg", 8_000),
    ],
)  # fmt: skip
def test_iata_volumetric(sides: str, weight: str, grams: int) -> None:
    assert billed(sides, weight, IATA, Mass.of_grams(500)) == Mass.of_grams(grams)
