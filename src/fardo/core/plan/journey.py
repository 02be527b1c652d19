"""Where a load goes, and the closed box as a carrier sees it there."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.goods.hazard import NO_HAZARDS, Hazards
from fardo.core.make import triangle
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.channel import SaleLabel
from fardo.core.plan.house import NO_HOUSE, House
from fardo.core.quantity import Length, Mass, Money
from fardo.core.quantity.money import total
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Form, Parcel


@dataclass(frozen=True, slots=True)
class Wishes:
    """What a job asks of its services.

    Args:
        days_at_most: on the way.
        sides_sum_at_most: all three, outside.
        parcel_weight_at_most: of each parcel.
    """

    days_at_most: int | None = None
    sides_sum_at_most: Length | None = None
    parcel_weight_at_most: Mass | None = None


NO_WISHES = Wishes()


@dataclass(frozen=True, slots=True)
class Journey:
    """Where a load goes.

    Args:
        value: declared of all of it, or None.
        hazards: what its answers come to.
        day: it leaves.
        beside: parcels that are closed already and go with it, each with its own part of the value.
        distance: by road, where it was said.
        country: it goes to, by its code, nothing at home.
        wishes: of the job.
        label: that the sale gave.
        closed: rate plans that are open to sales of other channels.
        cover_from: from such a value on what does not cover it comes after what does.
        house: rules of the shop's that hold.

    Raises: BadInput where the parcels beside are worth more than all of it.
    """

    origin: str
    destination: str
    residential: bool
    value: Money | None = None
    hazards: Hazards = NO_HAZARDS
    day: str | None = None
    signature: bool = False
    beside: tuple[Parcel, ...] = ()
    distance: Length | None = None
    country: str = ""
    wishes: Wishes = NO_WISHES
    label: SaleLabel | None = None
    closed: frozenset[str] = frozenset()
    cover_from: Money | None = None
    house: House = NO_HOUSE

    def __post_init__(self) -> None:
        values = [parcel.value for parcel in self.beside if parcel.value is not None]
        if not values:
            return
        theirs = total(values, values[0].currency)
        whole = self.value or Money(0, theirs.currency)
        if theirs > whole:
            allowed = "at least what the parcels beside it are worth together"
            raise BadInput("parcels worth more than all of it", read=str(theirs), allowed=allowed, field="value")

    @property
    def own_value(self) -> Money | None:
        """Of what is boxed here: all of it less what the parcels beside are worth."""
        value = self.value
        for other in self.beside:
            value = value - other.value if value and other.value else value
        return value


def abroad(to: str, leaves_from: str, home: str) -> str:
    """Code of the country it goes to; nothing where that is the one it leaves from, or nobody said.

    >>> abroad("FR", "", "US"), abroad("us", "", "US"), abroad("", "", "US")
    ('FR', '', '')
    """
    country = to.upper()
    return "" if country == (leaves_from or home).upper() else country


def parcel_of(boxed: Boxed, journey: Journey) -> Parcel:
    """The closed box as a carrier sees it."""
    made = boxed.made
    # Made over it is a parcel like any other, and goes at no container's price.
    own = None if made.condition == "re-cut" else next((one.item for one in made.taken if one.item.carrier), None)
    form: Form = "soft" if made.flat else "not rectangular" if made.way == triangle.NAME else "box"
    return Parcel(
        made.outside, boxed.weights.total, journey.origin, journey.destination, journey.residential,
        journey.own_value, journey.hazards.tags, form, made.flat,
        own.name if own else "", journey.signature, journey.beside, journey.distance, journey.country,
        stiff=not made.bends,
    )  # fmt: skip
