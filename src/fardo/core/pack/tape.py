"""The tape plan of a box: which strips go where, before and after the goods are in.

Of a box with flaps three strips under the bottom and three over the top, one along the seam of the flaps and one along
each end, each a hand down the sides; of one that closes otherwise once around where it does. What else the box takes
goes on its seams and corners; a rule of the house may ask for more (common practice). The strips add up to the tape
that the plan counts.
"""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.goods.part import Sizes
from fardo.core.make import flaps_of
from fardo.core.make.made import Made
from fardo.core.make.stock import TAPE_DOWN_THE_SIDE
from fardo.core.pack.packing_step import TapeUsed
from fardo.core.quantity import ZERO, Length


@dataclass(frozen=True, slots=True)
class TapePlan:
    """Strips in the order in which they go on.

    Args:
        making: on its seams and corners, as it is made.
        bottom: before anything is in.
        closing: after all is in.
    """

    making: tuple[TapeUsed, ...] = ()
    bottom: tuple[TapeUsed, ...] = ()
    closing: tuple[TapeUsed, ...] = ()

    @property
    def total(self) -> Length:
        return sum((one.total for one in (*self.making, *self.bottom, *self.closing)), start=ZERO)


def plan_tape(made: Made, total: Length) -> TapePlan:
    """The strips of a box.

    Args:
        total: of tape that the plan counts, more than the box's own where more is asked for.
    """
    if not total.nm:
        return TapePlan()
    if made.soft:
        return TapePlan(closing=(TapeUsed("over the flap", 1, total),))
    box, flaps = made.closed_box or made.outside, flaps_of(made.way)
    bottom = _three_strips("bottom", box) if flaps else ()
    length, width, _ = box
    around = TapeUsed("once around, where it closes", 1, min((length + width) * 2, total))
    closing = _three_strips("top", box) if flaps == "both" else (around,)
    listed = sum((one.total for one in (*bottom, *closing)), start=ZERO)
    if listed > total:  # it takes less than that, as a box with flaps of its own does
        return TapePlan(closing=(TapeUsed("over the edges where it closes", 1, total),))
    seams, more = max(min(made.tape, total) - listed, ZERO), total - max(made.tape, listed)
    making = (TapeUsed("seams and corners", 1, seams),) if seams.nm else ()
    again = (TapeUsed("a second time over the seams and edges", 1, more),) if more.nm > 0 else ()
    return TapePlan(making, bottom, (*closing, *again))


def _three_strips(side: str, outside: Sizes) -> tuple[TapeUsed, ...]:
    length, width, _ = outside
    return (
        TapeUsed(f"along the {side} seam, a hand down both ends", 1, length + TAPE_DOWN_THE_SIDE * 2),
        TapeUsed(f"across the {side} at both ends, a hand down the sides", 2, width + TAPE_DOWN_THE_SIDE * 2),
    )
