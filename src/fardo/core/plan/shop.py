"""What a shop brings to every job: its board, fill, tape, time and habits. All of it data that the shop changes."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.make.made import Allowances
from fardo.core.protect.fill import Fill
from fardo.core.quantity import Length, Mass, Money, Units
from fardo.core.refusal import BadInput


@dataclass(frozen=True, slots=True)
class Tape:
    weight_per_m: Mass
    price_per_100_m: Money


@dataclass(frozen=True, slots=True)
class Shop:
    """
    Args:
        units: what it reads and writes. currency: of all its money. labour_per_hour: its own rate.
        pack_minutes: to place, fill, close and label, whatever the box. default_gap: where a part names none.
        grades: its board, by code; `default_grade` is used unless a job says otherwise.
    """

    units: Units
    currency: str
    labour_per_hour: Money
    pack_minutes: Fraction
    default_gap: Length
    allowances: Allowances
    fill: Fill
    tape: Tape
    grades: dict[str, Grade]
    default_grade: str

    def grade(self, code: str | None) -> Grade:
        """The grade of that code, or the usual one. Raises BadInput for a code the shop does not have."""
        wanted = self.default_grade if code is None else code
        if wanted not in self.grades:
            raise BadInput("not a board the shop has", read=wanted, allowed=", ".join(self.grades), field="board")
        return self.grades[wanted]
