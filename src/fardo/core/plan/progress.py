"""How far a job is: its knots, each open, tied, or loose again because something before it changed.

A choice remembers what it was made for. A box was chosen for an inside size on one board; a service for an amount and
a billed weight. When today's figures differ, the knot is loose and says what changed.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from fardo.core.goods.part import Sizes
from fardo.core.make.made import School
from fardo.core.plan.cut_by import CutBy
from fardo.core.quantity import Mass, Money

KnotState = Literal["open", "tied", "loose"]


@dataclass(frozen=True, slots=True)
class BoxChoice:
    """The box settled on. `needed` is the inside size it was chosen for; `item` which of several boxes there,
    None where that was not kept; `cut_by` the figures it keeps.
    """

    way: str
    school: School
    board: str
    needed: Sizes
    item: str | None = None
    cut_by: CutBy | None = field(default=None, compare=False)

    def is_met_by(self, today: BoxChoice) -> bool:
        """Whether today's box is the one that was chosen."""
        return today == (self if self.item is not None else replace(self, item=today.item))


@dataclass(frozen=True, slots=True)
class PriceChoice:
    """The service settled on, with what it asked then; `tariff` is the version of its tariff that it keeps."""

    carrier: str
    service: str
    rate_plan: str
    amount: Money
    billed: Mass
    tariff: int | None = field(default=None, compare=False)

    @property
    def called(self) -> tuple[str, str, str]:
        return self.carrier, self.service, self.rate_plan


@dataclass(frozen=True, slots=True)
class Knot:
    """A stage of a job.

    Args:
        name: "measure", "protect", "arrange", "box", "price", "pack", "sent".
        state: see above.
        says: what it stands at, or what changed.
    """

    name: str
    state: KnotState
    says: str


@dataclass(frozen=True, slots=True)
class Sending:
    """What was done at the bench and after it.

    Args:
        ticked: packing steps of today's plan that are ticked.
        steps: there are in all.
        otherwise: whether steps are ticked that are no longer of the plan, as another box or wrap was chosen since.
        closed: whether the closed parcel was weighed.
        numbered: whether it has a label, or the number of one.
        handed_over: the day it was, 2026-03-02; empty while it was not.
        expected: the day it is expected, empty where that is not said.
    """

    ticked: int = 0
    steps: int = 0
    otherwise: bool = False
    closed: bool = False
    numbered: bool = False
    handed_over: str = ""
    expected: str = ""


NOT_BEGUN = Sending()

_ARRANGED: dict[KnotState | None, str] = {
    None: "one thing, nothing to arrange",
    "open": "not arranged yet; this size is an estimate",
    "loose": "something changed since it was arranged",
    "tied": "arranged",
}


def tie_knots(
    missing: list[str],
    boxed: BoxChoice | None,
    box: BoxChoice | None,
    asked: PriceChoice | None,
    price: PriceChoice | None,
    *,
    guessed: Sequence[str] = (),
    answers: Sequence[str] = (),
    protection: str = "said",
    arranged: KnotState | None = None,
    several: str = "",
) -> tuple[tuple[Knot, ...], str]:
    """The knots in order, and the next move in words.

    Args:
        missing: what is still to be measured, and where it goes.
        boxed: the chosen way as it is worked out today.
        box: as it was chosen.
        asked: what the chosen service asks today, None where it no longer takes the parcel.
        price: as it was chosen.
        guessed: parts with their kind's measures.
        answers: what is still to be answered.
        protection: how it is protected in words, empty while nothing is said.
        arranged: of several things, whether they were arranged and still are; None of one.
        several: why it does not go in one parcel, empty where it does.
    """
    wanting = [
        text
        for text in (
            "missing: " + ", ".join(missing) if missing else "",
            "not measured yet: " + ", ".join(guessed) if guessed else "",
            "not answered: " + ", ".join(answers) if answers else "",
        )
        if text
    ]
    measure = Knot("measure", "open", "; ".join(wanting)) if wanting else Knot("measure", "tied", "measured")
    protect = Knot("protect", "tied", protection) if protection else Knot("protect", "open", "no wrap and no gap said")
    arrange = Knot("arrange", arranged or "tied", "each parcel by itself" if several else _ARRANGED[arranged])
    if several:
        tied = Knot("box", "open", several)
    elif box is None:
        tied = Knot("box", "open", "no box chosen")
    elif boxed is None or boxed.needed != box.needed:
        tied = Knot("box", "loose", "the inside size changed since the box was chosen")
    elif not box.is_met_by(boxed):
        tied = Knot("box", "loose", "another board or school is looked at than was chosen")
    else:
        tied = Knot("box", "tied", "chosen")
    if several:
        priced = Knot("price", "open", "divide it into parcels")
    elif price is None:
        priced = Knot("price", "open", "no service chosen")
    elif tied.state != "tied":
        priced = Knot("price", "loose", "the box is not settled")
    elif asked is None:
        priced = Knot("price", "loose", f"{price.carrier} {price.service} no longer takes it")
    elif asked != price:
        priced = Knot("price", "loose", f"was {price.amount}, is {asked.amount}")
    else:
        priced = Knot("price", "tied", f"{price.carrier} {price.service}, {price.amount}")
    knots = (measure, protect, arrange, tied, priced)
    return knots, _next_move(missing, guessed, answers, knots, several)


