"""What the screens are told of the goods: parts and their wrap, hazards, files taken in, shapes to look at, kinds."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.figure_views import Figure, SizesView, WhyView
from fardo.files.job import PartEntry
from fardo.files.kind import EXAMPLE, KindFile


class CoatView(BaseModel):
    """A layer on a part: what is cut for one of them, and what it adds."""

    material: str
    name: str
    grows: str = Field(description="what it adds, in words; empty where it adds nothing outside")
    cuts: list[str]
    amount: str
    weight: str
    price: str
    says: list[str]
    why: WhyView | None


class CushionView(BaseModel):
    enough: bool
    asks: str
    has: str
    says: str
    why: WhyView


class PartView(BaseModel):
    """A part as it was understood; what is None waits for a measure."""

    name: str
    bare: SizesView | None = None
    volume: str | None = None
    wrapped: Figure | None = None
    weight: str | None = Field(None, description="of one, or one pile, with its wrap")
    piles: list[int] = Field(default_factory=list, description="how many in each pile, where it is piled")
    gap: str | None = None
    coats: list[CoatView] = []
    says: list[str] = []
    cushion: CushionView | None = None
    guards: bool = False
    inner_boxes: bool = Field(False, description="whether a box of its own is cut for it")


class CutView(BaseModel):
    """One size to cut: for what, and how many in all."""

    material: str
    pieces: str
    size: str
    what: str


class MaterialTotal(BaseModel):
    name: str
    amount: str
    weight: str
    price: str


class WrapList(BaseModel):
    """Everything to cut and to use for wrapping, for the whole job."""

    cuts: list[CutView]
    totals: list[MaterialTotal]
    fill: list[str] = Field(default_factory=list, description="what is fetched to fill the selected box")
    weight: str
    price: str
    minutes: int


class AnswerView(BaseModel):
    code: str
    says: str


class HazardView(BaseModel):
    """A question about what can hurt someone or is not taken, and what the given answer cautions."""

    code: str
    asks: str
    answers: list[AnswerView]
    given: str | None
    caution: str
    never: bool


class TakenIn(BaseModel):
    """What became of a file that was sent in: one of photo, mesh and parts, or a problem."""

    called: str
    problem: str | None = None
    photo: str | None = Field(None, description="the name it is kept under")
    mesh: str | None = Field(None, description="the name it is kept under")
    steps: tuple[float, float, float] | None = Field(
        None, description="its sizes in its own steps; a unit is to be said"
    )
    triangles: int | None = None
    parts: list[PartEntry] | None = None


class ShapeView(BaseModel):
    """A shape to look at: its surface, and where its measures are taken. Lengths in millimetres."""

    sizes_mm: tuple[float, float, float]
    vertices_mm: list[float] = Field(description="three a corner")
    faces: list[int] = Field(description="three corners a face")
    lines: list[LineView]


class LineView(BaseModel):
    """A dimension line; `text` is the measure in words."""

    name: str
    text: str
    start_mm: tuple[float, float, float]
    end_mm: tuple[float, float, float]


class AskedView(BaseModel):
    name: str
    label: str


class ShapeKind(BaseModel):
    """A shape that a part can have, and what is typed of it in the order of measuring."""

    kind: str
    title: str
    asked: list[AskedView]


class Choice(BaseModel):
    value: str
    says: str


class KindRow(BaseModel):
    """A kind of goods in a list. `own` is the shop's; it takes the place of a shipped one of its code."""

    code: str
    title: str
    words: str
    about: str
    own: bool
    revision: int


class KindView(BaseModel):
    revision: int
    kind: KindFile


class KindChange(BaseModel):
    """The kind as it should be, and the revision it was changed from; 0 for a new one of the shop's own."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 0, "kind": EXAMPLE}]})
    revision: int = Field(ge=0, le=10**9)
    kind: KindFile
