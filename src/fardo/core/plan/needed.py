"""The inside size that a load asks for, and why it is so large."""

from __future__ import annotations

from contextlib import suppress

from fardo.core.arrange.ask import Arrangement, moved_in
from fardo.core.board.grade import Grade
from fardo.core.goods.part import Sizes
from fardo.core.make import Contents
from fardo.core.plan.cells import divider_of, in_cells, with_cells
from fardo.core.plan.load import Load, arrange, liner_thickness
from fardo.core.plan.shop import Shop
from fardo.core.refusal import NoAnswer
from fardo.core.why import Value, Why


def inside_of(load: Load, grade: Grade, shop: Shop) -> tuple[Arrangement, Why]:
    """The inside size that is asked for: the cells of a divider, where one is wanted, of that board."""
    with suppress(NoAnswer):
        counted = with_cells(load)
        if (wanted := divider_of(counted)) is not None:
            answer = in_cells(counted, grade.caliper, shop.allowances)
            told = (("cells", f"{wanted.along} x {wanted.across}"), ("strips of the divider", grade.caliper))
            why = Why(
                "cells + strips between them + slip; height + its gap", told, "a cell is as large as what is in it"
            )
            return moved_in(answer, liner_thickness(load)), why
    return inside_needed(load)


def inside_needed(load: Load) -> tuple[Arrangement, Why]:
    """The inside size that holds every part with its gap, every extra and the liner, and why it is so."""
    values: list[tuple[str, Value]] = []
    if len(load.units) == 1:
        unit = load.units[0]
        values += zip(("length", "width", "height"), unit.sizes, strict=True)
        values += [(name, side) for name, side in unit.part.gap.said]
    else:
        values += [(f"{unit.part.name}, wrapped, with its gap", unit.with_gap) for unit in load.units]
    values += [(f"{extra.name}", extra.sizes) for extra in load.extras if not extra.lies_flat]
    thick = liner_thickness(load)
    if thick.nm:
        values.append(("liner on every wall", thick))
    rule = "the gap is kept all round; the rest lies beside it, where the box grows least; slips and cards lie on top"
    if load.packed:
        formula = "parts in their own shapes, as they are arranged, gaps kept"
    else:
        several = len(load.units) > 1
        formula = "parts side by side, gaps between kept" if several else "contents + 2 x gap, then the extras"
    return moved_in(arrange(load), thick), Why(formula, tuple(values), rule)


def may_be_turned(load: Load) -> bool:
    """Whether all of it may be laid on another side: one thing that need not stay as it stands, beside its extras, and
    has no other gap below or above than at the walls, which would come to lie at a side.
    """
    parts = [unit.part for unit in load.units]
    if len(parts) != 1 or load.packed is not None:
        return False
    rules, gap = parts[0].rules, parts[0].gap
    level = all(said is None or said == gap.wall for said in (gap.below, gap.above))
    return level and not rules.this_side_up and not rules.keep_flat


def contents_of(load: Load, inside: Sizes) -> Contents:
    """The goods as a box that is there sees them.

    Args:
        inside: that they ask for.
    """
    return Contents(inside, not may_be_turned(load), load.gives, load.floats, not load.floats or load.flat)
