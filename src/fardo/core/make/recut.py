"""A used slotted box made over into another: corners moved, height cut down, both, or turned onto another side.

Flattened, a slotted box is a tube twice its length and width around. Two of its corners stay and two are scored anew,
so any length and width go that together are as much as the old ones; the height stays, or is cut down. Flaps keep the
depth they were cut with, half the old width; at a cut-down top they are longer by what came off. They must meet across
the new width, else a pad closes the gap (common practice).

Two schools count the width differently: by the tape measure nothing is lost; at the bench a re-scored box comes out
narrower, as every new corner takes board and the old creases spring. What that comes to is the shop's own to measure; a
quarter of an inch in all to begin with (common practice).
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.cut.case import CasePanels, draw_case
from fardo.core.cut.drawing import Blank
from fardo.core.goods.part import Sizes
from fardo.core.make.allowances import REFOLD, Allowances
from fardo.core.make.contents import Contents, turned
from fardo.core.make.made import Made, School, check_inside
from fardo.core.make.step import Step
from fardo.core.make.stock import Stock, StockBox, Taken, TooSmall, both_units, closing_tape, nearest_of
from fardo.core.quantity import ZERO, Length, show_length, volume_nm3
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why

NAME, TITLE = "recut", "Used box, made over"
NEEDS = "stock"
SCHOOLS: tuple[School, ...] = ("exact",)
MINUTES = Fraction(15)  # to score, slit, fold and tape both sides: starting value

Folds = Literal["tape", "bench"]
_PRACTICE = "flattened, a slotted box is a tube 2(l + w) around (common practice)"
_TAB = Length.of_mm(32.0)  # as most boxes are glued; it is only drawn


@dataclass(frozen=True, slots=True)
class Recut:
    """A box made over.

    Args:
        old: inside as it was. caliper: of its board. needed: what was asked, turned as it stands in the new box.
        inside: as it comes out. moved: whether its corners are. below, above: how deep its flaps are. lost: what the
        folds take of length and width together.
    """

    old: Sizes
    caliper: Length
    needed: Sizes
    inside: Sizes
    moved: bool
    below: Length
    above: Length
    lost: Length

    @property
    def cut_down(self) -> Length:
        return self.old[2] - self.inside[2]

    @property
    def width(self) -> Length:
        """Across which its outer flaps close."""
        return min(self.inside[:2])

    @property
    def flaps_meet(self) -> bool:
        return self.below * 2 >= self.width and self.above * 2 >= self.width

    @property
    def gap(self) -> Length:
        """Between outer flaps that do not meet, the wider of top and bottom."""
        return Length(max(0, self.width.nm - 2 * min(self.below.nm, self.above.nm)))

    @property
    def trimmed(self) -> bool:
        """Whether flaps are longer than half the width, and cut so that they meet and do not ride on each other."""
        return max(self.below, self.above) * 2 > self.width

    @property
    def outside(self) -> Sizes:
        """Closed, as a case is: a board on every side, two above and two below."""
        t = self.caliper
        return self.inside[0] + t * 2, self.inside[1] + t * 2, self.inside[2] + t * 4

    @property
    def blank(self) -> Blank:
        """The old box opened out, its new lines on it and its old corners as creases."""
        t = self.caliper
        long = self.inside[0] + t
        # What the folds take is in the board still.
        short = self.old[0] + self.old[1] + t * 2 - long if self.moved else self.inside[1] + t
        old = (self.old[0] + t, (self.old[0] + t) * 2 + self.old[1] + t) if self.moved else ()
        half = self.width.half() + t.half()
        below, above = (min(flap, half) for flap in (self.below, self.above))
        body = self.inside[2] + t * 2
        return draw_case("re-cut box", CasePanels(_TAB, long, short, short - t.half(), body, below, above, old))


def recuts(
    old: Sizes, caliper: Length, needed: Sizes, refold: Length, folds: Folds = "bench", upright: bool = False
) -> list[Recut]:
    """Every way to make a box of `old` inside hold `needed`, the smallest first.

    Args:
        refold: what moved corners take at the bench, of length and width together. upright: whether the height asked
        must stay the height.

    Raises: NoAnswer, with what is short and by how much, where it cannot be.
    """
    lost = refold if folds == "bench" else ZERO
    found: dict[Sizes, Recut] = {}
    for stood in turned(needed, upright):
        for made in _made_over(old, caliper, stood, lost):
            if made.inside not in found:
                found[made.inside] = made
    if not found:
        raise _why_not(old, needed, lost, upright)
    return sorted(found.values(), key=lambda made: (volume_nm3(*made.outside), made.moved, made.inside))


def _made_over(old: Sizes, t: Length, needed: Sizes, lost: Length) -> Iterator[Recut]:
    length, width, height = old
    if needed[2] > height:
        return
    flap = min(length, width).half() + t.half()
    above = flap + (height - needed[2])
    if needed[0] <= length and needed[1] <= width:
        yield Recut(old, t, needed, (length, width, needed[2]), False, flap, above, ZERO)
    # What is over goes to the longer side: of boxes as far around, the narrower takes less room.
    around = length + width - lost
    if needed[0] >= needed[1] and needed[0] + needed[1] <= around:
        yield Recut(old, t, needed, (around - needed[1], needed[1], needed[2]), True, flap, above, lost)


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


# What is over goes to the length; a box with so many times the room that is asked for is no answer: starting value.
_MOST_ROOM = Fraction(3, 2)


def take(contents: Contents, stock: Stock, allowances: Allowances) -> tuple[Made, ...]:
    """Every box of the stash that can be made over, counted as the bench does; what takes least room then first.

    Raises: NoAnswer, with the one that lacks least, where none can be.
    """
    inside, upright = contents.inside, contents.upright
    check_inside(inside)
    used = [box for box in stock.boxes_to_cut if box.count]
    found: list[tuple[int, str, StockBox, Recut]] = []
    whys: list[tuple[str, NoAnswer]] = []
    for box in used:
        try:
            best = recuts(box.inside, box.grade.caliper, inside, allowances[REFOLD], "bench", upright)[0]
        except NoAnswer as none:
            whys.append((box.name, none))
            continue
        if volume_nm3(*best.inside) > volume_nm3(*best.needed) * _MOST_ROOM:
            longest = show_length(max(best.inside), "in", "nearest").text
            whys.append((box.name, NoAnswer(f"made over it would be {longest} long, too large for these goods")))
        elif best.moved or best.cut_down.nm:
            found.append((volume_nm3(*best.outside), box.name, box, best))
    if not found:
        raise nearest_of(whys, "one fits as it is" if used else "there is no used box")
    return tuple(_made(box, best) for _, _, box, best in sorted(found, key=lambda one: one[:2]))


def _made(box: StockBox, best: Recut) -> Made:
    long_first = best.inside[0] >= best.inside[1]
    told: tuple[tuple[str, Value], ...] = (
        ("old length", box.inside[0]), ("old width", box.inside[1]), ("old height", box.inside[2]),
        ("into the folds", best.lost), ("caliper t", best.caliper),
    )  # fmt: skip
    why = Why("length + width stay as they were, less what the folds take; height cut down", told, _PRACTICE)
    slits = (best.below + best.above) * 4 if best.moved else best.cut_down * 4
    return Made(
        way=NAME, school="exact", grade=box.grade, needed=best.needed, inside=best.inside, outside=best.outside,
        blanks=(best.blank,), fence=(), tape=closing_tape(best.outside) + slits * 2, minutes=MINUTES,
        whys={"inside": why, "blank": why,
              "outside": Why("inside + 2t, + 2t, + 4t", told, "closed, its outer flaps meeting")},
        notes=() if long_first else ("Turned so that the goods stand as they were arranged.",),
        taken=(Taken(box),), condition="re-cut", steps=steps(best),
    )  # fmt: skip


def steps(made: Recut) -> tuple[Step, ...]:
    """In order, for a knife and a straightedge on the bench."""
    found = [
        Step("Take out tape and staples, cover old labels, and lay the box flat as a tube, its seam at one fold."),
    ]
    if made.moved:
        found += [
            Step("From the fold at the seam mark {} along the tube, and as much from the opposite fold on the other "
                 "face: these two lines are the new corners.", (made.inside[0] + made.caliper,)),
            Step("Score both on the inner face only, from flap score to flap score, and fold them."),
            Step("Slit the flaps along the new lines, top and bottom, up to the flap score.", knife=True),
            Step("Tape the old slits shut on both sides; the old corners stay in the walls as creases."),
        ]  # fmt: skip
    if made.cut_down.nm:
        found += [
            Step("Slit the four corners down from the top score by {}.", (made.cut_down,), knife=True),
            Step("Score all around between the slits' ends, inner face; the top flaps are now {} deep.", (made.above,)),
        ]
    if made.trimmed:
        found.append(
            Step("Cut the outer flaps back to {}, so that they meet and do not ride on each other.",
                 (made.width.half() + made.caliper.half(),), knife=True)
        )  # fmt: skip
    if not made.flaps_meet:
        found.append(
            Step("The outer flaps leave {} open: cut a pad of {} x {} and lay it inside wherever they do not meet.",
                 (made.gap, made.inside[0], made.inside[1]), knife=True)
        )  # fmt: skip
    found.append(Step("Tape cut edges and slit corners on both sides, then fold, close and tape."))
    return tuple(found)
