"""Where the nearest cheaper point is: what to take off a side, off the girth, or off the weight, and what it saves.

Off the girth means off both sides across alike, which often takes less of each than of one alone.

Every price is asked of the tariff itself, once for each that differs in what a price hangs on. Only points where a
price can change are tried: a side on its rounding, on a quarter inch (five millimetres) as a box can be trimmed, or
just at a threshold that a charge or a limit names; a weight on the tariff's step or at such a threshold.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from fardo.core.quantity import INCH, Length, Mass, Money
from fardo.core.tariff.hangs_on import Key, Sizes, hangs_on
from fardo.core.tariff.marks import Marks
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Service, quote
from fardo.core.tariff.zones import find_zone

What = Literal["longest side", "second side", "third side", "girth", "weight", "flat length"]
SIDES: tuple[What, What, What] = ("longest side", "second side", "third side")
_TRIM = {"in": Length(INCH.nm // 4), "cm": Length.of_mm(5)}
REACH = INCH * 3  # how much of a side is looked at unless said: starting value
REACH_WEIGHT = Mass.of_pounds(Fraction(2))


@dataclass(frozen=True, slots=True)
class Cheaper:
    """A point at which the service asks less.

    Args:
        what: is trimmed.
        by: how much, a length for a side or the girth, a mass for the weight.
        to: what it is then.
        amount: of the quote then.
        saves: against now.
        why: what became cheaper, in words of the tariff.
    """

    what: What
    by: Length | Mass
    to: Length | Mass
    amount: Money
    saves: Money
    why: str

    def on_tape(self, step: Length) -> tuple[Length, Length] | None:
        """How much to take off and what is left, in whole steps of a tape: both add up to the side as it is shown,
        rounded up. None for a weight.

        Args:
            step: the finest that the tape shows.
        """
        if not isinstance(self.by, Length) or not isinstance(self.to, Length):
            return None
        left = self.to.to_step(step, "down")
        return (self.to + self.by).to_step(step, "up") - left, left


def cheaper_points(
    service: Service, parcel: Parcel, reach: Length = REACH, reach_weight: Mass = REACH_WEIGHT, most: int | None = None
) -> list[Cheaper]:
    """The cheaper points for each side, for the girth and for the weight, the one that saves most first.

    Of each the nearest, and beside it the one in reach at which the price falls most, where that is further: a half
    inch may spare a pound, another inch the surcharge. The girth is told only where it takes less off each side across
    than one of them alone would.

    Args:
        most: how many of them are wanted, None for all.

    Equal sides are looked at once. Nothing where the service does not take the parcel as it is.
    """
    now = quote(service, parcel)
    if not isinstance(now, Quote):
        return []
    marks, asked = service.marks(parcel), _Asked(service, parcel, now)
    found: list[_Found] = []
    for n, what in enumerate(SIDES):
        if n and parcel.sides[n] == parcel.sides[n - 1]:
            continue
        found += asked.cheaper(what, _sides_below(service, marks, parcel, n, reach), _with_side(parcel, n))
    around = asked.cheaper("girth", _girths_below(service, marks, parcel, reach), _with_girth(parcel))
    found += [one for one in around if not any(_does_by_less(side, one) for side in found)]
    found += asked.cheaper(
        "weight", _weights_below(service, marks, parcel, reach_weight), lambda weight: replace(parcel, weight=weight)
    )
    best = sorted(found, key=lambda one: (-one.saves, one.what))[:most]
    return [asked.told(one) for one in best]


@dataclass(frozen=True, slots=True)
class _Found:
    """A cheaper point before it is put into words.

    Args:
        saves: the smallest coins.
        parcel: trimmed so.
    """

    what: What
    by: Length | Mass
    to: Length | Mass
    saves: int
    parcel: Parcel


def _does_by_less(side: _Found, around: _Found) -> bool:
    """Whether a trim of one side across saves as much as one of both, and takes no more off it."""
    if side.what == "longest side" or side.saves < around.saves:
        return False
    return isinstance(side.by, Length) and isinstance(around.by, Length) and 4 * side.by.nm <= around.by.nm


def _with_side(parcel: Parcel, n: int) -> Callable[[Length], Sizes]:
    longest, second, third = parcel.sides

    def trimmed(side: Length) -> Sizes:
        return (side, second, third) if n == 0 else (longest, side, third) if n == 1 else (longest, second, side)

    return trimmed


def _with_girth(parcel: Parcel) -> Callable[[Length], Sizes]:
    longest, second, third = parcel.sides
    girth = parcel.girth

    def trimmed(around: Length) -> Sizes:
        off = Length((girth.nm - around.nm) // 4)
        return longest, second - off, third - off

    return trimmed


class _Asked:
    """Prices of a parcel with something taken off.

    Most trims change nothing that a price hangs on: the service is asked once for each that does.
    """

    def __init__(self, service: Service, parcel: Parcel, now: Quote) -> None:
        self._service, self._parcel, self._now = service, parcel, now
        self._zone = find_zone(service.zones, parcel.origin, parcel.destination, parcel.country)
        self._key = hangs_on(service, parcel).key
        self._minor: dict[Key, int | None] = {self._key(parcel.sides): now.amount.minor}

    def cheaper(
        self, what: What, points: Iterator[Length] | Iterator[Mass], trimmed: Callable[..., Sizes | Parcel]
    ) -> list[_Found]:
        """The first point, going down, at which it costs less, and the one at which it falls most, if that is
        another.
        """
        found: list[tuple[Length | Mass, Sizes | Parcel, int]] = []
        least, most = self._now.amount.minor, 0
        for point in points:
            given = trimmed(point)
            minor = self._price(given)
            if minor is None or minor >= least:
                continue
            fall, least = least - minor, minor
            if fall > most:
                most = fall
                found = [*found[:1], (point, given, self._now.amount.minor - minor)]
        return [
            _Found(what, _less(self._parcel, what, point), point, saves, self._sent(given))
            for point, given, saves in found
        ]

    def _sent(self, given: Sizes | Parcel) -> Parcel:
        return given if isinstance(given, Parcel) else self._parcel.of_sizes(given)

    def _price(self, given: Sizes | Parcel) -> int | None:
        """In the smallest coin; None where it is not taken."""
        key = None if isinstance(given, Parcel) else self._key(given)
        if key is not None and key in self._minor:
            return self._minor[key]
        then = quote(self._service, self._sent(given), zone=self._zone)
        minor = then.amount.minor if isinstance(then, Quote) else None
        if key is not None:
            self._minor[key] = minor
        return minor

    def told(self, one: _Found) -> Cheaper:
        then = quote(self._service, one.parcel)
        assert isinstance(then, Quote)  # it was asked a moment ago
        return Cheaper(one.what, one.by, one.to, then.amount, self._now.amount - then.amount, _why(self._now, then))


def _less(parcel: Parcel, what: What, point: Length | Mass) -> Length | Mass:
    """How much is to come off."""
    if isinstance(point, Mass):
        return Mass(parcel.weight.ng - point.ng)
    if what == "girth":
        return parcel.girth - point
    return parcel.sides[SIDES.index(what)] - point


def _why(now: Quote, then: Quote) -> str:
    """What is gone or costs less."""
    kept = {line.what: line for line in then.lines}
    gone = [line.what for line in now.lines if line.what not in kept]
    less = [kept[line.what].why for line in now.lines if line.what in kept and kept[line.what].amount < line.amount]
    return "; ".join([*(f"no {what}" for what in gone), *less[:1]])


def _sides_below(service: Service, marks: Marks, parcel: Parcel, n: int, reach: Length) -> Iterator[Length]:
    """From the nearest down."""
    side = parcel.sides[n]
    least = max(side.nm - reach.nm, 1)
    trim = _TRIM[service.units]
    points = {Length(nm) for nm in range(-(-least // trim.nm) * trim.nm, side.nm, trim.nm)}
    rest = sum((other for k, other in enumerate(parcel.sides) if k != n), start=Length(0))
    points |= {*marks.longest, *marks.second}
    points |= {Length(mark.nm - rest.nm) for mark in marks.united_inches}
    points |= {_at_volume(parcel, n, volume) for volume in marks.volume}
    for tier_step, _ in marks.tiers:  # just below a step it is rounded down to the one before
        step = tier_step.nm
        points |= {Length(nm - 1) for nm in range(-(-least // step) * step, side.nm + 1, step)}
    for around in marks.around:
        points |= _at_girth(parcel, n, around)
    if service.dimensional is not None:
        if service.dimensional.threshold is not None:
            spared = service.dimensional.threshold * service.dimensional.side_unit.nm**3
            points.add(_at_volume(parcel, n, spared.__floor__()))
        unit = service.dimensional.step or service.dimensional.side_unit
        points |= {Length(nm) for nm in range(-(-least // unit.nm) * unit.nm, side.nm, unit.nm)}
        # Halves are where a side goes to the other whole unit.
        half = unit.half()
        points |= {Length(nm - 1) for nm in range((least // unit.nm) * unit.nm + half.nm, side.nm + 1, unit.nm)}
    yield from sorted((point for point in points if least <= point.nm < side.nm), reverse=True)


def _girths_below(service: Service, marks: Marks, parcel: Parcel, reach: Length) -> Iterator[Length]:
    """From the nearest down: a trim off both sides across, or just what brings length and girth to a threshold."""
    girth, trim = parcel.girth.nm, _TRIM[service.units].nm
    most = min(reach.nm, parcel.sides[2].nm - 1)
    offs = set(range(trim, most + 1, trim))
    offs |= {-(-(parcel.length.nm + girth - around.nm) // 4) for around in marks.around}
    if service.dimensional is not None:
        unit = service.dimensional.step or service.dimensional.side_unit
        for side in parcel.sides[1:]:  # what brings one of them to a whole unit, or below the half of one
            over = side.nm % unit.nm
            offs |= set(range(over, most + 1, unit.nm))
            offs |= set(range((over - unit.half().nm) % unit.nm + 1, most + 1, unit.nm))
    yield from (Length(girth - 4 * off) for off in sorted(offs) if 0 < off <= most)


def _at_volume(parcel: Parcel, n: int, nm3: int) -> Length:
    """The largest the side may be for a volume of so much, others staying."""
    a, b = (side.nm for k, side in enumerate(parcel.sides) if k != n)
    return Length(nm3 // (a * b))


def _at_girth(parcel: Parcel, n: int, around: Length) -> set[Length]:
    """What the side is when length and girth come to so much, others staying: counted once as the length, or twice
    where it is none, or is none any more.
    """
    longer, shorter = (side for k, side in enumerate(parcel.sides) if k != n)
    once = around.nm - 2 * (longer.nm + shorter.nm)
    return {Length(once), Length((around.nm - longer.nm - 2 * shorter.nm) // 2)}


def _weights_below(service: Service, marks: Marks, parcel: Parcel, reach: Mass) -> Iterator[Mass]:
    """From the nearest down: whole steps, and thresholds."""
    step, weight = service.weights.step, parcel.weight
    least = max(weight.ng - reach.ng, 1)
    points = {Mass(ng) for ng in range(-(-least // step.ng) * step.ng, weight.ng, step.ng)}
    points |= set(marks.weight)
    yield from sorted((point for point in points if least <= point.ng < weight.ng), reverse=True)
