"""One more of each open family, as somebody would add it: a module, here a few names, and a line in the register."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction
from types import SimpleNamespace
from typing import Any, Literal

import pytest

from fardo.core.goods.hazard import QUESTIONS, HazardAnswer, Question, Tag
from fardo.core.goods.part import Sizes
from fardo.core.make import WAYS, slotted
from fardo.core.make.allowances import ALLOWANCES, Allowance, Allowances
from fardo.core.make.inserts import INSERTS
from fardo.core.make.inserts.strip import plain
from fardo.core.make.inserts.wanted import Asks, Insert, Wanted
from fardo.core.make.made import Made
from fardo.core.protect.forms import FORMS, wrap
from fardo.core.quantity import INCH, Length, Money, Units
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment
from fardo.files.charges import CHARGES, ChargeBase
from fardo.files.typed import to_money

SEAT = Allowance("seat", "Seat of a hooped case", INCH * 3)


def hooped(inside: Sizes, *others: Any) -> Made:
    """A slotted case that is taller by the seat."""
    grade, allowances = others[0], others[1]
    assert isinstance(allowances, Allowances)
    made = slotted.make((inside[0], inside[1], inside[2] + allowances[SEAT]), grade, allowances)
    x, y, z = made.inside
    sizes = (*made.needed[:2], inside[2]), (x, y, z - allowances[SEAT])
    return replace(made, way="hooped", minutes=Fraction(7), needed=sizes[0], inside=sizes[1])


def wedge(wanted: Wanted, inside: Sizes, t: Length, allowances: Allowances) -> Insert:
    assert wanted.length is not None
    return Insert("wedge", (plain("wedge", (wanted.length, wanted.length), wanted.count),))


@dataclass(frozen=True, slots=True)
class Toll(Charge):
    amount: Money

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        return ChargeLine("toll", "bridge toll", self.amount, "the bridge is crossed")

    @property
    def line_kind(self) -> str:
        return "toll"


class TollEntry(ChargeBase):
    kind: Literal["toll"]
    amount: str

    def to_core(self, currency: str, units: Units) -> Charge:
        return Toll(to_money(self.amount, currency, "amount"))

    def priced(self, units: Units) -> str:
        return f"{self.amount} a bridge"

    def reprice(self, new: Callable[[str], str]) -> None:
        self.amount = new(self.amount)


def add_one_of_each(patch: pytest.MonkeyPatch) -> None:
    """Into every register, until the test is over."""
    way = SimpleNamespace(NAME="hooped", TITLE="Hooped case", NEEDS="sheet", SCHOOLS=("exact",),
                          MINUTES=Fraction(7), make=hooped)  # fmt: skip
    form = SimpleNamespace(FORM="felt", TITLE="felt wound around", ASKS=("layers",), put_on=wrap.put_on)
    insert = SimpleNamespace(KIND="wedge", TITLE="Wedge", ASKS=(Asks("count", "how many"), Asks("length", "long")),
                             COUNT=3, cut=wedge)  # fmt: skip
    scent = Question("scent", "Does it smell?", (
        HazardAnswer("none", "no"),
        HazardAnswer("strong", "yes", "Wrapped airtight.", Tag("strong-scent", "what smells")),
    ))  # fmt: skip
    for register, name, one in (
        (WAYS, "hooped", way), (ALLOWANCES, "seat", SEAT), (FORMS, "felt", form), (INSERTS, "wedge", insert),
        (QUESTIONS, "scent", scent), (CHARGES, "toll", TollEntry),
    ):  # fmt: skip
        patch.setitem(register, name, one)  # type: ignore[arg-type]
