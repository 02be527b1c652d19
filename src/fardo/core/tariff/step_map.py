"""What a service asks over two sides of a box, the third and all else staying: the bands of price that a map shows.

A price hangs on the sides only through a few whole numbers and truths: how many weight steps the size comes to, in
which tier or class it is, which thresholds it is over. These are worked out for all cells at once; then the tariff
itself is asked once for each that differ, so that a cell is exactly what a single quote would be.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from math import gcd

import numpy as np
import numpy.typing as npt

from fardo.core.quantity import INCH, Length, Money, Units
from fardo.core.tariff.hangs_on import BySize, HangsOn, hangs_on, measured
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.measure import SideRounding
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Quote, Service, quote
from fardo.core.tariff.zones import find_zone

Ints = npt.NDArray[np.int64]
REFUSED = -1
FARTHEST = INCH * 12  # that is looked from a side
_FINE: dict[Units, Length] = {"in": Length(INCH.nm // 8), "cm": Length.of_mm(5)}
_SPAN: dict[Units, Length] = {"in": INCH * 5, "cm": Length.of_mm(100)}  # shown on both sides of a box, unless said
_MOST_COUNT = 2_000_000  # counts whose cube still fits 64 bits


@dataclass(frozen=True, slots=True)
class Band:
    """Cells of one price that lie side by side: along the first side from `start` to `end`, along the second from `row`
    to `last`, all four with it; None where it is not taken.
    """

    row: int
    last: int
    start: int
    end: int
    price: Money | None


@dataclass(frozen=True, slots=True)
class PriceMap:
    """What a service asks over two sides of a box.

    Args:
        first, second: the sides along each axis.
        minor: the price of each cell, REFUSED where it is not taken; (first, second).
        currency: of the prices.
    """

    first: tuple[Length, ...]
    second: tuple[Length, ...]
    minor: Ints
    currency: str

    def at(self, i: int, j: int) -> Money | None:
        minor = int(self.minor[i, j])
        return None if minor == REFUSED else Money(minor, self.currency)

    def bands(self) -> list[Band]:
        """Every cell once, row by row, those of one price that lie side by side as one."""
        done: list[Band] = []
        above: dict[tuple[int, int, int], Band] = {}
        for row in range(len(self.second)):
            here: dict[tuple[int, int, int], Band] = {}
            start = 0
            for k in range(1, len(self.first) + 1):
                if k == len(self.first) or self.minor[k, row] != self.minor[start, row]:
                    key = (start, k - 1, int(self.minor[start, row]))
                    was = above.get(key) or Band(row, row, start, k - 1, self.at(start, row))
                    here[key] = replace(was, last=row)
                    start = k
            done += [band for key, band in above.items() if key not in here]
            above = here
        return sorted((*done, *above.values()), key=lambda band: (band.row, band.start))

    @property
    def prices(self) -> list[Money]:
        """Every price there is, cheapest first."""
        return [Money(int(minor), self.currency) for minor in np.unique(self.minor) if minor != REFUSED]


def around(side: Length, units: Units, reach: Length | None = None) -> tuple[Length, ...]:
    """Even steps either way of a side, with the side itself among them.

    Args:
        reach: how far, a few inches unless said.
    """
    fine, span = _FINE[units].nm, (reach or _SPAN[units]).nm
    least = max(side.nm - span, fine)
    points = {Length(nm) for nm in range(-(-least // fine) * fine, side.nm + span, fine)}
    return tuple(sorted(points | {side}, key=lambda one: one.nm))


def price_map(
    service: Service, parcel: Parcel, first: Sequence[Length], second: Sequence[Length], axes: tuple[int, int] = (0, 1)
) -> PriceMap:
    """The prices where the sides at `axes` of `parcel.sizes` are each of `first` and of `second`.

    Sides so fine that a volume would not fit are reckoned in whole numbers without a limit, which takes longer.
    """
    third = parcel.sizes[3 - axes[0] - axes[1]]
    unit = gcd(third.nm, *(side.nm for side in (*first, *second)))
    fits = max(side.nm for side in (third, *first, *second)) // unit <= _MOST_COUNT
    kind = np.int64 if fits else np.object_
    along, across = (np.array([side.nm for side in named], dtype=kind) for named in (first, second))
    a, b = np.meshgrid(along, across, indexing="ij")
    sides = np.sort(np.stack([a, b, np.full_like(a, third.nm)]), axis=0)[::-1]  # longest first, nanometres
    marks = _as_one(_marks(hangs_on(service, parcel), sides, unit))
    marks[_over_limits(service.limits, sides).ravel()] = REFUSED  # whatever else they are
    _, where, back = np.unique(marks, return_index=True, return_inverse=True)
    zone = find_zone(service.zones, parcel.origin, parcel.destination, parcel.country)
    prices = []
    for at in where:
        i, j = divmod(int(at), len(second))
        found = quote(service, _with(parcel, axes, first[i], second[j]), zone=zone)
        prices.append(found.amount.minor if isinstance(found, Quote) else REFUSED)
    minor = np.array(prices, dtype=np.int64)[back.ravel()].reshape(a.shape)
    return PriceMap(tuple(first), tuple(second), minor, service.currency)


def _with(parcel: Parcel, axes: tuple[int, int], first: Length, second: Length) -> Parcel:
    sizes = list(parcel.sizes)
    sizes[axes[0]], sizes[axes[1]] = first, second
    return parcel.of_sizes((sizes[0], sizes[1], sizes[2]))


def _marks(hangs_on: HangsOn, sides: Ints, unit: int) -> Iterator[Ints]:
    """Everything the price hangs on, an array a mark."""
    volume = np.prod(sides // unit, axis=0)
    if hangs_on.by_size is not None:
        # What is lighter by its size than as it weighs is billed as it weighs, and so is what is spared.
        yield np.where(volume > hangs_on.by_size.rule.spares_nm3 // unit**3, _steps_more(hangs_on.by_size, sides), 0)
    for measure, ends in zip(measured(*sides), hangs_on.ends, strict=True):
        yield _passed(ends, measure)
    yield _passed([end // unit**3 for end in hangs_on.volumes], volume)
    for step, counts in hangs_on.tiers:
        yield _passed(counts, np.prod(sides // step, axis=0))
    yield np.zeros(volume.shape, dtype=np.int64)


def _over_limits(limits: Limits, sides: Ints) -> npt.NDArray[np.bool_]:
    """Cells that are not taken for their sides."""
    over = np.zeros(sides.shape[1:], dtype=bool)
    most_of = (limits.longest_side, limits.second_side, limits.length_and_girth, limits.united_inches)
    for measure, most in zip(measured(*sides), most_of, strict=True):
        if most is not None:
            over |= (measure > most.nm).astype(bool)
    return over


def _passed(ends: Sequence[int], measure: Ints) -> Ints:
    """How many of the ends each is over; what is at an end is not over it."""
    return np.searchsorted(np.array(sorted(ends), dtype=measure.dtype), measure, side="left")


def _as_one(marks: Iterator[Ints]) -> Ints:
    """A number a cell that differs wherever a mark does."""
    one, count = np.zeros(1, dtype=np.int64), 1
    for mark in marks:
        whole = mark.astype(np.int64).ravel()
        span = int(whole.max()) + 1
        if count * span >= 2**62:
            kept, whole = np.unique(whole, return_inverse=True)
            span = len(kept)
        if count * span >= 2**62:
            kept, one = np.unique(one, return_inverse=True)
            count = len(kept)
        one, count = one * span + whole, count * span
    return one


def _steps_more(by_size: BySize, sides: Ints) -> Ints:
    """How many weight steps more than the parcel weighs the size comes to, begun ones with them."""
    rule = by_size.rule
    unit = (rule.step or rule.side_unit).nm
    if rule.sides == "exact":
        unit = gcd(*(int(side) for side in np.unique(sides)))
    counts: Ints = np.prod(_rounded(sides, unit, rule.sides), axis=0)
    share = by_size.share * unit**3
    if sides.dtype == np.int64 and int(counts.max(initial=0)) * share.numerator >= 2**62:
        return counts
    steps: Ints = -(-counts * share.numerator // share.denominator)
    return np.maximum(steps - by_size.by_weight, 0)


def _rounded(sides: Ints, unit: int, rounding: SideRounding) -> Ints:
    """In whole units, as `round_side` does."""
    whole, over = sides // unit, sides % unit
    goes_up = {
        "exact": over < 0, "up": over > 0, "down": over < 0, "nearest-half-up": 2 * over >= unit,
        "nearest-half-down": 2 * over > unit,
    }[rounding]  # fmt: skip
    rounded: Ints = whole + goes_up
    return rounded
