"""Declared value: free up to an amount, then so much for every step begun above it."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Money
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.charges.charge import Charge, ChargeLine, Consignment


@dataclass(frozen=True, slots=True)
class Cover(Charge):
    """Cover for the declared value.

    Args:
        free: covered without charge.
        step: of value, each one begun costs `price`.
        most: declared at the most.

    Raises: BadInput for a step of nothing.
    """

    free: Money
    step: Money
    price: Money
    most: Money

    def __post_init__(self) -> None:
        if self.step.minor <= 0:
            raise BadInput("no step at all", read=str(self.step), allowed="more than nothing", field="step")

    def charge(self, sent: Consignment, before: tuple[ChargeLine, ...]) -> ChargeLine | None:
        value = sent.value
        if value is None or value <= self.free:
            return None
        if value > self.most:
            raise NoAnswer(f"covers at most {self.most}, and {value} is declared")
        steps = -(-(value - self.free).minor // self.step.minor)
        why = f"{value} declared, first {self.free} included, then {steps} x {self.price} per {self.step} or part of it"
        return ChargeLine("cover", "cover for the declared value", Money(steps * self.price.minor, sent.currency), why)

    def covers(self, value: Money) -> bool:
        return value <= self.most

    @property
    def line_kind(self) -> str:
        return "cover"
