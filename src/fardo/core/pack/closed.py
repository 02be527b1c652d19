"""A closed parcel as it was weighed and measured, against its plan: what it costs now, and what to do about it.

The scale and the tape decide, as they do at the carrier's. Before a label is bought, what asks for less is told: a side
pressed or taped anew, a little out of the box, another service, or the difference paid.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from fardo.core.goods.part import Sizes
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.journey import Journey, parcel_of
from fardo.core.plan.price import price_parcel
from fardo.core.quantity import INCH, OUNCE, Length, Mass, Money
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Service, find_service
from fardo.core.tariff.steps import Cheaper, cheaper_points

# How much of a closed box can be pressed or taped in, and how much can be taken out of it without packing it anew:
# common practice, starting values.
PRESSED_IN = INCH
TAKEN_OUT = OUNCE * 8
# So far from its plan a scale or a tape is misread, or another parcel lies on it: starting values.
_FARTHEST = Fraction(2)
_FARTHEST_SIDE = INCH * 6


@dataclass(frozen=True, slots=True)
class Closed:
    """A parcel when it is closed.

    Args:
        weight: by the scale; None while it is not weighed.
        sides: by the tape, where each is largest, in any order; None while it is not measured.
    """

    weight: Mass | None = None
    sides: Sizes | None = None

    def over(self, boxed: Boxed, step: Length) -> tuple[Length, Length, Length] | None:
        """By how much each side is more than planned, longest first: what it bulges. Less where it is negative.

        Args:
            step: the finest that the tape shows; a plan that is finer is rounded up to it.
        """
        if self.sides is None:
            return None
        measured, planned = longest_first(self.sides), longest_first(boxed.made.outside)
        a, b, c = (one - other.to_step(step, "up") for one, other in zip(measured, planned, strict=True))
        return a, b, c

    def as_sent(self, parcel: Parcel) -> Parcel:
        """The parcel with what was measured in the place of what was planned."""
        weighed = replace(parcel, weight=self.weight) if self.weight is not None else parcel
        return weighed.of_sizes(self.sides) if self.sides is not None else weighed


@dataclass(frozen=True, slots=True)
class Advice:
    """What can be done about a parcel that costs more than planned.

    Args:
        deed: what is done.
        saves: against what it costs as it is; for *pay* what is paid more than planned.
        point: what is trimmed, for *press* and *take out*.
        quote: of the other service.
    """

    deed: Literal["press", "take out", "other service", "pay"]
    saves: Money
    point: Cheaper | None = None
    quote: Quote | None = None


@dataclass(frozen=True, slots=True)
class ClosedPrice:
    """What the chosen service asks for a parcel as it was planned and as it is.

    Args:
        planned: None where the service did not take it as planned.
        now: None where it does not take it as it is.
        refused: why it does not.
        advice: what can be done where it costs more than planned or is not taken, what saves most first.
    """

    planned: Quote | None
    now: Quote | None
    refused: str = ""
    advice: tuple[Advice, ...] = ()

    @property
    def more(self) -> Money | None:
        """By how much it costs more than planned, negative where less; None where one of both is not known."""
        return self.now.amount - self.planned.amount if self.now and self.planned else None


def price_closed(
    closed: Closed, boxed: Boxed, journey: Journey, called: tuple[str, str, str], services: Iterable[Service],
    exchange: Exchange,
) -> ClosedPrice:  # fmt: skip
    """Prices a closed parcel again.

    Args:
        called: carrier, service and rate plan that were chosen.
        services: of all carriers.

    Raises: BadInput where there is no such service.
    """
    every = [one for one in services if not one.other_way or one.called == called]
    service = find_service(every, called, journey.day)
    if service is None:
        raise BadInput("not a service here", read=" ".join(called), allowed="one that quotes", field="service")
    parcel = parcel_of(boxed, journey)
    was, _ = _asked(parcel, boxed, journey, [service], exchange)
    asked, refused = _asked(closed.as_sent(parcel), boxed, journey, every, exchange)
    planned = next(iter(was), None)
    now = next((one for one in asked if one.called == called), None)
    why = next((why for name, why in refused if name == called), "")
    found = ClosedPrice(planned, now, why)
    if now is not None and not (found.more is not None and found.more.minor > 0):
        return found
    advice = list(_advice(found, closed.as_sent(parcel), service, asked, journey, exchange))
    return replace(found, advice=tuple(advice))


def _advice(
    found: ClosedPrice, parcel: Parcel, service: Service, asked: list[Quote], journey: Journey, exchange: Exchange
) -> Iterator[Advice]:
    if found.now is not None:
        declared = exchange.declared(parcel, service.currency)
        deeds = []
        for point in cheaper_points(service, declared, PRESSED_IN, TAKEN_OUT):
            saves = exchange.convert(point.saves)
            told = replace(point, amount=exchange.convert(point.amount), saves=saves)
            deeds.append(Advice("take out" if point.what == "weight" else "press", saves, told))
        yield from _once_each(deeds)
    other = next((one for one in asked if one.called != service.called and _covers_as_well(one, found)), None)
    if other is not None and (found.now is None or other.amount < found.now.amount):
        saves = found.now.amount - other.amount if found.now else Money(0, other.amount.currency)
        yield Advice("other service", saves, quote=other)
    if found.more is not None:
        yield Advice("pay", found.more)


def _covers_as_well(quote: Quote, found: ClosedPrice) -> bool:
    """Whether it covers the declared value, where the chosen service does."""
    chosen = found.now or found.planned
    return quote.uncovered is None or (chosen is not None and chosen.uncovered is not None)


def _once_each(deeds: Iterable[Advice]) -> Iterator[Advice]:
    """Of each side and of the weight what asks for the least work: they come nearest first where they save alike."""
    seen: set[str] = set()
    for one in deeds:
        if one.point is not None and one.point.what not in seen:
            seen.add(one.point.what)
            yield one


def _asked(
    parcel: Parcel, boxed: Boxed, journey: Journey, services: list[Service], exchange: Exchange
) -> tuple[list[Quote], list[tuple[tuple[str, str, str], str]]]:
    quotes, refused = price_parcel(parcel, boxed.made.carrier, journey, services, exchange)
    return quotes, [((one.carrier, one.service, one.rate_plan), one.why) for one in refused]


def doubts(closed: Closed, boxed: Boxed) -> tuple[str, ...]:
    """What is so far from the plan that it is rather misread, in sentences."""
    said = []
    planned = boxed.weights.total
    if closed.weight is not None and not planned.ng / _FARTHEST <= closed.weight.ng <= planned.ng * _FARTHEST:
        said.append("The weight is far from the plan: is it this parcel, and is the scale at zero?")
    sides = zip(longest_first(closed.sides or boxed.made.outside), longest_first(boxed.made.outside), strict=True)
    if any(abs((one - planned).nm) > _FARTHEST_SIDE.nm for one, planned in sides):
        said.append("A side is far from the plan: is it this parcel, and measured outside?")
    return tuple(said)


def longest_first(sides: Sizes) -> Sizes:
    a, b, c = sorted(sides, key=lambda side: -side.nm)
    return a, b, c
