"""The tape plan of a box: which strips go where, before and after the goods are in.

Three strips under the bottom and three over the top, one along the seam of the flaps and one along each end, each a
hand down the sides; what else the box takes goes on its seams and corners; a rule of the house or a dear parcel may
ask for more (common practice). The strips add up to the tape that the plan counts.
"""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.goods.part import Sizes
from fardo.core.make.made import Made
from fardo.core.make.stock import TAPE_DOWN_THE_SIDE, closing_tape
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
    flaps = closing_tape(made.outside)
    if made.soft or made.tape < flaps:
        return _closed_once_around(made, total)
    top, bottom = _three_strips("top", made.outside), _three_strips("bottom", made.outside)
    seams, more = made.tape - flaps, total - made.tape
    making = (TapeUsed("seams and corners", 1, seams),) if seams.nm else ()
    again = (TapeUsed("a second time over the seams and edges", 1, more),) if more.nm > 0 else ()
    return TapePlan(making, bottom, (*top, *again))


def _three_strips(side: str, outside: Sizes) -> tuple[TapeUsed, ...]:
    length, width, _ = outside
    return (
        TapeUsed(f"along the {side} seam, a hand down both ends", 1, length + TAPE_DOWN_THE_SIDE * 2),
        TapeUsed(f"across the {side} at both ends, a hand down the sides", 2, width + TAPE_DOWN_THE_SIDE * 2),
    )


def _closed_once_around(made: Made, total: Length) -> TapePlan:
    """A tray, a folder, a tube, a mailer: its corners as it is made, then once around it, as far as the tape goes."""
    length, width, _ = made.outside
    around = min((length + width) * 2, total)
    if made.soft:
        return TapePlan(closing=(TapeUsed("over the flap", 1, total),))
    making = total - around
    corners = (TapeUsed("seams and corners", 1, making),) if making.nm else ()
    return TapePlan(corners, (), (TapeUsed("once around, where it closes", 1, around),))
