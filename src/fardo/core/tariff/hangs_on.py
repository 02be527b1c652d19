"""What a price hangs on: a parcel whose sides change costs the same as long as none of these does.

The same few whole numbers and truths by which `step_map` parts its cells, worked out for one parcel at a time: how many
weight steps its size comes to, in which tier or class it is, which thresholds it is over.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Callable
from fractions import Fraction

from fardo.core.quantity import Length
from fardo.core.tariff.measure import Dimensional, round_side
from fardo.core.tariff.parcel import Parcel
from fardo.core.tariff.service import Service

Sizes = tuple[Length, Length, Length]
Key = tuple[int, ...]


def hangs_on(service: Service, parcel: Parcel) -> Callable[[Sizes], Key]:
    """Tells what the service's price for the parcel hangs on, of sizes it might have, all else of it staying."""
    marks = service.marks(parcel)
    ends = [
        sorted(mark.nm for mark in several) for several in (marks.longest, marks.second, marks.around, marks.linear)
    ]
    volumes = sorted(marks.volume)
    tiers = [(step.nm, sorted(counts)) for step, counts in marks.tiers]
    by_size = _weight_steps(service.dimensional, service, parcel) if service.dimensional is not None else None

    def key(sizes: Sizes) -> Key:
        a, b, c = sorted((side.nm for side in sizes), reverse=True)
        volume = a * b * c
        measures = (a, b, a + 2 * (b + c), a + b + c)
        found = [bisect_left(several, measure) for several, measure in zip(ends, measures, strict=True)]
        found.append(bisect_left(volumes, volume))
        found += [bisect_left(counts, (a // step) * (b // step) * (c // step)) for step, counts in tiers]
        if by_size is not None:
            found.append(by_size(a, b, c))
        return tuple(found)

    return key


def _weight_steps(rule: Dimensional, service: Service, parcel: Parcel) -> Callable[[int, int, int], int]:
    """How many weight steps more than the parcel weighs a size comes to; none where its volume is spared."""
    step = service.weights.step
    unit = (rule.step or rule.side_unit).nm
    per_step = step.pounds if rule.unit == "in3/lb" else Fraction(step.ng, 10**12)
    share = rule.volume(1) * rule.counts(parcel) / rule.divisor / per_step  # of a cubic nanometre
    by_weight = -(-parcel.weight.ng // step.ng)
    over, under = share.numerator, share.denominator

    def steps(a: int, b: int, c: int) -> int:
        if rule.spares(a * b * c):
            return 0
        x, y, z = (round_side(Length(side), Length(unit), rule.sides).nm for side in (a, b, c))
        return max(-(-x * y * z * over // under) - by_weight, 0)

    return steps
