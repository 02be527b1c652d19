"""Mesh files, read by a general-purpose mesh library after a look at how large they say they are."""

from __future__ import annotations

import io
import re
from typing import Any

import numpy as np
from pydantic_core import from_json

from fardo.core.goods.shape import Mesh
from fardo.core.goods.shape.scanned import MOST_TRIANGLES
from fardo.core.refusal import BadInput

ENDINGS = (".stl", ".obj", ".ply", ".glb")
_ALLOWED = "a whole STL, OBJ, PLY or GLB file"
_LONGEST_HEADER = 64_000  # bytes
_LONGEST_JSON = 4_000_000  # bytes
_MOST_NODES = 2000
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
            allowed=_ALLOWED,
        ) from fault  # fmt: skip
    if vertices.ndim != 2 or faces.ndim != 2 or not len(faces):
        raise BadInput("no triangles in it", read=name, allowed="a mesh with at least four faces", field="file")
    return Mesh(vertices, faces)


def _told(ending: str, content: bytes) -> int:
    """How many faces a file says it has, without making anything of it. Raises BadInput where it does not say."""
    return {".stl": _told_by_stl, ".obj": _told_by_obj, ".ply": _told_by_ply, ".glb": _told_by_glb}[ending](content)


def _told_by_stl(content: bytes) -> int:
    if len(content) >= 84 and int.from_bytes(content[80:84], "little") * 50 + 84 == len(content):
        return int.from_bytes(content[80:84], "little")
    return content.count(b"endfacet")


def _told_by_obj(content: bytes) -> int:
    """Of points and faces the more: a face of many corners is many triangles."""
    faces = content.count(b"\nf ") + content.startswith(b"f ")
    return max(faces, content.count(b"\nv "))


def _told_by_ply(content: bytes) -> int:
    """Of all it lists, faces or not."""
    end = content.find(b"end_header", 0, _LONGEST_HEADER)
    if end < 0:
        raise _broken("its header has no end")
    counts = [int(found) for found in re.findall(rb"element\s+\S+\s+(\d{1,12})", content[:end])]
    return max(counts, default=0)


def _told_by_glb(content: bytes) -> int:
    """Of every mesh as often as it is placed. Layout of the file: glTF 2.0, "GLB File Format" (from memory)."""
    length = int.from_bytes(content[12:16], "little")
    if content[:4] != b"glTF" or content[16:20] != b"JSON" or length > min(len(content) - 20, _LONGEST_JSON):
        raise _broken("it does not begin as one")
    try:
        told = from_json(content[20 : 20 + length])
        nodes, meshes, accessors = (told.get(name, []) for name in ("nodes", "meshes", "accessors"))
        if len(nodes) > _MOST_NODES or len(accessors) > _MOST_NODES:
            return len(nodes) * _MOST_TOLD
        children = [child for node in nodes for child in node.get("children", [])]
        if len(set(children)) < len(children):
            raise _broken("a part of it is placed in two others")
        faces = [
            sum(
                accessors[one.get("indices", one["attributes"]["POSITION"])]["count"] // 3 for one in mesh["primitives"]
            )
            for mesh in meshes
        ]
        return sum(max(1, faces[node["mesh"]]) for node in nodes if "mesh" in node)
    except (ValueError, LookupError, TypeError, AttributeError) as fault:
        raise _broken("what it says of itself cannot be read") from fault


def _broken(why: str) -> BadInput:
    return BadInput(f"not a mesh that can be read: {why}", read="the file", allowed=_ALLOWED, field="file")
