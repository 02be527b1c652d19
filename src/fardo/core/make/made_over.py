"""How a used slotted box is made over into another: new corners, a lower height, both, or its girth taken in.

Glued, a slotted box lies flat as a tube, twice its length and width around. Two lines on each face, as far from either
fold, are four new corners, so any length and width go that together are as much as the old ones; the height stays, or
is cut down. Where much would be left over, the box is opened at its seam and the surplus laps one wall over another.
Flaps keep the depth they were cut with, half the old width; at a cut-down top they are longer by what came off. They
may lap, which is stronger, and are cut back only where they would not lie (common practice).

By the tape measure nothing is lost; at the bench a moved corner takes board and the old creases spring, so the box
comes out narrower. What that comes to is the shop's own to measure; a quarter of an inch to begin with (common
practice). The plan counts by the latter.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from fardo.core.cut.drawing import Blank
from fardo.core.cut.flat_tube import FlatTube, OpenedCase, draw_flat_tube, draw_opened
from fardo.core.goods.part import Sizes
from fardo.core.make.contents import turned
from fardo.core.make.stock import TooSmall
from fardo.core.quantity import INCH, SIXTEENTH, ZERO, Length, both_units, volume_nm3

Folds = Literal["tape", "bench"]

_TAB = Length.of_mm(32.0)  # as most boxes are glued; it is only drawn
_LEAST_CUT = INCH.half()  # nobody cuts a box down by less: starting value
_LEAST_LAP = INCH * 2  # what is over by less goes to the length: starting value


@dataclass(frozen=True, slots=True)
class Recut:
    """A box made over.

    Args:
        old: inside as it was.
        caliper: of its board.
        needed: what was asked, turned as it stands in the new box.
        nominal: inside as the tape measures it.
        lost: what the folds take of its width.
        corners: how far from either fold its corners are marked, None where they stay.
        lap: how far one wall laps over another, nothing where the girth stays. flap: depth of every flap as it was.
        step: of the tape.
    """

    old: Sizes
    caliper: Length
    needed: Sizes
    nominal: Sizes
    lost: Length = ZERO
    corners: Length | None = None
    lap: Length = ZERO
    step: Length = SIXTEENTH

    @property
    def moved(self) -> bool:
        """Whether its corners are."""
        return self.corners is not None or self.lap.nm > 0

    @property
    def inside(self) -> Sizes:
        """After the folds, as the goods find it."""
        return self.nominal[0], self.nominal[1] - self.lost, self.nominal[2]

    @property
    def cut_down(self) -> Length:
        return self.old[2] - self.nominal[2]

    @property
    def flap(self) -> Length:
        return min(self.old[:2]).half() + self.caliper.half()

    @property
    def flaps(self) -> tuple[Length, Length]:
        """How deep bottom and top flaps come out before they are cut back."""
        return self.flap, self.flap + self.cut_down

    @property
    def outer(self) -> tuple[Length | None, Length | None]:
        """To what bottom and top flaps of the long walls are cut back, so that they lie; None where they do."""
        width = self.width.to_step(self.step, "down")
        below, above = (width if flap > self.width else None for flap in self.flaps)
        return below, above

    @property
    def inner(self) -> tuple[Length | None, Length | None]:
        """To what those of the short walls are cut back, so that they do not ride on each other."""
        half = Length(self.length.nm // 2)
        below, above = (half.to_step(self.step, "down") if flap > half else None for flap in self.flaps)
        return below, above

    @property
    def length(self) -> Length:
        return max(self.nominal[:2])

    @property
    def width(self) -> Length:
        """Across which its outer flaps close."""
        return min(self.nominal[:2])

    @property
    def open_between(self) -> tuple[Length, Length]:
        """How much the outer flaps leave open, bottom and top; nothing where they meet."""
        below, above = (Length(max(0, self.width.nm - 2 * flap.nm)) for flap in self.flaps)
        return below, above

    @property
    def flaps_meet(self) -> bool:
        return not any(gap.nm for gap in self.open_between)

    @property
    def laps(self) -> tuple[Length, Length]:
        """How far the outer flaps lap over each other, bottom and top."""
        below, above = (
            Length(max(0, 2 * (back or flap).nm - self.width.nm - self.caliper.nm))
            for flap, back in zip(self.flaps, self.outer, strict=True)
        )
        return below, above

    @property
    def outside(self) -> Sizes:
        """Closed: a board on every side, two above and two below, one more where flaps or walls lap."""
        t = self.caliper
        more = sum(1 for lap in self.laps if lap.nm)
        over = t if self.lap.nm else ZERO
        length, width, height = self.nominal
        return length + t * 2, width + t * 2 + over, height + t * (4 + more)

    @property
    def _tube(self) -> FlatTube:
        t, across = self.caliper, self.old[0] + self.old[1] + self.caliper * 2
        corners = () if self.corners is None else (self.corners, across - self.corners)
        return FlatTube(
            across, self.old[2] + t * 2, self.flap, self.old[0] + t, corners, self.cut_down, self.outer, self.inner
        )

    @property
    def _opened(self) -> OpenedCase:
        t = self.caliper
        length, width = self.old[0] + t, self.old[1] + t
        around = (length + width) * 2
        long, short = self.nominal[0] + t, self.nominal[1] + t
        over = around - (long + short) * 2
        off = ZERO if over <= self.lap else over + _TAB - self.lap
        return OpenedCase(
            long, short, around, _TAB, self.old[2] + t * 2, self.flap, (width, width + length, width * 2 + length),
            self.cut_down, self.outer, self.inner, off,
        )  # fmt: skip

    @property
    def blanks(self) -> tuple[Blank, ...]:
        """It as it lies on the bench: the flat tube from the front and the back, or opened where it laps."""
        if self.lap.nm:
            return (draw_opened("re-cut box", self._opened),)
        return (
            draw_flat_tube("flat box, front", "front, outside", self._tube),
            draw_flat_tube("flat box, back", "back, outside, turned straight over", self._tube),
        )


def recuts(
    old: Sizes, caliper: Length, needed: Sizes, refold: Length, step: Length = SIXTEENTH, folds: Folds = "bench",
    upright: bool = False,
) -> list[Recut]:  # fmt: skip
    """Every way to make a box of `old` inside hold `needed`, the smallest first.

    Args:
        refold: what moved corners take of the width at the bench.
        step: of the tape, to which every mark goes.
        folds: whether the goods are held by what the tape measures or by what is left at the bench.
        upright: whether the height asked must stay the height.

    Raises: NoAnswer, with what is short and by how much, where it cannot be.
    """
    found: dict[Sizes, Recut] = {}
    for stood in turned(needed, upright):
        for made in _made_over(old, caliper, stood, refold, step, folds):
            found.setdefault(made.nominal, made)
    if not found:
        raise _why_not(old, needed, refold if folds == "bench" else ZERO, upright)
    return sorted(found.values(), key=lambda made: (volume_nm3(*made.outside), made.moved, made.nominal))


def _made_over(old: Sizes, t: Length, needed: Sizes, refold: Length, step: Length, folds: Folds) -> Iterator[Recut]:
    length, width, height = old
    if needed[2] > height:
        return
    over = (height - needed[2]).to_step(step, "down")
    high = height - over if over >= _LEAST_CUT else height
    if needed[0] <= length and needed[1] <= width:
        yield Recut(old, t, needed, (length, width, high), step=step)
    if needed[0] < needed[1]:
        return
    # By the tape the width is as asked, and what the folds take is told; at the bench it is allowed for.
    wide = needed[1] + (refold if folds == "bench" else ZERO)
    around = length + width
    if needed[0] + wide > around:
        return
    mark = (wide + t).half().to_step(step, "up")
    if needed[0] + mark * 2 - t > around:
        mark = (wide + t).half()  # nothing to spare: it is marked as near as the tape shows
    short = mark * 2 - t if mark * 2 - t <= around - needed[0] else wide
    long = around - short
    yield Recut(old, t, needed, (long, short, high), refold, mark, step=step)
    panels = [(side + t).to_step(step, "up") for side in (needed[0], wide)]
    lap = (around + t * 2) * 2 - (panels[0] + panels[1]) * 2
    if lap >= _LEAST_LAP:
        taken_in = (panels[0] - t, panels[1] - t, high)
        yield Recut(old, t, needed, taken_in, refold, lap=min(lap, panels[0].to_step(step, "down")), step=step)


def _why_not(old: Sizes, needed: Sizes, lost: Length, upright: bool) -> TooSmall:
    """The turn that lacks least: which measure it is, and by how much."""
    around = old[0] + old[1] - lost
    shorts = []
    for stood in turned(needed, upright):
        high, far = stood[2].nm - old[2].nm, stood[0].nm + stood[1].nm - around.nm
        shorts.append((max(high, far), high > far))
    short, is_height = min(shorts)
    lacks = Length(short)
    if is_height:
        return TooSmall(f"{both_units(lacks)} too low", lacks)
    return TooSmall(f"length and width together are {both_units(lacks)} too little", lacks)
