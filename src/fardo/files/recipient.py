"""Who a parcel goes to, and the order it answers."""

from __future__ import annotations

from typing import Any

from pydantic import ConfigDict, Field

from fardo.files.address import EXAMPLE as ADDRESS
from fardo.files.address import AddressEntry
from fardo.files.typed import Strict

EXAMPLE: dict[str, Any] = {"address": ADDRESS, "order": "GR-1042", "note": "Happy spinning."}


class RecipientEntry(Strict):
    """A person's data. It is no part of a job file."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})
    address: AddressEntry = Field(default_factory=lambda: AddressEntry())
    order: str = Field("", max_length=60, description="number of the order, as the buyer has it")
    note: str = Field("", max_length=400, description="for the packing slip")

    @property
    def words(self) -> str:
        """By which it is found."""
        address = self.address
        return " ".join([address.name, *address.lines, address.town, address.mail, self.order]).lower()
