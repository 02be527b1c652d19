"""What goes over the wire to a carrier and comes back, format fardo-wire/1, told in docs/formats/carrier-wire.md.

Lengths are millimetres, weights grams, amounts decimal strings. What comes back is somebody else's: it is read
strictly, and nothing of an answer that cannot be read is believed.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

Amount = Annotated[str, Field(pattern=r"^-?\d{1,9}(\.\d{1,4})?$")]
Currency = Annotated[str, Field(pattern=r"^[A-Z]{3}$")]
Days = Annotated[int, Field(ge=0, le=1000)]
Words = Annotated[str, Field(max_length=400)]


class _Said(BaseModel):
    """Names that are not known here are passed over: a carrier may tell more."""

    model_config = ConfigDict(extra="ignore")


class ParcelSaid(_Said):
    sides_mm: tuple[float, float, float] = Field(description="outside, longest first")
    weight_g: float
    form: str = Field("box", max_length=20)
    value: Amount | None = Field(None, description="declared, in the currency of the question")


class QuotesAsked(_Said):
    origin: str = Field(alias="from", max_length=20)
    to: str = Field(max_length=20)
    country: str = Field("", max_length=2, description="code of the one it goes to, empty at home")
    home: bool = False
    signature: bool = False
    currency: Currency
    parcels: list[ParcelSaid] = Field(min_length=1, max_length=21)

    model_config = ConfigDict(populate_by_name=True, extra="ignore")


class ChargeSaid(_Said):
    kind: str = Field("", max_length=40)
    what: Words
    amount: Amount


class QuoteSaid(_Said):
    id: str = Field(min_length=1, max_length=80)
    service: str = Field(min_length=1, max_length=80)
    programme: str = Field("", max_length=40)
    amount: Amount
    currency: Currency
    days: tuple[Days, Days]
    charges: list[ChargeSaid] = Field(default_factory=list, max_length=80)


class RefusedSaid(_Said):
    service: str = Field(max_length=80)
    programme: str = Field("", max_length=40)
    why: Words


class QuotesSaid(_Said):
    quotes: list[QuoteSaid] = Field(max_length=60)
    refused: list[RefusedSaid] = Field(default_factory=list, max_length=60)


class LabelAsked(_Said):
    """`at_most` is the price that was seen: a carrier that asks more by now sells nothing and says so."""

    quote: str = Field(max_length=80)
    at_most: Amount
    currency: Currency


class LabelSaid(_Said):
    tracking: str = Field(min_length=4, max_length=40, pattern=r"^[A-Z0-9-]+$")
    amount: Amount
    currency: Currency


class VoidSaid(_Said):
    """That a label is void, or that none will be sold under its key."""

    state: Literal["void"]


class EventSaid(_Said):
    at: str = Field(max_length=40)
    what: Words


class TrackingSaid(_Said):
    tracking: str = Field(max_length=40)
    state: str = Field(max_length=60)
    events: list[EventSaid] = Field(default_factory=list, max_length=200)


class PriceChanged(_Said):
    """The answer, with status 409, to a label whose price is not what it was."""

    why: Words
    amount: Amount
    currency: Currency
