"""A job once its measures are read: what goes in, where it goes, what was chosen, what is missing or wrong."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fardo.core.goods.hazard import NO_HAZARDS, Hazards
from fardo.core.make import WAYS
from fardo.core.make.made import School
from fardo.core.make.stock import StockBox
from fardo.core.plan.house import NO_HOUSE, House
from fardo.core.plan.journey import Journey
from fardo.core.plan.load import MOST_UNITS, Load, not_in_one
from fardo.core.plan.progress import BoxChoice, KnotState, PriceChoice
from fardo.core.plan.sale import Sale
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import Wrapped
from fardo.core.quantity import Length, Mass, Money
from fardo.core.refusal import BadInput, NoAnswer

MOST_PARCELS = 100  # of one job


@dataclass(frozen=True, slots=True)
class ReadPart:
    """A part of a job.

    Args:
        name: as the job calls it, or by its number.
        units: what is packed of it, each thing or pile; none while a measure of it is missing or wrong.
        wrapped: whether anything is put on it.
        gap_said: whether its gap was said.
        guessed: whether its measures are still those of its kind.
        lies_with: the part it is packed with, as its cushion; it is no thing of its own then.
    """

    name: str
    units: tuple[Wrapped, ...] = ()
    wrapped: bool = False
    gap_said: bool = False
    guessed: bool = False
    lies_with: str = ""


@dataclass(frozen=True, slots=True)
class Job:
    """A job as it is read.

    Args:
        parts: in the job's order.
        load: what goes into the box; None while a part of it cannot be read.
        journey: where it goes; None while that is not said.
        ways: to get a box, as far as they are known.
        board: code of the one it names, or None.
        school: how panels are sized, where a way has more than one.
        box: the one that was chosen.
        price: the service that was chosen.
        hazards: what the answers come to.
        value: declared of all of it, where it can be read.
        lined: whether a liner is asked for.
        parcels_at_most: that it may go in.
        arranged: whether an arrangement was kept, and still holds.
        missing: what is not there yet, in words.
        problems: what cannot be read.
        unfinished: what inserts still lack; the load is without those, so that all else is worked out meanwhile.
        read: each measure of a part by its path, as it was read.
        found_boxes: used boxes that are there for this job only.
        ready_boxes: that are sold ready for such goods, and are not here.
        house: rules of the shop's that hold.
        sale: what it sold for, where that is said.
    """

    parts: tuple[ReadPart, ...] = ()
    load: Load | None = None
    journey: Journey | None = None
    ways: tuple[str, ...] = tuple(WAYS)
    board: str | None = None
    school: School = "exact"
    box: BoxChoice | None = None
    price: PriceChoice | None = None
    hazards: Hazards = NO_HAZARDS
    value: Money | None = None
    lined: bool = False
    parcels_at_most: int = 1
    arranged: KnotState = "open"
    missing: tuple[str, ...] = ()
    problems: tuple[BadInput, ...] = ()
    unfinished: tuple[str, ...] = ()
    read: tuple[tuple[str, Length | Mass], ...] = ()
    found_boxes: tuple[StockBox, ...] = ()
    ready_boxes: tuple[StockBox, ...] = ()
    house: House = NO_HOUSE
    sale: Sale | None = None

    @property
    def guessed(self) -> tuple[str, ...]:
        """The parts whose measures are still the kind's."""
        return tuple(part.name for part in self.parts if part.guessed)

    @property
    def beyond(self) -> str | None:
        """What it asks for that is not worked out, or None."""
        return beyond(self.parts, self.ways, self.parcels_at_most)

    @property
    def protection(self) -> str:
        """How it is protected, in words; nothing where nothing was said of it."""
        wrapped = sum(part.wrapped for part in self.parts)
        if not (wrapped or self.lined or any(part.gap_said for part in self.parts)):
            return ""
        several = len(self.parts) > 1
        return f"{wrapped} of {len(self.parts)} wrapped" if several else "wrapped" if wrapped else "gap said, no wrap"

    @property
    def left_aside(self) -> tuple[str, ...]:
        """What it asks for that is left aside, in sentences."""
        if self.parcels_at_most > 1 and not self.several:
            return (f"Up to {self.parcels_at_most} parcels are allowed; these figures are of one.",)
        return ()

    @property
    def several(self) -> str:
        """Why it does not go in one parcel; nothing where it does, or that is not known yet."""
        return not_in_one(self.load) if self.load is not None else ""

    @property
    def parcels_least(self) -> int:
        """How many parcels it takes at least, by what is known of it."""
        return max(parcels_for(sum(len(part.units) for part in self.parts)), 2 if self.several else 1)

    def shop_for(self, shop: Shop) -> Shop:
        """The shop with the boxes that were found for this job."""
        if not self.found_boxes:
            return shop
        return replace(shop, stock=replace(shop.stock, boxes=(*self.found_boxes, *shop.stock.boxes)))

    def must_load(self) -> Load:
        """The load. Raises BadInput or NoAnswer, the first there is."""
        if self.problems:
            raise self.problems[0]
        if (said := self.beyond) is not None:
            raise NoAnswer(said)
        if self.unfinished:
            raise _nothing_given(self.unfinished[0])
        if self.load is None:
            raise _nothing_given(self.missing[0] if self.missing else "parts")
        return self.load

    def must_go(self) -> Journey:
        """Where it goes. Raises BadInput where that is not said."""
        if self.journey is None:
            raise BadInput("nothing given", read="", allowed="a postcode such as 73120", field="ship.to")
        return self.journey


def beyond(parts: tuple[ReadPart, ...], ways: tuple[str, ...], parcels: int) -> str | None:
    """What is asked for that is not worked out, or None.

    Args:
        parcels: it may go in, at most.
    """
    number = sum(len(part.units) for part in parts)
    if number > MOST_UNITS * parcels:
        allowed = "a house rule allows" if parcels < MOST_PARCELS else "a job goes in up to"
        return (
            f"This job has {number} things to pack, and up to {MOST_UNITS} go in one parcel; {allowed} "
            f"{parcels} where it takes {parcels_for(number)}. Pile flat ones, or make several jobs of it."
        )
    if not ways:
        return f"This job allows no box style; there are {', '.join(WAYS)}."
    return None


def parcels_for(number: int) -> int:
    """How many parcels so many things make at least."""
    return max(-(-number // MOST_UNITS), 1)


def _nothing_given(field: str) -> BadInput:
    return BadInput("nothing given", read="", allowed="a measure", field=field)
