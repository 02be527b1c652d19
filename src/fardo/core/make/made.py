"""What every way of getting a box works out, and what it needs to be told.

How board folds: a score is taken at the middle of the board, so between two scores S apart with both walls up the
inside is S - t and the outside S + t, t the caliper. A wall from its score to a cut edge stands t/2 less high inside,
and t/2 higher outside, than it is cut. Every exact rule here follows from these two sentences.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.board.strength import Condition
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.goods.part import Sizes, sides_less
from fardo.core.make.step import Step
from fardo.core.make.stock import Pouch, StockBox, Taken
from fardo.core.quantity import ZERO, Length, Mass
from fardo.core.refusal import BadInput
from fardo.core.why import Value, Why

School = Literal["exact", "thumb"]


@dataclass(frozen=True, slots=True)
class Made:
    """A box worked out.

    Args:
        needed: the inside size asked for.
        inside, outside: as it folds from what is cut; outside is closed, as the carrier measures it.
        blanks: what to cut.
        fence: in the order of cutting.
        tape: how much it takes.
        minutes: to cut, fold and tape it by hand.
        whys: by the name of the figure.
        notes: what a packer should know.
        taken: the boxes and mailers that are there which it is made from.
        condition: of its board.
        steps: in words, beside what the fence says.
        standing: it from the side, where that says more than its blanks.
        soft: whether it closes on the goods, and nothing may stand on it.
        flat: length and width of a bag or mailer as it lies empty and trimmed, where a carrier counts it as a soft
            pack.
        carrier: whose services alone take it, nothing for any.
        closed_box: outside of the box that is in a bag or an envelope, None where none is.
        pattern: of the shop's by which it is made over, nothing where it is by none.
        floated: how far the box with the goods stands off the one around it.
        pressed: by how much the goods are larger than it each way, where the wrap is pressed in.
    """

    way: str
    school: School
    grade: Grade
    needed: Sizes
    inside: Sizes
    outside: Sizes
    blanks: tuple[Blank, ...]
    fence: tuple[FenceSetting, ...]
    tape: Length
    minutes: Fraction
    whys: dict[str, Why]
    notes: tuple[str, ...]
    taken: tuple[Taken, ...] = ()
    condition: Condition = "new"
    steps: tuple[Step, ...] = ()
    standing: Blank | None = None
    soft: bool = False
    carrier: str = ""
    flat: tuple[Length, Length] | None = None
    closed_box: Sizes | None = None
    pattern: str = ""
    floated: Length = ZERO
    pressed: Length = ZERO

    @property
    def item(self) -> str:
        """By which one says which of several boxes there it is; nothing where it is cut."""
        return self.pattern or " in ".join(
            f"{one.item.name} x {one.count}" if one.count > 1 else one.item.name for one in self.taken
        )

    @property
    def bends(self) -> bool:
        """Whether it does when it is closed, as a letter does: a paper mailer or a bag with nothing stiff about it."""
        return self.soft and all(isinstance(one.item, Pouch) and one.item.kind in ("flat", "bag") for one in self.taken)

    @property
    def worn(self) -> Fraction:
        """What wear leaves of what boxes in its condition are trusted with: of the weakest there is in it."""
        return min((one.item.left for one in self.taken if isinstance(one.item, StockBox)), default=Fraction(1))

    @property
    def cut_to(self) -> Sizes:
        """The inside size that was asked for, once the goods are pressed in."""
        return sides_less(self.needed, self.pressed)

    @property
    def has_inserts(self) -> bool:
        """Whether the goods lie bare in a maker's own inserts."""
        return any(isinstance(one.item, StockBox) and one.item.hollow is not None for one in self.taken)

    @property
    def wall(self) -> Length:
        """How thick it stands at the two ends of its length."""
        return (self.outside[0] - self.inside[0]).half()

    @property
    def weight(self) -> Mass:
        """Of the closed box without its tape."""
        if self.taken:
            return Mass(sum(one.weight.ng for one in self.taken))
        return board_weight(self.blanks, self.grade)


def board_weight(blanks: Iterable[Blank], grade: Grade) -> Mass:
    """Of all of them once they are cut out."""
    return grade.weight_of(sum(blank.area_nm2 * blank.count for blank in blanks))


def check_inside(inside: Sizes) -> None:
    """Raises BadInput unless each inside side is more than nothing and at most ten metres."""
    for name, side in zip(("length", "width", "height"), inside, strict=True):
        if not 0 < side.nm <= 10_000_000_000:
            raise BadInput(
                "no inside size",
                read=f"{side.mm:g} mm",
                allowed="more than nothing, up to 10 m",
                field=f"inside.{name}",
            )


def long_side_first(inside: Sizes) -> Sizes:
    """The longer side of the opening as the length."""
    return max(inside[:2]), min(inside[:2]), inside[2]


def turned_note(inside: Sizes, needed: Sizes) -> tuple[str, ...]:
    """What to say where the longer side had to be the length."""
    return () if needed == inside else ("Turned so that the longer side of the opening is the length.",)


def sides_told(what: str, sizes: Sizes) -> tuple[tuple[str, Value], ...]:
    """The three sides as values of a why."""
    return tuple((f"{what} {side}", size) for side, size in zip(("length", "width", "height"), sizes, strict=True))
