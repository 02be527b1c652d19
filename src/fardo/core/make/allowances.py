"""What a shop adds when it makes a box, each its own to measure and change. A new allowance is a line here.

The shop's file, what a chosen box keeps, the description of both and the settings' page follow from the register.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fardo.core.quantity import SIXTEENTH, Length

_MOST = Length.of_mm(200)


@dataclass(frozen=True, slots=True)
class Allowance:
    """An allowance and what it starts at.

    Args:
        name: as files have it.
        title: as the settings show it.
        starts: until the shop has measured its own.
        zero: whether it may be nothing.
        most: the most that is taken for one.
    """

    name: str
    title: str
    starts: Length
    zero: bool = False
    most: Length = _MOST


ALLOWANCES: dict[str, Allowance] = {}


def allowance(name: str, title: str, starts: str, *, zero: bool = False, most: Length = _MOST) -> Allowance:
    """An allowance, once it is in the register.

    Args:
        starts: inches, as `Length.of_inches` reads them.
    """
    ALLOWANCES[name] = made = Allowance(name, title, Length.of_inches(starts), zero, most)
    return made


# Starting values, common practice; the rule of thumb goes from 1/4 to 1/2 in.
SLIP = allowance("slip", "Lid clearance", "1/16", zero=True)
THUMB = allowance("thumb", "Rule-of-thumb allowance", "1/2", zero=True)
TAB = allowance("tab", "Glue tab", "3/2")
LID = allowance("lid", "Depth of a part-depth lid", "3", most=Length.of_mm(1000))
FLOATED = allowance("floated", "Room between inner and outer box", "2")
GUARD = allowance("guard", "Hollow edges of a folder", "1")
SEAMS = allowance("seams", "Mailer seam allowance", "1/2", zero=True)
REFOLD = allowance("refold", "Allowance per moved corner, re-cut box", "1/4", zero=True)
OVERLAP = allowance("overlap", "Least overlap at a joint", "2")


@dataclass(frozen=True, slots=True)
class Allowances:
    """What one shop adds.

    Args:
        lengths: by the allowance's name; what is not among them starts as the register says.
        step: what the fence can be set to (1/16 in, 1 mm); panels go up to it one by one, so that the figures on a cut
            sheet add up and the box never comes out smaller. None keeps every panel exact.
    """

    lengths: tuple[tuple[str, Length], ...] = ()
    step: Length | None = None

    @classmethod
    def of(cls, lengths: Mapping[str, Length], step: Length | None = None) -> Allowances:
        """Every allowance there is, so that two that come to the same are equal."""
        return cls(tuple((name, lengths.get(name, one.starts)) for name, one in ALLOWANCES.items()), step)

    def changed(self, lengths: Mapping[str, Length], step: Length | None) -> Allowances:
        """With some of them, and the fence's step, as given."""
        return Allowances.of({**dict(self.lengths), **lengths}, step)

    def __getitem__(self, of: Allowance) -> Length:
        return next((length for name, length in self.lengths if name == of.name), of.starts)

    @property
    def mark_step(self) -> Length:
        """To which what is marked by hand goes: the fence's, and the tape's sixteenth where panels are kept exact."""
        return self.step or SIXTEENTH

    @property
    def tab(self) -> Length:
        """The glue tab as the fence can be set."""
        return self.at_least(self[TAB])

    def at_least(self, panel: Length) -> Length:
        """The panel as the fence can be set, never smaller."""
        return panel if self.step is None else panel.to_step(self.step, "up")

    def at_most(self, panel: Length) -> Length:
        """The panel as the fence can be set, never larger."""
        return panel if self.step is None else panel.to_step(self.step, "down")
