"""What a shop brings to every job: its board, fill, tape, time and habits. All of it data that the shop changes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from fardo.core.board.grade import Grade
from fardo.core.board.strength import STARTING_TRUST, Trust
from fardo.core.fill.material import Fill
from fardo.core.make.allowances import Allowances
from fardo.core.make.soft import STARTING_GATES, SoftGates
from fardo.core.make.stock import NOTHING_THERE, Stock
from fardo.core.plan.channel import Channel
from fardo.core.plan.house import Rule
from fardo.core.protect.coat import Coat
from fardo.core.protect.material import BubbleSide, Material
from fardo.core.quantity import Length, Mass, Money, Units
from fardo.core.refusal import BadInput
from fardo.core.tariff.exchange import Exchange


@dataclass(frozen=True, slots=True)
class Tape:
    weight_per_m: Mass
    price_per_100_m: Money


@dataclass(frozen=True, slots=True)
class Supplies:
    """How much there is of what is counted; what is not named is not counted.

    Args:
        wrap: by the code of the material, of what it is sold by.
        fill: by its name, litres.
        tape: metres, None where it is not counted.
    """

    wrap: Mapping[str, Fraction] = field(default_factory=dict)
    fill: Mapping[str, Fraction] = field(default_factory=dict)
    tape: Fraction | None = None


@dataclass(frozen=True, slots=True)
class Shop:
    """The shop's stock, figures and rules.

    Args:
        units: what it reads and writes.
        currency: of all its money.
        labour_per_hour: its own rate.
        pack_minutes: to place, fill, close and label, whatever the box.
        wrap_minutes: for each layer put on.
        default_gap: where a part names neither a gap nor how fragile it is.
        gaps: by the least g of a fragility class, the first that is at least what the part bears.
        cushion_factor: C of the check, of the fill it has around it.
        fills: what it fills boxes with, the usual one first.
        grades: its board, by code; `default_grade` is used unless a job says otherwise.
        materials: by code.
        bubbles: which way they look, its habit.
        exchange: its rates of other currencies.
        kerf: what its saw takes at every cut.
        offcut_least: shorter side of an off-cut that is worth keeping.
        stock: boxes, mailers and designs of its own that are there.
        trust: how far it trusts board.
        dear_from: goods of such a value are dear.
        soft: what may travel in a bag or mailer as it is.
        making: by way, the minutes it takes to make such a box, where the shop found others than it starts with.
        cover_from: from such a value on what does not cover it comes after what does.
        sign_from: from such a value on a signature is asked for.
        channels: where it sells.
        country: its own.
        rules: of the house.
        supplies: of wrap, fill and tape that are left.
    """

    units: Units
    currency: str
    labour_per_hour: Money
    pack_minutes: Fraction
    wrap_minutes: Fraction
    default_gap: Length
    gaps: tuple[tuple[int, Length], ...]
    cushion_factor: Fraction
    allowances: Allowances
    fills: tuple[Fill, ...]
    tape: Tape
    grades: dict[str, Grade]
    default_grade: str
    materials: dict[str, Material]
    bubbles: BubbleSide
    exchange: Exchange
    kerf: Length
    offcut_least: Length
    stock: Stock = NOTHING_THERE
    trust: Trust = STARTING_TRUST
    dear_from: Money | None = None
    making: tuple[tuple[str, Fraction], ...] = ()
    cover_from: Money | None = None
    sign_from: Money | None = None
    channels: tuple[Channel, ...] = ()
    country: str = ""
    soft: SoftGates = STARTING_GATES
    rules: tuple[Rule, ...] = ()
    supplies: Supplies = field(default_factory=Supplies)

    def gap(self, fragility: int | None) -> Length:
        """The habit for what bears so many g, None where nobody said."""
        if fragility is not None:
            for bears, gap in self.gaps:
                if fragility <= bears:
                    return gap
        return self.default_gap

    def minutes_for(self, coat: Coat) -> Fraction:
        """To put a layer on, as often as it goes on."""
        each = self.wrap_minutes if coat.material.minutes is None else coat.material.minutes
        return each * coat.puts

    def packing_minutes(self, said: Fraction | None) -> Fraction:
        """To place, fill, close and label: what is said of such goods, or the usual."""
        return self.pack_minutes if said is None else said

    def dear(self, value: Money | None) -> bool:
        """Whether goods of that declared value are dear."""
        return value is not None and self.dear_from is not None and value >= self.dear_from

    def asks_to_sign(self, value: Money) -> bool:
        """Whether the shop asks for a signature on delivery of goods of that declared value."""
        return self.sign_from is not None and value >= self.sign_from

    def material(self, code: str) -> Material:
        """Raises BadInput for a code the shop does not have."""
        if code not in self.materials:
            raise BadInput(
                "not a material the shop has", read=code, allowed=", ".join(self.materials), field="material"
            )
        return self.materials[code]

    def grade(self, code: str | None) -> Grade:
        """The grade of that code, or the usual one. Raises BadInput for a code the shop does not have."""
        wanted = self.default_grade if code is None else code
        if wanted not in self.grades:
            raise BadInput("not a board the shop has", read=wanted, allowed=", ".join(self.grades), field="board")
        return self.grades[wanted]
