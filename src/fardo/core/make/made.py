"""What every way of getting a box works out, and what it needs to be told.

How board folds: a score is taken at the middle of the board, so between two scores S apart with both walls up the
inside is S - t and the outside S + t, t the caliper. A wall from its score to a cut edge stands t/2 less high inside,
and t/2 higher outside, than it is cut. Every exact rule here follows from these two sentences.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from fardo.core.board.grade import Grade
from fardo.core.board.strength import Condition
from fardo.core.cut.drawing import Blank
from fardo.core.cut.fence import FenceSetting
from fardo.core.goods.part import Sizes
from fardo.core.make.step import Step
from fardo.core.make.stock import StockBox
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.core.why import Why

School = Literal["exact", "thumb"]


@dataclass(frozen=True, slots=True)
class Allowances:
    """What the shop adds, all of it the shop's own to change.

    Args:
        thumb: the rule-of-thumb allowance on both sides of a lid-and-tray blank. slip: how much looser the lid is
        than the tray, in all. tab: width of a glue tab. refold: what moved corners take of a re-cut box at the bench,
        of length and width together. overlap: least of the flaps at the joint of a telescoped stack. step: what the
        fence can be set to (1/16 in, 1 mm); panels go up to it one by one, so that the figures on a cut sheet add up
        and the box never comes out smaller. None keeps every panel exact.
    """

    thumb: Length
    slip: Length
    tab: Length
    refold: Length
    overlap: Length
    step: Length | None

    def at_least(self, panel: Length) -> Length:
        """The panel as the fence can be set, never smaller."""
        return panel if self.step is None else panel.to_step(self.step, "up")

    def at_most(self, panel: Length) -> Length:
        """The panel as the fence can be set, never larger."""
        return panel if self.step is None else panel.to_step(self.step, "down")


@dataclass(frozen=True, slots=True)
class Made:
    """A box worked out.

    Args:
        needed: the inside size asked for. inside, outside: as it folds from what is cut; outside is closed, as the
        carrier measures it. blanks: what to cut. fence: in the order of cutting. tape: how much it takes.
        minutes: to cut, fold and tape it by hand. whys: by the name of the figure. notes: what a packer should know.
        taken, count: what it is made from where that is a box that is there, and how many of it. condition: of its
        board. steps: in words, beside what the fence says.
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
    taken: StockBox | None = None
    count: int = 0
    condition: Condition = "new"
    steps: tuple[Step, ...] = ()

    @property
    def board_nm2(self) -> int:
        """Of the closed box."""
        if self.taken is not None:
            return self.taken.board_nm2 * self.count
        return sum(blank.area_nm2 for blank in self.blanks)


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
