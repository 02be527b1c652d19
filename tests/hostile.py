"""Files made to hold a reader up: each kind that is taken, far too large in the one way that costs most, or broken."""

from __future__ import annotations

import io
import json
import struct
import zipfile
from collections.abc import Callable
from typing import Any

from PIL import Image

from tests.made_up import job, part

Make = Callable[[], bytes]


def nested_turns() -> bytes:
    turns = b"matrix(" * 60_000
    return b'<svg xmlns="http://www.w3.org/2000/svg" width="300mm"><path transform="' + turns + b'" d="M0 0"/></svg>'


def path_of_220_000_lines() -> bytes:
    return b'<svg xmlns="http://www.w3.org/2000/svg" width="300mm"><path d="M0 0' + b"h1v1" * 110_000 + b'"/></svg>'


def dxf(lines: int = 0, points: int = 0, unit: int = 4) -> bytes:
    head = f"0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n{unit}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n"
    body = "0\nLINE\n8\nCUT\n10\n0\n20\n0\n11\n9\n21\n9\n" * lines
    body += "0\nLWPOLYLINE\n8\nCUT\n90\n9\n70\n1\n" + "10\n0\n20\n9\n" * points if points else ""
    return (head + body + "0\nENDSEC\n0\nEOF\n").encode()


def binary_dxf() -> bytes:
    return b"Some CAD Binary DXF\r\n\x1a\x00" + bytes(range(256)) * 20


def glb(document: dict[str, Any], rest: bytes = b"") -> bytes:
    """As glTF 2.0 lays a binary file out: a header, the JSON, the bytes it speaks of."""
    text = json.dumps(document).encode()
    text += b" " * (-len(text) % 4)
    chunks = struct.pack("<I4s", len(text), b"JSON") + text
    if rest:
        chunks += struct.pack("<I4s", len(rest), b"BIN\0") + rest
    return struct.pack("<4sII", b"glTF", 2, 12 + len(chunks)) + chunks


def tetrahedron(instances: int, nested: bool = False) -> bytes:
    """One tetrahedron placed so often; nested, in nodes that each hold the next one twice."""
    points = struct.pack("<12f", 0, 0, 0, 9, 0, 0, 0, 9, 0, 0, 0, 9)
    faces = struct.pack("<12H", 0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3)
    nodes: list[dict[str, Any]] = [{"mesh": 0} for _ in range(instances)]
    if nested:
        nodes = [{"children": [n + 1, n + 1]} for n in range(instances)] + [{"mesh": 0}]
    return glb({
        "asset": {"version": "2.0"}, "scene": 0, "scenes": [{"nodes": [0] if nested else list(range(instances))}],
        "nodes": nodes,
        "meshes": [{"primitives": [{"attributes": {"POSITION": 0}, "indices": 1}]}],
        "accessors": [
            {"bufferView": 0, "componentType": 5126, "count": 4, "type": "VEC3", "min": [0, 0, 0], "max": [9, 9, 9]},
            {"bufferView": 1, "componentType": 5123, "count": 12, "type": "SCALAR"},
        ],
        "bufferViews": [
            {"buffer": 0, "byteLength": len(points)},
            {"buffer": 0, "byteOffset": len(points), "byteLength": len(faces)},
        ],
        "buffers": [{"byteLength": len(points) + len(faces)}],
    }, points + faces)  # fmt: skip


def ply_with_a_long_header() -> bytes:
    comments = b"comment of nothing at all\n" * 400_000
    return b"ply\nformat ascii 1.0\n" + comments + b"element face 900000000\nend_header\n"


def ply_of_other_things() -> bytes:
    return b"ply\nformat ascii 1.0\nelement thing 900000000\nproperty float x\nend_header\n" + b"1\n" * 100_000


def obj_of_one_great_face() -> bytes:
    points = b"".join(b"v %d %d 0\n" % (n, n * n % 977) for n in range(150_000))
    return points + b"f " + b" ".join(b"%d" % (n + 1) for n in range(150_000)) + b"\n"


def picture(kind: str, width: int, height: int) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), (120, 90, 60)).save(out, kind, **({"compress_level": 1} if kind == "PNG" else {}))
    return out.getvalue()


def zipped(content: bytes = b"", method: int = zipfile.ZIP_DEFLATED, name: str = "job.json") -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", method) as bundle:
        bundle.writestr(name, content or json.dumps(job()))
    return out.getvalue()


def broken_in(packed: bytes) -> bytes:
    """With its packed bytes spoilt, and nothing else."""
    at = packed.index(b"job.json") + len("job.json")
    spoilt = bytearray(packed)
    for n in range(at, min(at + 60, len(spoilt) - 120)):
        spoilt[n] ^= 0x5A
    return bytes(spoilt)


def zip_bomb() -> bytes:
    return zipped(b" " * 110_000_000)


def large_job(parts: int, count: int) -> bytes:
    return json.dumps(job(parts=[part(count=count, name=f"bobbin {n}") for n in range(parts)])).encode()


# By the name they are sent under; what they are sent to is told by the ending.
FILES: dict[str, Make] = {
    "60,000 nested turns.svg": nested_turns,
    "a path of 220,000 lines.svg": path_of_220_000_lines,
    "a million elements deep.svg": lambda: b'<svg xmlns="http://www.w3.org/2000/svg">' + b"<g>" * 90_000,
    "24,000 lines.dxf": lambda: dxf(lines=24_000)[:990_000] + b"\n0\nENDSEC\n0\nEOF\n",
    "one line of 70,000 points.dxf": lambda: dxf(points=70_000),
    "odd units.dxf": lambda: dxf(lines=4, unit=99),
    "binary.dxf": binary_dxf,
    "100,000 instances.glb": lambda: tetrahedron(100_000),
    "doubled 40 times.glb": lambda: tetrahedron(40, nested=True),
    "a header that lies.glb": lambda: b"glTF" + b"\xff" * 400,
    "a million rows.csv": lambda: b"name,length,width,height\n" + b"bobbin,1,2,3\n" * 1_000_000,
    "a cell of 9 MB.csv": lambda: b"name,length,width,height\n" + b"9" * 9_000_000,
    "a count of 5,000 digits.csv": lambda: b"name,count,length,width,height\nbobbin," + b"9" * 5000 + b",1,2,3\n",
    "a count of two squared.csv": lambda: "name,count,length,width,height\nbobbin,²,1,2,3\n".encode(),
    "a header without an end.ply": ply_with_a_long_header,
    "900 million things.ply": ply_of_other_things,
    "one face of 150,000 corners.obj": obj_of_one_great_face,
    "59 megapixels.png": lambda: picture("PNG", 9800, 6020),
    "59 megapixels.jpg": lambda: picture("JPEG", 9800, 6020),
    "24 megapixels.png": lambda: picture("PNG", 6000, 3990),
    "a broken stream.zip": lambda: broken_in(zipped()),
    "a broken lzma stream.zip": lambda: broken_in(zipped(method=zipfile.ZIP_LZMA)),
    "a bomb.zip": zip_bomb,
    "200 parts of 999 each.job.json": lambda: large_job(200, 999),
}
