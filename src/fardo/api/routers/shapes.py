"""A shape to look at while it is measured."""

from __future__ import annotations

from functools import lru_cache

from pydantic import BaseModel, ConfigDict

from fardo.api import goods
from fardo.api.context import Context
from fardo.api.resource import resource
from fardo.core.goods.shape import Shape
from fardo.core.quantity import Units, show_length
from fardo.files.job import EXAMPLE, JobFile, PartEntry

router = resource("/api", "shapes")


class ShapeAsked(BaseModel):
    """A part as it is typed."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"part": EXAMPLE["parts"][0]}]})
    part: PartEntry


@router.post("/shape")
def look_at_shape(asked: ShapeAsked, context: Context) -> goods.ShapeView:
    """The bare shape of a part; 422 while a measure of it is missing or cannot be read."""
    today = context.today
    # Only its measures count here: whatever else is missing or wrong is told elsewhere.
    part = PartEntry(shape=asked.part.shape, weight="1 lb")
    job = today.understand(JobFile(parts=[part]))
    units = job.parts[0].units or job.must_load().units
    return look_at(units[0].shape, today.shop.units)


@lru_cache(maxsize=64)
def look_at(shape: Shape, units: Units) -> goods.ShapeView:
    """A shape with the words of its dimension lines."""
    from fardo.core.goods.shape.solids import coarse, mesh_of

    mesh = mesh_of(coarse(shape.solid()))
    length, width, height = (side.mm for side in shape.sizes)
    return goods.ShapeView(
        sizes_mm=(length, width, height),
        vertices_mm=[round(float(v), 3) for v in mesh.vertices.ravel()],
        faces=[int(corner) for corner in mesh.faces.ravel()],
        lines=[
            goods.LineView(
                name=line.name,
                text=show_length(line.length, units, "nearest").text,
                start_mm=line.start,
                end_mm=line.end,
            )
            for line in shape.lines()
        ],
    )
