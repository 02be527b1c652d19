"""A closed surface of triangles, as bodies are looked at and as files bring them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

FACETS = 64  # sides a round thing has in a mesh


@dataclass(frozen=True, slots=True)
class Mesh:
    """Triangles of a closed surface.

    Args:
        vertices: (n, 3) float, mm.
        faces: (m, 3) int, seen from outside against the clock.
    """

    vertices: NDArray[np.float64]
    faces: NDArray[np.int64]
