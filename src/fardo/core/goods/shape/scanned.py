"""A shape from a mesh file: scanned, or drawn in another program."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache
from typing import TYPE_CHECKING

from fardo.core.goods.shape.mesh import Mesh
from fardo.core.goods.shape.shape import Direction, Shape, Sizes, outward
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    from fardo.core.goods.shape.solids import Solid

MOST_TRIANGLES = 200_000


@dataclass(frozen=True, slots=True)
class Scanned(Shape):
    """Made by `scanned`. Two of one file and one unit are the same.

    Args:
        file: the name it is kept under.
        unit: what one step of the file is.
        closed: its surface, from 0,0,0.
    """

    KIND = "mesh"
    TITLE = "mesh file"

    file: str
    unit: Length
    closed: Mesh = field(compare=False, repr=False)

    @property
    def sizes(self) -> Sizes:
        highest = self.closed.vertices.max(axis=0) * 1e6
        a, b, c = (outward(float(side)) for side in highest)
        return Length(a), Length(b), Length(c)

    @property
    def volume_nm3(self) -> int:
        return round(float(self.solid().volume()) * 10**18)

    @property
    def area_nm2(self) -> int:
        return round(float(self.solid().surface_area()) * 10**12)

    def support(self, direction: Direction) -> float:
        import numpy as np

        return float((_hull(self) @ np.array(direction)).max()) * 1e6

    def solid(self) -> Solid:
        from fardo.core.goods.shape.solids import of_triangles

        return of_triangles(self.closed.vertices, self.closed.faces)


@lru_cache(maxsize=16)
def _hull(shape: Scanned) -> NDArray[np.float64]:
    """The corners of its convex hull, which reach as far as all of it and are far fewer."""
    from fardo.core.goods.shape.solids import mesh_of

    return mesh_of(shape.solid().hull()).vertices


def scanned(file: str, mesh: Mesh, unit: Length) -> Scanned:
    """A shape from the triangles of a file.

    Args:
        mesh: in the file's own steps.
        unit: how long one step is.

    Raises: BadInput where it has too many triangles, is open, flat or turned inside out.
    """
    import numpy as np

    from fardo.core.goods.shape.solids import of_triangles

    if len(mesh.faces) > MOST_TRIANGLES:
        raise BadInput(
            "too many triangles", read=f"{len(mesh.faces)} triangles",
            allowed=f"at most {MOST_TRIANGLES}; thin it in the program it came from", field="file",
        )  # fmt: skip
    if len(mesh.faces) == 0 or not np.isfinite(mesh.vertices).all():
        raise BadInput("no surface in it", read=file, allowed="a mesh of triangles", field="file")
    placed = (mesh.vertices - mesh.vertices.min(axis=0)) * unit.mm
    if open_edges := _open_edges(mesh):
        edges = "one edge has" if open_edges == 1 else f"{open_edges} edges have"
        raise BadInput(
            f"the mesh is not closed: {edges} no second face",
            read=file, allowed="a closed mesh; close its holes in the program it came from, or measure it as a box of "
            + " x ".join(f"{side / 25.4:.3g}" for side in placed.max(axis=0)) + " in", field="file",
        )  # fmt: skip
    solid = of_triangles(placed, mesh.faces)
    if solid is None or solid.volume() <= 0:
        raise BadInput(
            "the mesh encloses no room: its faces cross or look inwards", read=file,
            allowed="a closed mesh with its faces looking outwards", field="file",
        )  # fmt: skip
    return Scanned(file, unit, Mesh(placed, mesh.faces))


def _open_edges(mesh: Mesh) -> int:
    import numpy as np

    edges = np.sort(mesh.faces[:, [0, 1, 1, 2, 2, 0]].reshape(-1, 2), axis=1)
    _, counts = np.unique(edges, axis=0, return_counts=True)
    return int(np.count_nonzero(counts != 2))
