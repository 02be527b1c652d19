"""Mesh files, read by a general-purpose mesh library after a look at how large they say they are."""

from __future__ import annotations

import io
import re
from typing import Any

import numpy as np

from fardo.core.goods.shape import Mesh
from fardo.core.goods.shape.scanned import MOST_TRIANGLES
from fardo.core.refusal import BadInput

ENDINGS = (".stl", ".obj", ".ply", ".glb")
_MOST_TOLD = MOST_TRIANGLES * 2  # what a file says of itself may count quads


def read_mesh(name: str, content: bytes) -> Mesh:
    """The triangles of a file, in its own steps. Raises BadInput for what is none, or is far too large."""
    ending = name[name.rfind(".") :].lower()
    if ending not in ENDINGS:
        raise BadInput("not a mesh file", read=name, allowed=", ".join(ENDINGS), field="file")
    told = _told(ending, content)
    if told > _MOST_TOLD:
        raise BadInput(
            "too many triangles", read=f"{name}, {told} of them", field="file",
            allowed=f"at most {MOST_TRIANGLES}; thin it in the program it came from",
        )  # fmt: skip
    import trimesh

    try:
        loaded: Any = trimesh.load(io.BytesIO(content), file_type=ending[1:], force="mesh", process=True)
        vertices = np.asarray(loaded.vertices, dtype=np.float64)
        faces = np.asarray(loaded.faces, dtype=np.int64)
    except MemoryError:
        raise
    except Exception as fault:  # whatever a broken file makes of the library
        raise BadInput(
            f"not a mesh that can be read ({type(fault).__name__})", read=name, field="file",
            allowed="a whole STL, OBJ, PLY or GLB file",
        ) from fault  # fmt: skip
    if vertices.ndim != 2 or faces.ndim != 2 or not len(faces):
        raise BadInput("no triangles in it", read=name, allowed="a mesh with at least four faces", field="file")
    return Mesh(vertices, faces)


def _told(ending: str, content: bytes) -> int:
    """How many faces a file says it has, without reading it."""
    if ending == ".stl":
        if len(content) >= 84 and int.from_bytes(content[80:84], "little") * 50 + 84 == len(content):
            return int.from_bytes(content[80:84], "little")
        return content.count(b"endfacet")
    if ending == ".obj":
        return content.count(b"\nf ") + content.startswith(b"f ")
    if ending == ".ply":
        found = re.search(rb"element face (\d{1,12})", content[:4000])
        return int(found[1]) if found else 0
    return 0
