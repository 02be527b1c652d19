"""What became of a parcel: closed, numbered, handed over. As it was typed; what it means is read by `closed_of`."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import ConfigDict, Field

from fardo.core.pack.closed import Closed
from fardo.core.quantity import Units
from fardo.core.refusal import BadInput
from fardo.files.typed import Strict, TypedSizes, Weight, to_mass, to_sizes

EXAMPLE: dict[str, Any] = {
    "closed": {"weight": "14 lb 6 oz", "sides": "24 x 24 x 8 1/4 in"},
    "number": "OB-4471-20",
    "handed_over": {"on": "2026-03-02", "where": "counter in Pellmouth", "expected": "2026-03-05"},
}


class ClosedEntry(Strict):
    """The closed parcel by scale and tape."""

    weight: Weight | None = None
    sides: TypedSizes | None = Field(None, description="where each is largest, in any order")


class HandedOverEntry(Strict):
    """That it was given to its carrier."""

    on: date
    where: str = Field("", max_length=120, description="counter, collection, driver")
    expected: date | None = Field(None, description="the day it should be there")
    receipts: list[str] = Field(default_factory=list, max_length=6, description="photographs kept with the shop")


class SendingEntry(Strict):
    """All of it, as far as it is known."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})
    closed: ClosedEntry | None = None
    number: str = Field("", max_length=40, pattern=r"^[0-9A-Za-z -]*$", description="of a label bought elsewhere")
    handed_over: HandedOverEntry | None = None


class StockTaken(Strict):
    """What a parcel took off the stock: boxes and mailers by name, and in thousandths wrap, fill and tape."""

    boxes: dict[str, int] = Field(default_factory=dict)
    wrap: dict[str, int] = Field(default_factory=dict)
    fill: dict[str, int] = Field(default_factory=dict)
    tape: int = 0


def closed_of(entry: ClosedEntry | None, units: Units) -> Closed:
    """What was weighed and measured. Raises BadInput for what cannot be read, or is nothing."""
    if entry is None:
        return Closed()
    weight = to_mass(entry.weight, units, "closed.weight") if entry.weight not in (None, "") else None
    sides = to_sizes(entry.sides, units, "closed.sides") if entry.sides not in (None, "", []) else None
    return Closed(weight, sides)


def must_be_whole(entry: SendingEntry, units: Units) -> None:
    """Raises BadInput for a measure that cannot be read, and for a day that is expected before it was handed over."""
    closed_of(entry.closed, units)
    over = entry.handed_over
    if over is not None and over.expected is not None and over.expected < over.on:
        raise BadInput(
            "before it was handed over", read=str(over.expected), allowed=f"{over.on} or later",
            field="handed_over.expected",
        )  # fmt: skip