def _next_move(
    missing: list[str], guessed: Sequence[str], answers: Sequence[str], knots: tuple[Knot, ...], several: str
) -> str:
    _, protect, arrange, box, price = knots
    measures = [name for name in missing if not name.startswith("postcode")] or list(guessed)
    if measures:
        more = f" and {len(measures) - 3} more" if len(measures) > 3 else ""
        return f"Measure {', '.join(measures[:3])}{more}"
    if answers:
        return f"Answer about {', '.join(answers)}"
    if missing:
        return "Enter the destination postcode"
    if protect.state != "tied":
        return "Say how it is protected"
    if several:
        return "Divide it into parcels"
    if arrange.state != "tied" and box.state != "tied":
        return "Arrange it" if arrange.state == "open" else "Arrange it again"
    if box.state != "tied":
        return "Choose the box" if box.state == "open" else "Look at the box again"
    if price.state != "tied":
        return "Choose the service" if price.state == "open" else "Look at the price again"
    return "Pack it"


def tie_all(planned: Sequence[Knot], sending: Sending) -> tuple[tuple[Knot, ...], str]:
    """All seven knots, and the next move where it is one of the last two's: empty while one before them is to be tied.

    What is packed needs no arrangement any more.

    Args:
        planned: the knots before Pack and Sent.
    """
    pack, sent = _packed(planned, sending), Knot("sent", "open", "not handed over")
    if sending.handed_over:
        sent = Knot("sent", "tied", f"handed over on {sending.handed_over}")
    is_packed = pack.state == "tied"
    before = tuple(
        Knot("arrange", "tied", "packed without an arrangement")
        if is_packed and one.name == "arrange" and one.state == "open"
        else one
        for one in planned
    )
    return (*before, pack, sent), _last_move(planned, pack, sending)


def _last_move(planned: Sequence[Knot], pack: Knot, sending: Sending) -> str:
    if sending.handed_over:
        return "On the way" + (f", expected {sending.expected}" if sending.expected else "")
    # A box may be chosen, and packed, without an arrangement. What is not worked out yet is not known to be ready.
    if not planned or any(knot.state != "tied" for knot in planned if knot.name != "arrange"):
        return ""
    if pack.state != "tied":
        return "Pack it" if not sending.ticked else "Go on packing"
    if not sending.closed:
        return "Weigh and measure it"
    return "Hand it over" if sending.numbered else "Buy its label, or enter its number"


def _packed(planned: Sequence[Knot], sending: Sending) -> Knot:
    if sending.handed_over:
        return Knot("pack", "tied", "packed")
    is_box_loose = any(one.name == "box" and one.state == "loose" for one in planned)
    if sending.otherwise or (sending.ticked and is_box_loose):
        return Knot("pack", "loose", "the box or the wrap changed since packing began")
    if not sending.ticked and not sending.closed:
        return Knot("pack", "open", "not packed")
    # Weighing, the label and handing over come after: who has closed and weighed it has packed it.
    if sending.closed or sending.ticked >= sending.steps:
        return Knot("pack", "tied", "packed")
    return Knot("pack", "open", f"{sending.ticked} of {sending.steps} steps done")
