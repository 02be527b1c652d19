"""Rows of a price list looked over for what is most likely a slip."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import TypeVar

from fardo.core.quantity import Money

Key = TypeVar("Key")


def falls(
    rows: Sequence[tuple[Key, tuple[Money, ...]]], columns: Sequence[str], say: Callable[[Key], str]
) -> Iterator[str]:
    """Where more costs less."""
    for (_, before), (key, prices) in pairwise(rows):
        for column, (low, high) in enumerate(zip(before, prices, strict=True)):
            if high < low:
                zone = f", zone {columns[column]}" if columns else ""
                yield f"the row up to {say(key)} costs {high}, less than the row before it, {low}{zone}"
