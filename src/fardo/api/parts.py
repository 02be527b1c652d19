"""Parts in words: as they are measured, as they are wrapped, and what is cut for it."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from fardo.api import figure_views, goods
from fardo.core.goods.gap import BETWEEN, Gap
from fardo.core.plan.parts import CheckedPart, Used, WrapUsed
from fardo.core.plan.wrapped import Wrapped
from fardo.core.protect.coat import Coat, Cut
from fardo.core.protect.cushion import CushionCheck
from fardo.core.protect.forms import FORMS
from fardo.core.protect.material import Material, Sold
from fardo.core.quantity import INCH, Length, Units, show_length, show_mass, show_sizes, show_volume
from fardo.core.quantity.show import show_area, show_litres, show_run


def view_part(checked: CheckedPart, units: Units) -> goods.PartView:
    part = checked.part
    if not part.units:
        return goods.PartView(name=part.name)
    unit = part.units[0]
    return goods.PartView(
        name=part.name,
        bare=figure_views.view_sizes(unit.part.shape.sizes, units),
        volume=show_volume(unit.part.shape.volume_nm3, units),
        wrapped=_wrapped(unit, units),
        weight=show_mass(unit.weight, units, "up").text,
        piles=list(checked.piles),
        gap=_gap(unit.part.gap, units),
        coats=[view_coat(coat, units) for coat in unit.coats],
        says=list(unit.says),
        cushion=_cushion(checked.check, units) if checked.check else None,
        guards=bool(unit.guards),
        inner_boxes=unit.has_own_box,
    )


def view_wrap(used: WrapUsed, units: Units) -> goods.WrapList:
    """Everything to cut for the job, and what of each material it takes."""
    return goods.WrapList(
        cuts=[
            goods.CutView(
                material=one.material.name, pieces=f"{one.count} x", what=one.what,
                size=_size(one.cut, one.material, units),
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
        why=figure_views.view_why(check.why, units),
    )


def _gap(gap: Gap, units: Units) -> str:
    """As a length where it is the same to every wall, else by place."""
    said = gap.said
    if all(length == gap.wall for place, length in said if place != BETWEEN):
        return show_length(gap.wall, units, "up").text
    return ", ".join(f"{place.removeprefix('gap ')} {show_length(length, units, 'up').text}" for place, length in said)


def _wrapped(unit: Wrapped, units: Units) -> figure_views.Figure:
    shown = show_sizes(unit.sizes, units, "up")
    return figure_views.Figure(text=shown.text, exact=shown.exact, why=figure_views.view_why(unit.why(units), units))


def view_coat(coat: Coat, units: Units) -> goods.CoatView:
    """A layer in words."""
    return goods.CoatView(
        material=coat.material.code,
        name=coat.material.name,
        grows=coat.grows(units),
        cuts=[cut_of(cut, coat.material, units) for cut in coat.cuts],
        amount=amount_of(coat.amount, coat.material.sold, units),
        weight=show_mass(coat.weight, units, "up").text,
        price=str(coat.price),
        says=list(coat.says),
        why=figure_views.view_why(coat.why, units) if coat.why else None,
    )


def _total(used: Used, units: Units) -> goods.MaterialTotal:
    return goods.MaterialTotal(
        name=used.material.name, amount=amount_of(used.amount, used.material.sold, units),
        weight=show_mass(used.weight, units, "up").text, price=str(used.price),
    )  # fmt: skip


def _size(cut: Cut, material: Material, units: Units) -> str:
    """As it is cut at the bench: soft wrap to the next inch or centimetre, what tears at perforations by the foot."""
    if getattr(FORMS[material.form], "LAPS", False) and cut.width is not None:
        whole = INCH if units == "in" else Length.of_mm(10)
        if units == "in" and material.tears_every and (feet := cut.length.whole_feet) is not None:
            return f"{feet} ft of the {show_length(cut.width, units, 'up').text} roll"
        cut = replace(cut, length=cut.length.to_step(whole, "up"), width=cut.width.to_step(whole, "up"))
    length = show_length(cut.length, units, "up").text
    if cut.width is None:
        return f"{length} long"
    return f"{length.removesuffix(f' {units}')} x {show_length(cut.width, units, 'up').text}"


def cut_of(cut: Cut, material: Material, units: Units) -> str:
    """What is cut, as it is cut at the bench."""
    size = _size(cut, material, units)
    if cut.count == 1:
        return size
    return f"{cut.count} lengths of {size}" if "roll" in size else f"{cut.count} of {size}"


def amount_of(amount: Fraction, sold: Sold, units: Units) -> str:
    """How much of a material, up at its last figure."""
    if sold == "each":
        return f"{int(amount)} pieces" if amount != 1 else "1 piece"
    show = {"litre": show_litres, "m": show_run, "m2": show_area}
    return show[sold](amount, units)
