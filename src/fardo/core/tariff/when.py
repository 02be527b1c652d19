"""When a charge applies: conditions that must all hold. What is exactly at a threshold is not over it."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass, Money
from fardo.core.tariff.measure import Billing
from fardo.core.tariff.parcel import Form, Parcel
from fardo.core.tariff.zones import covers


@dataclass(frozen=True, slots=True)
class When:
    """Each None, empty or False where it is not asked. `over` is more than, `to` is up to and including.

    Args:
        longest_over, second_over: sides. girth_over, girth_to: of length and girth together. weight_over, weight_to:
        as weighed. billed_over: as billed. value_over: declared. forms: of parcel it is for. to: postcode prefixes or
        ranges it goes to. home: only to one. signature: only where one is asked for.
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

    def holds(self, parcel: Parcel, billing: Billing) -> bool:
        around = parcel.length + parcel.girth
        return (
            _over(parcel.length, self.longest_over)
            and _over(parcel.sides[1], self.second_over)
            and _over(around, self.girth_over)
            and (self.girth_to is None or around <= self.girth_to)
            and _over(parcel.weight, self.weight_over)
            and (self.weight_to is None or parcel.weight <= self.weight_to)
            and _over(billing.billed, self.billed_over)
            and (self.value_over is None or (parcel.value is not None and parcel.value > self.value_over))
            and (not self.forms or parcel.form in self.forms)
            and (not self.to or any(covers(prefix, parcel.destination) for prefix in self.to))
            and (not self.home or parcel.residential)
            and (not self.signature or parcel.signature)
        )


ALWAYS = When()


def _over(measure: Length | Mass, threshold: Length | Mass | None) -> bool:
    return threshold is None or measure > threshold  # type: ignore[operator]
