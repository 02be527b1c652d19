"""House rules: what a shop always does with such a job, as data of its own.

A rule says when it holds, and what follows: boxes, carriers, parcels, fill, cover, signature, more room for rough
handling. Those that hold are named wherever they decide something, and a job may leave one out.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from fardo.core.make import WAYS, short_title
from fardo.core.quantity import ZERO, Length, Money, Units, show_length


@dataclass(frozen=True, slots=True)
class About:
    """What of a job rules look at.

    Args:
        things: how many are packed.
        day: it leaves, as 2026-07-11, None where nobody said.
        left_out: names of the rules that this job leaves out.
    """

    kind: str = ""
    channel: str = ""
    value: Money | None = None
    things: int = 0
    to: str = ""
    country: str = ""
    day: str | None = None
    left_out: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class When:
    """All that is said must hold; what is not said holds always.

    Args:
        kind: code of a kind of goods.
        value_from: declared.
        things: the least and most.
        to: how postcodes begin.
        season: first and last day, as 11-15; it may go over the end of the year.
    """

    kind: str = ""
    channel: str = ""
    value_from: Money | None = None
    things: tuple[int, int | None] = (0, None)
    to: tuple[str, ...] = ()
    country: str = ""
    season: tuple[str, str] | None = None

    def holds(self, about: About) -> bool:
        least, most = self.things
        return (
            self.kind in ("", about.kind)
            and self.channel in ("", about.channel)
            and (self.value_from is None or (about.value is not None and about.value >= self.value_from))
            and about.things >= least
            and (most is None or about.things <= most)
            and (not self.to or about.to.startswith(self.to))
            and self.country in ("", about.country)
            and self._in_season(about.day)
        )

    def _in_season(self, day: str | None) -> bool:
        if self.season is None:
            return True
        if day is None:
            return False
        first, last = self.season
        of_year = day[5:]
        return first <= of_year <= last if first <= last else of_year >= first or of_year <= last


@dataclass(frozen=True, slots=True)
class Rule:
    """A house rule: when it holds, and what follows.

    Args:
        name: as the shop calls it.
        ways: to box it, no others; all where none is said.
        item: the box of the shop's that it goes in.
        barred, preferred: carriers.
        up_to: by so much more a preferred carrier still comes first.
        parcels_at_most: that a job may go in which does not say so itself.
        more_gap: on every side, for rough handling.
        tape: how many times the usual.
    """

    name: str
    when: When = When()
    ways: tuple[str, ...] = ()
    item: str = ""
    barred: tuple[str, ...] = ()
    preferred: tuple[str, ...] = ()
    up_to: Money | None = None
    parcels_at_most: int | None = None
    no_loose_fill: bool = False
    cover: bool = False
    signature: bool = False
    more_gap: Length = ZERO
    tape: Fraction = Fraction(1)

    def does(self, units: Units) -> str:
        """What follows from it, in words."""
        said = []
        if self.ways:
            said.append(f"only {' or '.join(short_title(way).lower() for way in self.ways)}")
        if self.item:
            said.append(f"in {self.item}")
        if self.barred:
            said.append(f"not by {' or '.join(self.barred)}")
        if self.preferred:
            more = f", up to {self.up_to} more" if self.up_to is not None and self.up_to.minor else ""
            said.append(f"by {' or '.join(self.preferred)} first{more}")
        if self.parcels_at_most is not None:
            said.append(f"at most {self.parcels_at_most} parcels")
        said += [
            words for words, asked in (("no loose fill", self.no_loose_fill), ("covered in full", self.cover),
                                       ("signature on delivery", self.signature)) if asked
        ]  # fmt: skip
        if self.more_gap.nm:
            said.append(f"{show_length(self.more_gap, units, 'up').text} more gap on every side")
        if self.tape != 1:
            said.append(f"{float(self.tape):g} times the tape")
        return ", ".join(said)


@dataclass(frozen=True)
class House:
    """What the rules that hold for a job come to together.

    Args:
        rules: that hold.
        left_out: that would, if the job did not leave them out.
    """

    rules: tuple[Rule, ...] = ()
    left_out: tuple[Rule, ...] = ()
    _barred: Mapping[str, str] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "_barred", {name: rule.name for rule in self.rules for name in rule.barred})

    @property
    def item(self) -> str:
        """The box that it goes in, by its name; nothing where no rule says."""
        return next((rule.item for rule in self.rules if rule.item), "")

    @property
    def more_gap(self) -> Length:
        return max((rule.more_gap for rule in self.rules), default=ZERO)

    @property
    def tape(self) -> Fraction:
        return max((rule.tape for rule in self.rules), default=Fraction(1))

    @property
    def no_loose_fill(self) -> bool:
        return any(rule.no_loose_fill for rule in self.rules)

    @property
    def cover(self) -> bool:
        return any(rule.cover for rule in self.rules)

    @property
    def signature(self) -> bool:
        return any(rule.signature for rule in self.rules)

    def parcels_at_most(self, said: int) -> int:
        """What a job says, no more than a rule allows; where it says one, what the rule allows."""
        allowed = [rule.parcels_at_most for rule in self.rules if rule.parcels_at_most is not None]
        if not allowed:
            return said
        return min(allowed) if said == 1 else min(said, *allowed)

    def against_way(self, way: str) -> str:
        """Why it is not boxed in that way; nothing where it may be."""
        for rule in self.rules:
            if rule.ways and way not in rule.ways:
                return f"house rule {rule.name}: {' or '.join(short_title(one).lower() for one in rule.ways)} only"
            if rule.item and WAYS[way].NEEDS != "stock":
                return f"house rule {rule.name}: it goes in {rule.item}"
        return ""

    def against_carrier(self, carrier: str) -> str:
        """Why it does not go by that carrier; nothing where it may."""
        rule = self._barred.get(carrier)
        return f"house rule {rule}: not by {carrier}" if rule else ""

    def favours(self, carrier: str) -> tuple[int, str]:
        """By how many of the smallest coins a carrier may cost more and still come first, and by which rule."""
        for rule in self.rules:
            if carrier in rule.preferred:
                return (rule.up_to.minor if rule.up_to is not None else 0), rule.name
        return 0, ""


NO_HOUSE = House()


def house_for(rules: Iterable[Rule], about: About) -> House:
    """The rules that hold for a job."""
    holding = [rule for rule in rules if rule.when.holds(about)]
    return House(
        tuple(rule for rule in holding if rule.name not in about.left_out),
        tuple(rule for rule in holding if rule.name in about.left_out),
    )
