"""House rules as a shop keeps them."""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated

from pydantic import Field

from fardo.core.plan.house import Rule, When
from fardo.core.quantity import ZERO, Length, Units
from fardo.core.refusal import BadInput
from fardo.files.family import WayName
from fardo.files.typed import Measure, Strict, to_length, to_money

_MOST_GAP = Length.of_mm(200)
_DAY = r"^((0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01]))?$"
Carrier = Annotated[str, Field(max_length=80)]


class HouseRuleEntry(Strict):
    """What the shop always does with such a job. What is left empty under `when` holds for every job."""

    name: str = Field(min_length=1, max_length=80)
    kind: str = Field("", max_length=40, description="when: code of a kind of goods")
    channel: str = Field("", max_length=80, description="when: where it was sold")
    value_from: str = Field("", max_length=20, description="when: from such a declared value on")
    things_from: int | None = Field(None, ge=1, le=10_000, description="when: so many things or more")
    things_to: int | None = Field(None, ge=1, le=10_000, description="when: so many things or fewer")
    to: list[Annotated[str, Field(max_length=20)]] = Field(
        default_factory=list, max_length=60, description="when: how the postcodes begin"
    )
    country: str = Field("", pattern=r"^([A-Z]{2})?$", description="when: it goes to that country")
    first_day: str = Field("", pattern=_DAY, description="when: from that day of the year, as 11-15")
    last_day: str = Field("", pattern=_DAY, description="when: to that day of the year")
    ways: list[WayName] = Field(default_factory=list, max_length=40, description="only these ways to box it")
    box: str = Field("", max_length=200, description="the shop's box or mailer it goes in, by its name")
    bar: list[Carrier] = Field(default_factory=list, max_length=40, description="carriers it does not go by")
    prefer: list[Carrier] = Field(default_factory=list, max_length=40, description="carriers that come first")
    prefer_up_to: str = Field("", max_length=20, description="by so much more a preferred carrier still comes first")
    parcels_at_most: int | None = Field(None, ge=1, le=100)
    no_loose_fill: bool = False
    cover: bool = Field(False, description="what does not cover the declared value comes last")
    signature: bool = False
    more_gap: Measure | None = Field(None, description="on every side, for rough handling")
    tape_times: float = Field(1.0, ge=1, le=4, description="how many times the usual tape")


def read_rule(entry: HouseRuleEntry, units: Units, currency: str, path: str) -> Rule:
    """Raises BadInput naming the field."""
    if bool(entry.first_day) != bool(entry.last_day):
        field = "last_day" if entry.first_day else "first_day"
        raise BadInput("half a season", read="", allowed="both days, or none", field=f"{path}.{field}")
    if entry.things_from and entry.things_to and entry.things_to < entry.things_from:
        raise BadInput(
            "less than the least", read=entry.things_to, allowed=f"{entry.things_from} or more",
            field=f"{path}.things_to",
        )  # fmt: skip
    gap = entry.more_gap
    return Rule(
        entry.name,
        When(
            entry.kind, entry.channel,
            to_money(entry.value_from, currency, f"{path}.value_from") if entry.value_from else None,
            (entry.things_from or 0, entry.things_to), tuple(entry.to), entry.country,
            (entry.first_day, entry.last_day) if entry.first_day else None,
        ),
        tuple(entry.ways), entry.box, tuple(entry.bar), tuple(entry.prefer),
        to_money(entry.prefer_up_to, currency, f"{path}.prefer_up_to") if entry.prefer_up_to else None,
        entry.parcels_at_most, entry.no_loose_fill, entry.cover, entry.signature,
        ZERO if gap in (None, "") else to_length(gap or 0, units, f"{path}.more_gap", zero=True, most=_MOST_GAP),
        Fraction(str(entry.tape_times)),
    )  # fmt: skip
