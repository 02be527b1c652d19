"""Real meshes: a bicycle of four files of some 4,000 triangles each, against the boxes around them."""

from __future__ import annotations

import json
import math
import time
from dataclasses import replace

import numpy as np

from benchmarks.kits import Part, _bars, _ring, _rod, _several
from benchmarks.table import show
from fardo.arranging import Effort, Workers
from fardo.core.arrange.ask import Ask
from fardo.core.arrange.body import Body
from fardo.core.goods.gap import Gap
from fardo.core.goods.shape import Scanned, scanned
from fardo.core.goods.shape.mesh import Mesh
from fardo.core.goods.shape.solids import mesh_of
from fardo.core.plan.load import bodies_of
from fardo.core.quantity import INCH, Length, Mass
from fardo.files.job import JobFile
from fardo.files.shop import starting_shop
from fardo.files.understood import understand

_TRIANGLES = 4_000
_CIRCLE = [(12.0 + 11.5 * math.cos(a), 12.0 + 11.5 * math.sin(a), 1.0) for a in np.linspace(0, 2 * math.pi, 33)]
_WHEEL = _several(
    (_ring(26, 23, 1.75), (0, 0, 1.0)),
    (_rod(2.0, 4.0), (12, 12, 0)),
    *((_bars(0.2, [(13.0, 13.0, 1.9), (13 + 11.7 * math.cos(a), 13 + 11.7 * math.sin(a), 1.9)]), (0, 0, 0))
      for a in np.linspace(0, 2 * math.pi, 13)[:-1]),
)  # fmt: skip
PARTS: dict[str, Part] = {
    "frame": _bars(1.5, [(0, 0, 0), (21, 0, 2), (22, 0, 22), (2, 0, 20), (0, 0, 0)],
                   [(21, 0, 2), (38, 0, 0), (22, 0, 22)]),
    "front wheel": _WHEEL,
    "back wheel": _WHEEL,
    "handlebar": _bars(1.25, [(0, 0, 0), (0, 5, 0), (16, 5, 0), (16, 0, 0)], [(0, 0, 0), (0, 0, 5)],
                       [(16, 0, 0), (16, 0, 5)]),
}  # fmt: skip


def meshed(name: str, shape: Part) -> Scanned:
    """Such a shape as a file would bring it, its triangles parted until there are enough."""
    job = JobFile.model_validate({"parts": [{"name": name, "weight": "5 lb", "shape": json.loads(json.dumps(shape))}]})
    read = understand(job, starting_shop().to_core())
    (body,) = bodies_of(read.must_load())
    solid = body.shape.solid()
    while solid.num_tri() < _TRIANGLES:
        solid = solid.refine(2)
    if solid.num_tri() > 2 * _TRIANGLES:
        solid = solid.simplify(0.02)
    mesh = mesh_of(solid)
    return scanned(f"{name}.stl", Mesh(mesh.vertices, mesh.faces), Length.of_mm(1))


def bicycle() -> Ask:
    gap = Gap.even(INCH.half())
    bodies = tuple(Body(name, meshed(name, shape), gap, weight=Mass.of_grams(2000)) for name, shape in PARTS.items())
    return Ask(bodies)


def run() -> None:
    ask = bicycle()
    triangles = ", ".join(str(len(body.shape.closed.faces)) for body in ask.bodies)  # type: ignore[attr-defined]
    blocks = replace(ask, bodies=tuple(replace(body, held="block") for body in ask.bodies))
    workers = Workers()
    rows = []
    efforts: tuple[Effort, ...] = ("quick", "normal")
    for effort in efforts:
        boxed = workers.arrange(blocks, effort)[0]
        started = time.perf_counter()
        shaped = workers.arrange(ask, effort)[0]
        took = time.perf_counter() - started
        less = 1 - shaped.room_nm3 / boxed.room_nm3
        rows.append((effort, f"{less:.0%}", f"{took:.1f} s"))
    workers.close()
    show(
        f"A bicycle of four meshes ({triangles} triangles)", ("effort", "less room than boxes", "took, aim 12 s"), rows
    )


if __name__ == "__main__":
    run()
