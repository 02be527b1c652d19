"""The shapes of things. A new kind is a class here and a line in the register; its fields on screen and in files
follow from it.
"""

from __future__ import annotations

from fardo.core.goods.shape.bars import Bars, bars
from fardo.core.goods.shape.box import Box
from fardo.core.goods.shape.compound import Compound, Piece, Turn, compound
from fardo.core.goods.shape.cup import Cup
from fardo.core.goods.shape.mesh import Mesh
from fardo.core.goods.shape.outline import Outline, outline
from fardo.core.goods.shape.round import Cylinder, Disc, Ellipsoid, Ring, Taper
from fardo.core.goods.shape.scanned import Scanned, scanned
from fardo.core.goods.shape.shape import Asked, DimensionLine, Shape, Sizes

__all__ = [
    "MEASURED",
    "SHAPES",
    "Asked",
    "Bars",
    "Box",
    "Compound",
    "Cup",
    "Cylinder",
    "DimensionLine",
    "Disc",
    "Ellipsoid",
    "Mesh",
    "Outline",
    "Piece",
    "Ring",
    "Scanned",
    "Shape",
    "Sizes",
    "Taper",
    "Turn",
    "bars",
    "compound",
    "outline",
    "scanned",
]

# In the order a person looks for them.
SHAPES: dict[str, type[Shape]] = {
    shape.KIND: shape for shape in (Box, Cylinder, Disc, Ring, Cup, Taper, Ellipsoid, Bars, Outline, Compound, Scanned)
}
# Those that are known by their measures alone.
MEASURED: dict[str, type[Shape]] = {kind: shape for kind, shape in SHAPES.items() if shape.ASKED}
