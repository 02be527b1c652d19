"""The tape plan of a box: which strips go where, before and after the goods are in.

Of a box with flaps three strips under the bottom and three over the top, one along the seam of the flaps and one along
each end, each a hand down the sides; of one that closes otherwise once around where it does. What else the box takes
goes on its seams and corners; a rule of the house may ask for more. A heavy parcel gets a second strip along the bottom
and two down the maker's seam; in rain, or with dear goods, the long edges are taped too, and the maker's seam once;
what others pack again is taped lightly on top (common practice). The cost of a parcel counts these strips.
"""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.goods.part import Sizes
from fardo.core.make import flaps_of
from fardo.core.make.made import Made
from fardo.core.make.stock import TAPE_DOWN_THE_SIDE, StockBox
from fardo.core.plan.load import Load
from fardo.core.quantity import POUND, ZERO, Length, Mass

HEAVY_FROM = POUND * 30  # common practice: from where two people lift it


@dataclass(frozen=True, slots=True)
class TapeStrips:
    """Strips of tape of one length.

    Args:
        where: they go, in words.
        length: of one.
    """

    where: str
    count: int
    length: Length

    @property
    def total(self) -> Length:
        return self.length * self.count


@dataclass(frozen=True, slots=True)
class TapePlan:
    """Strips in the order in which they go on.

    Args:
        making: on its seams and corners, as it is made.
        bottom: before anything is in.
        closing: after all is in.
        lightly: whether the top is to be opened again by others.
    """

    making: tuple[TapeStrips, ...] = ()
    bottom: tuple[TapeStrips, ...] = ()
    closing: tuple[TapeStrips, ...] = ()
    lightly: bool = False

    @property
    def total(self) -> Length:
        return sum((one.total for one in (*self.making, *self.bottom, *self.closing)), start=ZERO)


NO_TAPE = TapePlan()


def plan_tape(made: Made, load: Load, weight: Mass, dear: bool = False) -> TapePlan:
    """The strips of a box.

    Args:
        load: what is in it; it says how much more tape a rule of the house asks for, whether it may get wet, and
            whether others pack it again.
        weight: of the parcel but for its tape.
        dear: whether the goods are of high value.
    """
    asked = Length(-(-made.tape.nm * load.tape // 1))
    if not asked.nm:
        return NO_TAPE
    if made.soft:
        return TapePlan(closing=(TapeStrips("over the flap", 1, asked),))
    box, flaps = made.closed_box or made.outside, flaps_of(made.way)
    length, width, height = box
    bottom = _three_strips("bottom", box) if flaps else ()
    around = TapeStrips("once around, where it closes", 1, min((length + width) * 2, asked))
    closing: tuple[TapeStrips, ...] = _three_strips("top", box) if flaps == "both" else (around,)
    listed = sum((one.total for one in (*bottom, *closing)), start=ZERO)
    if listed > asked:  # it takes less than that, as a box with flaps of its own does
        return TapePlan(closing=(TapeStrips("over the edges where it closes", 1, asked),), lightly=load.repacked)
    seams, more = max(min(made.tape, asked) - listed, ZERO), asked - max(made.tape, listed)
    making: tuple[TapeStrips, ...] = (TapeStrips("seams and corners", 1, seams),) if seams.nm else ()
    again = (TapeStrips("a second time over the seams and edges", 1, more),) if more.nm > 0 else ()
    if load.repacked and flaps == "both":
        closing = closing[:1]
    heavy, every_edge = weight >= HEAVY_FROM, (load.wet or dear) and made.closed_box is None
    if any(isinstance(one.item, StockBox) for one in made.taken) and (heavy or every_edge):
        making += (TapeStrips("down the maker's side seam", 2 if heavy else 1, height),)
    if flaps and heavy:
        bottom += (TapeStrips("a second time along the bottom seam", 1, length + TAPE_DOWN_THE_SIDE * 2),)
    if flaps and every_edge:
        bottom += (TapeStrips("along the long edges of the bottom", 2, length),)
    if flaps == "both" and every_edge and not load.repacked:
        closing += (TapeStrips("along the long edges of the top", 2, length),)
    return TapePlan(making, bottom, (*closing, *again), load.repacked)


def _three_strips(side: str, outside: Sizes) -> tuple[TapeStrips, ...]:
    length, width, _ = outside
    return (
        TapeStrips(f"along the {side} seam, a hand down both ends", 1, length + TAPE_DOWN_THE_SIDE * 2),
        TapeStrips(f"across the {side} at both ends, a hand down the sides", 2, width + TAPE_DOWN_THE_SIDE * 2),
    )
