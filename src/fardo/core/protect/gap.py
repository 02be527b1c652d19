"""The gap: the goods grow by it on every side before anything else is put beside them (common practice)."""

from __future__ import annotations

from fardo.core.goods.part import Part, Sizes


def with_gap(part: Part) -> Sizes:
    """The space a part takes with its gap on all six sides."""
    length, width, height = (side + part.gap * 2 for side in part.sizes)
    return length, width, height
