"""What a corrugated box may weigh and measure, and what may stand on it.

Limits: the certificate of Uniform Freight Classification rule 41 and NMFC item 222 (published; the rows from memory).
Compression: the simplified formula of McKee, Gander and Wachuta, 1963 (published; from memory).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.quantity import INCH, POUND, Mass

Condition = Literal["new", "used", "re-cut"]

# By edge crush, lb per inch: gross weight, lb, and united inches (length + width + height outside).
SINGLE_WALL = {
    23: (20, 40), 26: (35, 50), 29: (50, 60), 32: (65, 75), 40: (80, 85), 44: (95, 95), 55: (120, 105),
}  # fmt: skip
DOUBLE_WALL = {
    42: (80, 85), 48: (100, 95), 51: (120, 105), 61: (140, 110), 71: (160, 115), 82: (180, 120),
}  # fmt: skip
# A wall both of whose sides are longer than so much bulges when the box is full: starting values, inches.
_BULGES_FROM = {1: 20, 2: 30}
_MCKEE = 5.87


@dataclass(frozen=True, slots=True)
class Trust:
    """How far board is trusted: starting values, the shop's own to change.

    Args:
        used, recut: what is left of the strength of such a box.
        damp: what is left of that in damp air or once it was wet.
        safety: against weeks in a stack and rough handling.
    """

    used: Fraction = Fraction(7, 10)
    recut: Fraction = Fraction(1, 2)
    damp: Fraction = Fraction(1, 2)
    safety: Fraction = Fraction(5)

    def left(self, condition: Condition) -> Fraction:
        return {"new": Fraction(1), "used": self.used, "re-cut": self.recut}[condition]


STARTING_TRUST = Trust()


@dataclass(frozen=True, slots=True)
class Limits:
    """A row of the box maker's certificate.

    Args:
        gross: with all that is in it.
        united: length + width + height outside, inches.
    """

    gross: Mass
    united: int


def certificate(edge_crush: int, walls: int) -> Limits | None:
    """The row of the certificate that such board reaches; None below the first.

    >>> certificate(32, 1).united, round(certificate(51, 2).gross.pounds)
    (75, 120)
    """
    table = SINGLE_WALL if walls == 1 else DOUBLE_WALL
    reached = [row for crush, row in table.items() if crush <= edge_crush]
    if not reached:
        return None
    pounds, united = reached[-1]
    return Limits(POUND * pounds, united)


def compression(edge_crush: int, caliper_inches: float, perimeter_inches: float) -> float:
    """Top-to-bottom compression of a new slotted box, lb: 5.87 x ECT x sqrt(caliper x perimeter).

    >>> round(compression(32, 5 / 32, 60))
    575
    """
    return _MCKEE * edge_crush * math.sqrt(caliper_inches * perimeter_inches)


@dataclass(frozen=True, slots=True)
class Strength:
    """What a closed box bears, and what speaks against it.

    Args:
        limits: of the certificate, None where the board has none.
        compression, stack, damp: lb, what it stands when tried, what may stand on it for long, and that in damp air.
        warnings: in words.
        bulges: whether its largest wall may, so that it is measured at its middle, as carriers do.
        overloaded: it weighs more than such a box is trusted with.
    """

    limits: Limits | None
    compression: float
    stack: float
    damp: float
    warnings: tuple[str, ...]
    bulges: bool = False
    overloaded: bool = False


SOFT = Strength(None, 0.0, 0.0, 0.0, ())  # a mailer or bag: it has no certificate, and nothing may stand on it


def judge(
    outside: Sizes, gross: Mass, grade: Grade, condition: Condition = "new", dear: bool = False,
    trust: Trust = STARTING_TRUST, worn: Fraction = Fraction(1),
) -> Strength:  # fmt: skip
    """How strong a closed box of that grade is, and what speaks against it.

    Args:
        dear: goods of high value.
        worn: what its wear leaves of what its like is trusted with.
    """
    left = trust.left(condition) * worn
    limits = certificate(grade.edge_crush, grade.walls)
    around = float((outside[0].inches + outside[1].inches) * 2)
    stands = compression(grade.edge_crush, float(grade.caliper.inches), around) * float(left)
    united = sum(outside, start=INCH * 0).inches
    warnings = []
    overloaded = limits is not None and gross.ng > limits.gross.ng * left
    if limits is None:
        warnings.append(f"{grade.name} is below the first row of the box certificate")
    else:
        if overloaded:
            of_it = "" if left == 1 else f", of which a {condition} box is trusted with {float(left):.0%}"
            warnings.append(
                f"it weighs more than {grade.name} is certified for: {float(limits.gross.pounds):g} lb{of_it}"
            )
        if united > limits.united:
            warnings.append(f"length + width + height is over {limits.united} in, certified for {grade.name}")
    if condition != "new" and dear:
        warnings.append(f"a {condition} box is not for the dearest goods")
    wall = sorted(outside)[1].inches  # of its largest wall, the shorter side
    bulges = wall > _BULGES_FROM.get(grade.walls, _BULGES_FROM[2])
    stack = stands / float(trust.safety)
    return Strength(limits, stands, stack, stack * float(trust.damp), tuple(warnings), bulges, overloaded)


def enough(outside: Sizes, gross: Mass, grades: list[Grade]) -> Grade | None:
    """The lightest of the shop's grades that is certified for it; None where none is."""
    able = [grade for grade in grades if not judge(outside, gross, grade).warnings]
    return min(able, key=lambda grade: (grade.weight_per_m2, grade.code), default=None)
