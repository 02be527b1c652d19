"""Parts in words: as they are measured, as they are wrapped, and what is cut for it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from fractions import Fraction
from itertools import groupby

from fardo.api import figures, goods
from fardo.core.plan.load import arrange
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.coat import Coat, Cut
from fardo.core.protect.cushion import check_cushion
from fardo.core.protect.liner import line_walls
from fardo.core.quantity import (
    Mass,
    Money,
    Units,
    cubic_cm,
    cubic_inches,
    show_length,
    show_mass,
    show_sizes,
)
from fardo.core.quantity.money import total
from fardo.core.refusal import BadInput
from fardo.core.why import Value, Why
from fardo.files.job import JobFile
from fardo.files.shapes import MeasuredShape
from fardo.files.typed import Measure, to_length, to_mass
from fardo.files.understood import Understood

_SQUARE_FOOT_M2 = Fraction("0.3048") ** 2
_FOOT_M = Fraction("0.3048")


def view_parts(job: JobFile, said: Understood, shop: Shop, dropped: Mass | None) -> list[goods.PartView]:
    """Each part of the job in its order.

    Args:
        dropped: what the whole parcel weighs, where that is known; else the goods are reckoned with.
    """
    weight = dropped or Mass(sum(unit.weight.ng * times for units in said.units for unit, times in _alike(units)))
    parts = []
    for n, entry in enumerate(job.parts):
        units = said.units[n] if n < len(said.units) else ()
        name = entry.name or f"part {n + 1}"
        parts.append(_view_part(name, units, shop, weight) if units else goods.PartView(name=name))
    return parts


def _view_part(name: str, units: Sequence[Wrapped], shop: Shop, dropped: Mass) -> goods.PartView:
    unit, read = units[0], shop.units
    piled = len(units) < unit.part.count or unit.pile > 1
    cushion = None
    if unit.part.fragility is not None:
        check = check_cushion(dropped, unit.part.fragility, shop.cushion_factor, unit.cushion, read)
        cushion = goods.CushionView(
            enough=check.enough,
            asks=show_length(check.asks, read, "up").text,
            has=show_length(check.has, read, "down").text,
            says=check.says,
            why=figures.view_why(check.why, read),
        )
    bare = unit.part.shape.sizes
    return goods.PartView(
        name=name,
        bare=figures.view_sizes(bare, read),
        volume=_volume(unit.part.shape.volume_nm3, read),
        wrapped=_wrapped(unit, read),
        weight=show_mass(unit.weight, read, "up").text,
        piles=[one.pile for one in units] if piled else [],
        gap=show_length(unit.part.gap, read, "up").text,
        coats=[view_coat(coat, read) for coat in unit.coats],
        says=list(unit.says),
        cushion=cushion,
        guards=bool(unit.guards),
    )


def _wrapped(unit: Wrapped, units: Units) -> figures.Figure:
    shown = show_sizes(unit.sizes, units, "up")
    values: list[tuple[str, Value]] = [("bare" if unit.pile == 1 else f"pile of {unit.pile}", unit.shape.sizes)]
    values += [(coat.material.name, _grows(coat, units) or "nothing") for coat in unit.coats]
    why = Why(
        "bare + 2 x what each layer adds", tuple(values), "growth per side is layers x thickness (common practice)"
    )
    return figures.Figure(text=shown.text, exact=shown.exact, why=figures.view_why(why, units))


def view_coat(coat: Coat, units: Units) -> goods.CoatView:
    """A layer in words."""
    return goods.CoatView(
        material=coat.material.code,
        name=coat.material.name,
        grows=_grows(coat, units),
        cuts=[_cut(cut, units) for cut in coat.cuts],
        amount=_amount(coat.amount, coat.material.sold, units),
        weight=show_mass(coat.weight, units, "up").text,
        price=str(coat.price),
        says=list(coat.says),
        why=figures.view_why(coat.why, units) if coat.why else None,
    )


def wrap_list(said: Understood, shop: Shop) -> goods.WrapList:
    """Everything to cut for the job, and what of each material it takes."""
    read = shop.units
    coats = list(_all_coats(said))
    cuts = [
        goods.CutView(material=coat.material.name, pieces=f"{cut.count * times} x", size=_size(cut, read), what=what)
        for coat, what, times in coats
        for cut in coat.cuts
    ]
    by_material: dict[str, list[tuple[Coat, int]]] = {}
    for coat, _, times in coats:
        by_material.setdefault(coat.material.code, []).append((coat, times))
    every = [(coat, times) for coat, _, times in coats]
    return goods.WrapList(
        cuts=cuts,
        totals=[_total(of_one, shop) for of_one in by_material.values()],
        weight=_weigh(every, read),
        price=str(_price(every, shop)),
        minutes=round(shop.wrap_minutes * sum(times for _, times in every)),
    )


def _alike(units: Sequence[Wrapped]) -> Iterator[tuple[Wrapped, int]]:
    """Each thing of a part that differs, and how often it is there; like ones lie together."""
    for _, same in groupby(units, key=id):
        alike = list(same)
        yield alike[0], len(alike)


def _all_coats(said: Understood) -> Iterator[tuple[Coat, str, int]]:
    """Each layer that differs, on what, and how often; those of like things together."""
    for units in said.units:
        for unit, times in _alike(units):
            what = unit.part.name if unit.pile == 1 else f"{unit.part.name}, pile of {unit.pile}"
            yield from ((coat, what, times) for coat in unit.coats)
    if said.load is not None and said.load.liner is not None:
        yield line_walls(arrange(said.load).inside, said.load.liner), "walls of the box", 1


def _total(coats: list[tuple[Coat, int]], shop: Shop) -> goods.MaterialTotal:
    material = coats[0][0].material
    amount = sum((coat.amount * times for coat, times in coats), Fraction(0))
    return goods.MaterialTotal(
        name=material.name, amount=_amount(amount, material.sold, shop.units), weight=_weigh(coats, shop.units),
        price=str(_price(coats, shop)),
    )  # fmt: skip


def _weigh(coats: list[tuple[Coat, int]], units: Units) -> str:
    return show_mass(Mass(sum(coat.weight.ng * times for coat, times in coats)), units, "up").text


def _price(coats: list[tuple[Coat, int]], shop: Shop) -> Money:
    every = [Money(coat.price.minor * times, coat.price.currency) for coat, times in coats]
    return total(every, shop.currency)


def _grows(coat: Coat, units: Units) -> str:
    """What a layer adds, in words; nothing where it adds nothing outside."""
    sides = [show_length(by, units, "up").text for by in coat.growth]
    grown = [side for side, by in zip(sides, coat.growth, strict=True) if by.nm]
    if not grown:
        return ""
    if len(set(coat.growth)) == 1:
        return f"{sides[0]} on every side"
    if len(grown) == 1:
        return f"{grown[0]} on two sides"
    return " x ".join(side.removesuffix(f" {units}") for side in sides) + f" {units} on each side"


def _size(cut: Cut, units: Units) -> str:
    length = show_length(cut.length, units, "up").text
    if cut.width is None:
        return f"{length} long"
    return f"{length.removesuffix(f' {units}')} x {show_length(cut.width, units, 'up').text}"


def _cut(cut: Cut, units: Units) -> str:
    return f"{cut.count} of {_size(cut, units)}" if cut.count > 1 else _size(cut, units)


def _amount(amount: Fraction, sold: str, units: Units) -> str:
    """How much of a material, up at its last figure."""
    if sold == "each":
        return f"{int(amount)} pieces" if amount != 1 else "1 piece"
    if sold == "litre":
        return f"{_up(amount)} litres"
    if sold == "m":
        return f"{_up(amount / _FOOT_M)} ft" if units == "in" else f"{_up(amount)} m"
    return f"{_up(amount / _SQUARE_FOOT_M2)} sq ft" if units == "in" else f"{_up(amount)} m²"


def _up(amount: Fraction) -> str:
    return f"{-(-amount * 10 // 1) / 10:g}"


def _volume(nm3: int, units: Units) -> str:
    return f"{float(cubic_inches(nm3)):,.0f} cu in" if units == "in" else f"{float(cubic_cm(nm3)) / 1000:,.1f} litres"


def measured(job: JobFile, units: Units) -> dict[str, str]:
    """What each typed measure of a part was read as; only those that can be read."""
    read: dict[str, str] = {}
    for n, part in enumerate(job.parts):
        path = f"parts[{n}]"
        typed: list[tuple[str, Measure | None]] = [(f"{path}.gap", part.gap), (f"{path}.weight", part.weight)]
        if isinstance(part.shape, MeasuredShape):
            typed += [(f"{path}.shape.{name}", value) for name, value in part.shape.measures().items()]
        for field, value in typed:
            if value is None or value == "":
                continue
            try:
                if field.endswith("weight"):
                    read[field] = show_mass(to_mass(value, units, field), units, "up").text
                else:
                    read[field] = show_length(to_length(value, units, field, zero=True), units, "up").text
            except BadInput:
                continue
    return read
