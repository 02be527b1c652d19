"""Liner: board or foam on all six walls of the box; the inside is larger by it on every side."""

from __future__ import annotations

from fardo.core.goods.shape import Sizes
from fardo.core.protect.coat import Coat, Cut, Layer, all_round, square_metres


def line_walls(inside: Sizes, layer: Layer) -> Coat:
    """The liner around a space of that size: two pieces for each pair of walls, the ends between the others."""
    length, width, height = inside
    thick = layer.material.thickness * layer.layers
    cuts = (
        Cut(2 * layer.layers, length + thick * 2, width + thick * 2),
        Cut(2 * layer.layers, length + thick * 2, height),
        Cut(2 * layer.layers, width, height),
    )
    return Coat(layer.material, all_round(thick), cuts, square_metres(cuts))
