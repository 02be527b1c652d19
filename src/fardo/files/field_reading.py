"""Reads fields one by one, keeping what is missing and what is wrong apart; never raises for what a person may type."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length, Mass
from fardo.core.refusal import BadInput
from fardo.files.typed import to_length

T = TypeVar("T")


class FieldReading:
    """Reads fields one after another and keeps what is missing or wrong.

    Args:
        shop: whose units are read, and whose materials and boards there are.
    """

    def __init__(self, shop: Shop) -> None:
        self.shop = shop
        self.missing: list[str] = []
        self.problems: list[BadInput] = []
        self.read: list[tuple[str, Length | Mass]] = []

    def attempt(self, read: Callable[..., T], *args: Any, under: str = "", **options: Any) -> T | None:
        """What `read` gives, or None with its refusal kept."""
        try:
            return read(*args, **options)
        except BadInput as problem:
            self.problems.append(problem.under(under) if under else problem)
            return None

    def needed(self, name: str, value: Any, read: Callable[..., T], *args: Any) -> T | None:
        """As `attempt`, where an empty value is missing rather than wrong."""
        if is_empty(value):
            self.missing.append(name)
            return None
        return self.attempt(read, value, *args)

    def optional(self, value: Any, otherwise: T, read: Callable[..., T], *args: Any, **options: Any) -> T | None:
        """As `attempt`, where an empty value stands for another."""
        return otherwise if is_empty(value) else self.attempt(read, value, *args, **options)

    def measure(self, name: str, value: Any, where: str) -> Length | None:
        """A length that is needed, kept as it was read."""
        length = self.needed(name, value, to_length, self.shop.units, where)
        if length is not None:
            self.read.append((where, length))
        return length


def is_empty(value: Any) -> bool:
    return value is None or (isinstance(value, str) and not value.strip())
