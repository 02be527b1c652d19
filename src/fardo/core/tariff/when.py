"""When a charge applies: conditions that must all hold. What is exactly at a threshold is not over it."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass, Money
from fardo.core.tariff.marks import Marks, known
from fardo.core.tariff.measure import Billing
from fardo.core.tariff.parcel import Form, Parcel
from fardo.core.tariff.zones import covers


@dataclass(frozen=True, slots=True)
class When:
    """Each None, empty or False where it is not asked. `over` is more than, `to` is up to and including.

    Args:
        longest_over, second_over: sides.
        girth_over, girth_to: of length and girth together.
        weight_over, weight_to: as weighed.
        billed_over: as billed.
        value_over: declared.
        forms: of parcel it is for.
        to: postcode prefixes or ranges it goes to.
        home: only to one.
        signature: only where one is asked for.
        united_inches_over: length, width and height together.
    """

    longest_over: Length | None = None
    second_over: Length | None = None
    girth_over: Length | None = None
    girth_to: Length | None = None
    weight_over: Mass | None = None
    weight_to: Mass | None = None
    billed_over: Mass | None = None
    value_over: Money | None = None
    forms: tuple[Form, ...] = ()
    to: tuple[str, ...] = ()
    home: bool = False
    signature: bool = False
    united_inches_over: Length | None = None

    def holds(self, parcel: Parcel, billing: Billing) -> bool:
        # Asked for by the thousand: what no condition names is not worked out.
        if (
            (self.home and not parcel.residential)
            or (self.signature and not parcel.signature)
            or (self.forms and parcel.form not in self.forms)
            or (self.weight_over is not None and parcel.weight.ng <= self.weight_over.ng)
            or (self.weight_to is not None and parcel.weight.ng > self.weight_to.ng)
            or (self.billed_over is not None and billing.billed.ng <= self.billed_over.ng)
            or (self.value_over is not None and (parcel.value is None or parcel.value <= self.value_over))
            or (self.united_inches_over is not None and parcel.united_inches.nm <= self.united_inches_over.nm)
        ):
            return False
        if self.longest_over is not None or self.second_over is not None:
            longest, second, _ = parcel.sides
            if (self.longest_over is not None and longest.nm <= self.longest_over.nm) or (
                self.second_over is not None and second.nm <= self.second_over.nm
            ):
                return False
        if self.girth_over is not None or self.girth_to is not None:
            around = (parcel.length + parcel.girth).nm
            if (self.girth_over is not None and around <= self.girth_over.nm) or (
                self.girth_to is not None and around > self.girth_to.nm
            ):
                return False
        return not self.to or any(covers(prefix, parcel.destination) for prefix in self.to)

    @property
    def marks(self) -> Marks:
        """Where it begins or ceases to hold."""
        weight = tuple(mark for mark in (self.weight_over, self.weight_to) if mark is not None)
        return Marks(
            known(self.longest_over), known(self.second_over), known(self.girth_over, self.girth_to),
            known(self.united_inches_over), weight,
        )  # fmt: skip


ALWAYS = When()
