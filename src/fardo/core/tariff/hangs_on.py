"""What a price hangs on: a parcel whose sides change costs the same as long as none of these does.

A few whole numbers and truths: how many weight steps the size comes to, in which tier or class it is, which thresholds
it is over. `Key` tells them of one parcel at a time, `step_map` of all cells of a map at once.
"""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from fardo.core.quantity import Length
from fardo.core.tariff.measure import Dimensional, round_side
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Service

Sizes = tuple[Length, Length, Length]
Key = tuple[int, ...]


@dataclass(frozen=True, slots=True)
class BySize:
    """A service's weight by size against what a parcel weighs.

    Args:
        share: of a weight step that a cubic nanometre comes to, sides rounded.
        by_weight: steps the parcel weighs.
    """

    rule: Dimensional
    share: Fraction
    by_weight: int


@dataclass(frozen=True, slots=True)
class HangsOn:
    """What a price depends on of the size of a parcel.

    Args:
        ends: of what `measured` gives, where each passes one, nm, rising.
        volumes: the same of the volume, nm3.
        tiers: a step that sides are rounded down to, nm, and the ends of their product in steps.
        by_size: None where size does not count.
    """

    ends: tuple[tuple[int, ...], ...]
    volumes: tuple[int, ...]
    tiers: tuple[tuple[int, tuple[int, ...]], ...]
    by_size: BySize | None

    def key(self, sizes: Sizes) -> Key:
        """Of sizes in any order: two of one key are asked the same."""
        a, b, c = sorted((side.nm for side in sizes), reverse=True)
        found = [bisect_left(ends, measure) for ends, measure in zip(self.ends, measured(a, b, c), strict=True)]
        found.append(bisect_left(self.volumes, a * b * c))
        found += [bisect_left(counts, (a // step) * (b // step) * (c // step)) for step, counts in self.tiers]
        if self.by_size is not None:
            found.append(_steps_more(self.by_size, a, b, c))
        return tuple(found)


def hangs_on(service: Service, parcel: Parcel) -> HangsOn:
    """What the service's price for the parcel hangs on while its sides change and all else of it stays."""
    marks = service.marks(parcel)
    named = (marks.longest, marks.second, marks.around, marks.united_inches)
    return HangsOn(
        tuple(tuple(sorted(mark.nm for mark in several)) for several in named),
        tuple(sorted(marks.volume)),
        tuple((step.nm, tuple(sorted(counts))) for step, counts in marks.tiers),
        _by_size(service.dimensional, service, parcel) if service.dimensional is not None else None,
    )


def measured(longest: Any, second: Any, third: Any) -> tuple[Any, Any, Any, Any]:
    """The longest side, the second, length and girth, all three together: whole numbers, or arrays of them."""
    return longest, second, longest + 2 * (second + third), longest + second + third


def _by_size(rule: Dimensional, service: Service, parcel: Parcel) -> BySize:
    step = service.weights.step
    per_step = step.pounds if rule.unit == "in3/lb" else Fraction(step.ng, 10**12)
    share = rule.volume(1) * rule.shape_factor_of(parcel) / rule.divisor / per_step
    return BySize(rule, share, -(-parcel.weight.ng // step.ng))


def _steps_more(by_size: BySize, a: int, b: int, c: int) -> int:
    """How many weight steps more than the parcel weighs a size comes to; none where its volume is spared."""
    rule, share = by_size.rule, by_size.share
    if rule.spares(a * b * c):
        return 0
    unit = rule.step or rule.side_unit
    x, y, z = (round_side(Length(side), unit, rule.sides).nm for side in (a, b, c))
    return max(-(-x * y * z * share.numerator // share.denominator) - by_size.by_weight, 0)
