"""The answer to "why this number": the formula, the values put into it, and the rule or source it follows."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Length, Mass, Money

Value = Length | Mass | Money | tuple[Length, Length, Length] | str


@dataclass(frozen=True, slots=True)
class Why:
    """Why a figure is what it is.

    Args:
        formula: in words, as one would say it at the bench.
        values: name and value of what was put in, in order.
        rule: the rule or source.
    """

    formula: str
    values: tuple[tuple[str, Value], ...]
    rule: str
