"""The parts of a job as they are wrapped: whether their cushion is enough, what is cut for them, what it all takes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from fractions import Fraction
from itertools import groupby

from fardo.core.make.made import Made
from fardo.core.plan.boxed import Boxed
from fardo.core.plan.job import Job, ReadPart
from fardo.core.plan.load import IN_INSERTS, Load, arrange, line_box
from fardo.core.plan.shop import Shop
from fardo.core.plan.together import coats_together
from fardo.core.plan.wrapped import Wrapped, own_boxes
from fardo.core.protect.coat import Coat, Cut
from fardo.core.protect.cushion import NO_LIMIT, CushionCheck, check_cushion, goods_of
from fardo.core.protect.material import Material
from fardo.core.quantity import ZERO, Mass, Money, show_length
from fardo.core.quantity.money import total
from fardo.core.refusal import NoAnswer


@dataclass(frozen=True, slots=True)
class CheckedPart:
    """A part with what the cushion check says of it, where it is said how fragile it is.

    Args:
        caution: where the cushion falls short, else nothing.
    """

    part: ReadPart
    check: CushionCheck | None = None
    caution: str = ""

    @property
    def piles(self) -> tuple[int, ...]:
        """How many lie in each pile, where it is piled."""
        units = self.part.units
        piled = bool(units) and (len(units) < units[0].part.count or units[0].pile > 1)
        return tuple(one.pile for one in units) if piled else ()


@dataclass(frozen=True, slots=True)
class CutFor:
    """One size to cut of a material: for what, and how many in all."""

    material: Material
    cut: Cut
    count: int
    what: str


@dataclass(frozen=True, slots=True)
class Used:
    """What a job takes of one material."""

    material: Material
    amount: Fraction
    weight: Mass
    price: Money


@dataclass(frozen=True, slots=True)
class WrapUsed:
    """Everything to cut and to use for wrapping, for the whole job."""

    cuts: tuple[CutFor, ...]
    materials: tuple[Used, ...]
    weight: Mass
    price: Money
    minutes: Fraction


def check_parts(job: Job, shop: Shop, boxed: Boxed | None) -> tuple[CheckedPart, ...]:
    """Each part of the job in its order.

    Args:
        boxed: what it goes in, where that is known: all of it is dropped at once, a mailer keeps no gap, and a maker's
            own inserts stand over the check. Else the goods alone are reckoned with.
    """
    each = (unit.weight.ng * times for part in job.parts for unit, times in alike_units(part.units))
    weight = boxed.weights.total if boxed is not None else Mass(sum(each))
    return tuple(_checked(part, shop, weight, boxed.made if boxed is not None else None) for part in job.parts)


@dataclass(frozen=True, slots=True)
class Layered:
    """A layer that is put on.

    Args:
        what: it goes on.
        times: on how many alike.
    """

    coat: Coat
    what: str
    times: int


def layers_of(job: Job, shop: Shop, made: Made | None = None) -> tuple[Layered, ...]:
    """Each layer of a job in the order in which it is put on, like things together; what goes around several after.

    Args:
        made: the box in hand, None where there is none.
    """
    found = list(_layers(job, made))
    if job.load is not None and not job.several:  # else each parcel has its own
        found += [Layered(coat, f"{name}, together", 1) for name, coat in _together(job.load, shop)]
    return tuple(found)


@dataclass(frozen=True, slots=True)
class InnerBox:
    """A box that is cut for a part of its own.

    Args:
        what: it goes around.
        times: how many alike.
    """

    made: Made
    what: str
    times: int


def inner_boxes_of(job: Job, shop: Shop) -> tuple[InnerBox, ...]:
    """Every box that is cut for a part of its own, from the goods outward."""
    return tuple(
        InnerBox(made, named(unit), times)
        for part in job.parts
        for unit, times in alike_units(part.units)
        for made in own_boxes(unit, shop)
    )


def wrap_used(job: Job, shop: Shop, made: Made | None = None) -> WrapUsed:
    """What is cut and used for a job, like things together.

    Args:
        made: the box in hand, None where there is none.
    """
    layers = layers_of(job, shop, made)
    by_material: dict[str, list[tuple[Coat, int]]] = {}
    for one in layers:
        by_material.setdefault(one.coat.material.code, []).append((one.coat, one.times))
    materials = tuple(_used(of_one, shop) for of_one in by_material.values())
    return WrapUsed(
        tuple(
            CutFor(one.coat.material, cut, cut.count * one.times, one.what) for one in layers for cut in one.coat.cuts
        ),
        materials,
        Mass(sum(used.weight.ng for used in materials)),
        total([used.price for used in materials], shop.currency),
        sum((shop.minutes_for(one.coat) * one.times for one in layers), Fraction(0)),
    )


def _checked(part: ReadPart, shop: Shop, dropped: Mass, made: Made | None) -> CheckedPart:
    if not part.units or (fragility := part.units[0].part.fragility) in (None, NO_LIMIT):
        return CheckedPart(part)
    unit = part.units[0]
    has = unit.wrap_cushion if made is not None and made.soft else unit.cushion
    if made is not None:
        has = max(has - made.pressed.half(), ZERO)  # what is pressed in gives no way any more
    proven = IN_INSERTS if made is not None and made.has_inserts else unit.part.proven
    check = check_cushion(dropped, fragility, shop.cushion_factor, has, shop.units, proven)
    asks, there = show_length(check.asks, shop.units, "up").text, show_length(check.has, shop.units, "down").text
    caution = "" if check.enough else f"{part.name}: {goods_of(fragility)} need {asks} of cushion, there is {there}"
    return CheckedPart(part, check, caution)


def alike_units(units: Sequence[Wrapped]) -> Iterator[tuple[Wrapped, int]]:
    """Each thing of a part that differs, and how often it is there; like ones lie together."""
    for _, same in groupby(units, key=id):
        found = list(same)
        yield found[0], len(found)


def _layers(job: Job, made: Made | None) -> Iterator[Layered]:
    for part in job.parts:
        for unit, times in alike_units(part.units):
            yield from (Layered(coat, named(unit), times) for coat in unit.coats)
    if job.load is not None and job.load.liner is not None and not job.several:
        yield Layered(line_box(job.load, job.load.liner, made), "walls of the box", 1)


def named(unit: Wrapped) -> str:
    """What is packed, with how many lie in it where it is a pile."""
    return unit.part.name if unit.pile == 1 else f"{unit.part.name}, pile of {unit.pile}"


def _together(load: Load, shop: Shop) -> Iterator[tuple[str, Coat]]:
    if load.bundles:
        with suppress(NoAnswer):  # a mailer that does not close on them: the boxes say so
            yield from coats_together(load, arrange(load), shop)


def _used(coats: Sequence[tuple[Coat, int]], shop: Shop) -> Used:
    return Used(
        coats[0][0].material,
        sum((coat.amount * times for coat, times in coats), Fraction(0)),
        Mass(sum(coat.weight.ng * times for coat, times in coats)),
        total([Money(coat.price.minor * times, coat.price.currency) for coat, times in coats], shop.currency),
    )
