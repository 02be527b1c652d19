"""Parts in words: as they are measured, as they are wrapped, and what is cut for it."""

from __future__ import annotations

from fractions import Fraction

from fardo.api import figures, goods
from fardo.core.plan.parts import CheckedPart, Used, WrapUsed
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.coat import Coat, Cut
from fardo.core.protect.cushion import CushionCheck
from fardo.core.protect.material import Sold
from fardo.core.quantity import Units, show_length, show_mass, show_sizes, show_volume
from fardo.core.quantity.show import show_area, show_litres, show_run


def view_part(checked: CheckedPart, units: Units) -> goods.PartView:
    part = checked.part
    if not part.units:
        return goods.PartView(name=part.name)
    unit = part.units[0]
    return goods.PartView(
        name=part.name,
        bare=figures.view_sizes(unit.part.shape.sizes, units),
        volume=show_volume(unit.part.shape.volume_nm3, units),
        wrapped=_wrapped(unit, units),
        weight=show_mass(unit.weight, units, "up").text,
        piles=list(checked.piles),
        gap=show_length(unit.part.gap, units, "up").text,
        coats=[view_coat(coat, units) for coat in unit.coats],
        says=list(unit.says),
        cushion=_cushion(checked.check, units) if checked.check else None,
        guards=bool(unit.guards),
    )


def view_wrap(used: WrapUsed, units: Units) -> goods.WrapList:
    """Everything to cut for the job, and what of each material it takes."""
    return goods.WrapList(
        cuts=[
            goods.CutView(
                material=one.material.name, pieces=f"{one.count} x", size=_size(one.cut, units), what=one.what
            )
            for one in used.cuts
        ],
        totals=[_total(one, units) for one in used.materials],
        weight=show_mass(used.weight, units, "up").text,
        price=str(used.price),
        minutes=round(used.minutes),
    )  # fmt: skip


def _cushion(check: CushionCheck, units: Units) -> goods.CushionView:
    return goods.CushionView(
        enough=check.enough,
        asks=show_length(check.asks, units, "up").text,
        has=show_length(check.has, units, "down").text,
        says=check.says,
        why=figures.view_why(check.why, units),
    )


def _wrapped(unit: Wrapped, units: Units) -> figures.Figure:
    shown = show_sizes(unit.sizes, units, "up")
    return figures.Figure(text=shown.text, exact=shown.exact, why=figures.view_why(unit.why(units), units))


def view_coat(coat: Coat, units: Units) -> goods.CoatView:
    """A layer in words."""
    return goods.CoatView(
        material=coat.material.code,
        name=coat.material.name,
        grows=coat.grows(units),
        cuts=[_cut(cut, units) for cut in coat.cuts],
        amount=_amount(coat.amount, coat.material.sold, units),
        weight=show_mass(coat.weight, units, "up").text,
        price=str(coat.price),
        says=list(coat.says),
        why=figures.view_why(coat.why, units) if coat.why else None,
    )


def _total(used: Used, units: Units) -> goods.MaterialTotal:
    return goods.MaterialTotal(
        name=used.material.name, amount=_amount(used.amount, used.material.sold, units),
        weight=show_mass(used.weight, units, "up").text, price=str(used.price),
    )  # fmt: skip


def _size(cut: Cut, units: Units) -> str:
    length = show_length(cut.length, units, "up").text
    if cut.width is None:
        return f"{length} long"
    return f"{length.removesuffix(f' {units}')} x {show_length(cut.width, units, 'up').text}"


def _cut(cut: Cut, units: Units) -> str:
    return f"{cut.count} of {_size(cut, units)}" if cut.count > 1 else _size(cut, units)


def _amount(amount: Fraction, sold: Sold, units: Units) -> str:
    """How much of a material, up at its last figure."""
    if sold == "each":
        return f"{int(amount)} pieces" if amount != 1 else "1 piece"
    show = {"litre": show_litres, "m": show_run, "m2": show_area}
    return show[sold](amount, units)
