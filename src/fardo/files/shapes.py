"""Shapes in files: a measured one by its measures, which may be missing while it is measured; the rest by their points.

The measured kinds follow from what each shape asks for.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag, create_model

from fardo.core.goods.shape import (
    MEASURED,
    SHAPES,
    Asked,
    Compound,
    Outline,
    Piece,
    Scanned,
    Shape,
    bars,
    compound,
    outline,
)  # fmt: skip
from fardo.core.quantity import Length, Units
from fardo.core.refusal import BadInput
from fardo.files.typed import Measure, Strict, to_length

_DEEPEST = 4
MOST_IN_ALL = 120  # shapes in one part, however they are put together

MeshFinder = Callable[[str, Length], Scanned]
Spot3 = Annotated[list[Measure], Field(min_length=3, max_length=3)]
Spot2 = Annotated[list[Measure], Field(min_length=2, max_length=2)]


class MeasuredShape(Strict):
    """A shape known by its measures alone."""

    kind: str

    def measures(self) -> dict[str, Measure | None]:
        """What was typed for each measure, in the order of measuring."""
        return {asked.name: getattr(self, asked.name) for asked in MEASURED[self.kind].ASKED}


def _model_of(kind: str) -> type[MeasuredShape]:
    """The model of a measured kind, from what the shape asks for."""
    literal: Any = Literal[kind]
    fields: dict[str, Any] = {asked.name: (Measure | None, None) for asked in MEASURED[kind].ASKED}
    name = f"{kind.capitalize()}Shape"
    return create_model(name, __base__=MeasuredShape, __doc__=MEASURED[kind].TITLE, kind=(literal, kind), **fields)


MODELS: dict[str, type[MeasuredShape]] = {kind: _model_of(kind) for kind in MEASURED}
# By its name in this module a model goes from one process to another.
globals().update({model.__name__: model for model in MODELS.values()})


class BarsShape(Strict):
    """Round bars of one diameter; each member is its two ends, along the middle.

    An end is flat, or round where it meets another.
    """

    kind: Literal["bars"]
    diameter: Measure | None = None
    members: list[Annotated[list[Spot3], Field(min_length=2, max_length=2)]] = Field(max_length=200)


class OutlineShape(Strict):
    """A flat thing by its corners in order."""

    kind: Literal["outline"]
    points: list[Spot2] = Field(max_length=1000)
    thickness: Measure | None = None
    holes: list[list[Spot2]] = Field(default_factory=list, max_length=50)


class MeshShape(Strict):
    """A mesh file kept with the shop, or beside the job file. `unit` is how long one step of it is."""

    kind: Literal["mesh"]
    file: str = Field(max_length=200)
    unit: Measure | None = Field(None, description="'1 in', '1 mm'")


class CompoundShape(Strict):
    """Several shapes fixed together, each in its place."""

    kind: Literal["compound"]
    of: list[PieceEntry] = Field(max_length=200)


class PieceEntry(Strict):
    """A point p of the shape is at turn x p + at."""

    shape: ShapeEntry
    at: Spot3 = Field(default_factory=lambda: list[str | float]((0.0, 0.0, 0.0)))
    turn: list[list[float]] | None = None


def _tag(value: Any) -> str:
    kind = value.get("kind", "box") if isinstance(value, dict) else getattr(value, "kind", "box")
    return kind if isinstance(kind, str) else ""


# The kinds that are measured come from the register, so their union is built and not written down.
_BY_POINTS: dict[str, type[Strict]] = {
    "bars": BarsShape, "outline": OutlineShape, "compound": CompoundShape, "mesh": MeshShape,
}  # fmt: skip
_UNION: Any = None
for _kind, _model in (*MODELS.items(), *_BY_POINTS.items()):
    _tagged: Any = Annotated[_model, Tag(_kind)]
    _UNION = _tagged if _UNION is None else _UNION | _tagged
ShapeEntry = Annotated[_UNION, Discriminator(_tag)]

CompoundShape.model_rebuild()
PieceEntry.model_rebuild()


# What is typed of each kind in a row of its own; points, pieces and files come beside it.
ASKED: dict[str, tuple[Asked, ...]] = {
    **{kind: shape.ASKED for kind, shape in SHAPES.items()},
    "bars": (Asked("diameter", "Diameter of the bars"),),
    "outline": (Asked("thickness", "Thickness"),),
    "mesh": (Asked("unit", "One step is"),),
}


def box_shape(**sides: Measure | None) -> MeasuredShape:
    """A box-shaped entry."""
    return MODELS["box"](kind="box", **sides)


class ShapeReader:
    """Reads shapes; every measure it meets goes through `measure`, which keeps what is missing and wrong apart.

    Args:
        measure: (name of the measure, what was typed, its path) -> a length, or None.
        attempt: runs a reading and keeps its refusal under a path.
        find_mesh: (file, unit) -> the shape of a mesh file. Raises BadInput.
    """

    def __init__(
        self,
        units: Units,
        measure: Callable[[str, Any, str], Length | None],
        attempt: Callable[..., Any],
        find_mesh: MeshFinder,
    ) -> None:
        self._units, self._measure, self._attempt, self._find_mesh = units, measure, attempt, find_mesh
        self._pieces = 0

    def read(self, entry: Any, path: str, depth: int = 0) -> Shape | None:
        """The shape, or None where something of it is missing or wrong."""
        if depth > _DEEPEST:
            return self._attempt(_refuse_depth, under=path)  # type: ignore[no-any-return]
        if isinstance(entry, MeasuredShape):
            asked = MEASURED[entry.kind].ASKED
            lengths = [self._measure(a.label.lower(), getattr(entry, a.name), f"{path}.{a.name}") for a in asked]
            if None in lengths:
                return None
            shape: Shape | None = self._attempt(MEASURED[entry.kind], *lengths, under=path)
            return shape
        read: dict[str, Callable[[Any, str], Shape | None]] = {
            "bars": self._bars, "outline": self._outline, "mesh": self._mesh,
        }  # fmt: skip
        if isinstance(entry, CompoundShape):
            return self._compound(entry, path, depth)
        return read[entry.kind](entry, path)

    def _spot(self, values: list[Measure], path: str) -> Any:
        """Two or three coordinates; unlike a measure one may be nothing, or lie on the other side of the start."""
        return self._attempt(
            lambda: tuple(_coordinate(value, self._units, f"{path}[{n}]") for n, value in enumerate(values))
        )

    def _bars(self, entry: BarsShape, path: str) -> Shape | None:
        diameter = self._measure("diameter of the bars", entry.diameter, f"{path}.diameter")
        members = [
            tuple(self._spot(end, f"{path}.members[{n}][{m}]") for m, end in enumerate(member))
            for n, member in enumerate(entry.members)
        ]
        if diameter is None or any(None in member for member in members):
            return None
        made: Shape | None = self._attempt(bars, diameter, members, under=path)
        return made

    def _outline(self, entry: OutlineShape, path: str) -> Shape | None:
        thickness = self._measure("thickness", entry.thickness, f"{path}.thickness")
        points = [self._spot(point, f"{path}.points[{n}]") for n, point in enumerate(entry.points)]
        holes = [
            [self._spot(point, f"{path}.holes[{h}][{n}]") for n, point in enumerate(hole)]
            for h, hole in enumerate(entry.holes)
        ]
        if thickness is None or None in points or any(None in hole for hole in holes):
            return None
        made: Outline | None = self._attempt(outline, points, thickness, holes, under=path)
        return made

    def _compound(self, entry: CompoundShape, path: str, depth: int) -> Shape | None:
        self._pieces += len(entry.of)
        if self._pieces > MOST_IN_ALL:
            return self._attempt(_refuse_many, self._pieces, under=f"{path}.of")  # type: ignore[no-any-return]
        pieces: list[Piece | None] = []
        for n, piece in enumerate(entry.of):
            under = f"{path}.of[{n}]"
            shape, at = self.read(piece.shape, f"{under}.shape", depth + 1), self._spot(piece.at, f"{under}.at")
            turn = self._attempt(_turn, piece.turn, under=under)
            pieces.append(Piece(shape, at, turn) if shape and at and turn else None)
        if None in pieces:
            return None
        made: Compound | None = self._attempt(compound, pieces, under=path)
        return made

    def _mesh(self, entry: MeshShape, path: str) -> Shape | None:
        unit = self._measure("unit of the mesh", entry.unit, f"{path}.unit")
        if unit is None:
            return None
        found: Shape | None = self._attempt(self._find_mesh, entry.file, unit, under=path)
        return found


def _refuse_many(pieces: int) -> None:
    raise BadInput(
        "too many shapes within each other", read=f"{pieces} shapes", allowed=f"at most {MOST_IN_ALL} in a part"
    )


def _refuse_depth() -> None:
    raise BadInput("shapes within shapes within shapes", read="more than that", allowed=f"{_DEEPEST} within each other")


def _coordinate(value: Measure, units: Units, path: str) -> Length:
    if isinstance(value, str) and value.strip().startswith("-"):
        return -to_length(value.strip()[1:], units, path, zero=True)
    if not isinstance(value, str) and value < 0:
        return -to_length(-value, units, path, zero=True)
    return to_length(value, units, path, zero=True)


def _turn(rows: list[list[float]] | None) -> tuple[tuple[float, ...], ...]:
    if rows is None:
        return ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
    if len(rows) != 3 or any(len(row) != 3 for row in rows):
        raise BadInput("not a turn", read=str(rows), allowed="three rows of three figures", field="turn")
    return tuple(tuple(row) for row in rows)
