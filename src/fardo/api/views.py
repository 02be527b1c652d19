"""What the screens are told: figures with their words in the shop's units, each ready to answer "why"."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from fardo.core.plan.progress import State
from fardo.core.quantity import FINEST, Length, Mass, Money, Units, show_length, show_mass, show_sizes
from fardo.core.why import Value, Why
from fardo.files.job import EXAMPLE, JobFile, PartEntry
from fardo.files.kind import EXAMPLE as KIND_EXAMPLE
from fardo.files.kind import KindFile
from fardo.files.shop import ShopFile, starting_shop


class WhyView(BaseModel):
    """The formula, what was put in, and the rule or source."""

    formula: str
    values: list[tuple[str, str]]
    rule: str


class Figure(BaseModel):
    """A figure in words. `exact` is false where it was rounded for reading; `rounded` says which way."""

    text: str
    exact: bool = True
    rounded: Literal["up", "down", "nearest"] = "up"
    why: WhyView | None = None


class SizesView(BaseModel):
    """Length, width, height: in millimetres, and in words with and without the unit."""

    mm: tuple[float, float, float]
    sides: tuple[str, str, str]
    figure: Figure


class Placement(BaseModel):
    """A thing in the box, as large as it is wrapped; `gap_mm` is kept free around it."""

    name: str
    at_mm: tuple[float, float, float]
    size_mm: tuple[float, float, float]
    gap_mm: float = 0


class Layout(BaseModel):
    """Where things lie in the inside of the box, each as a box of its size."""

    inside_mm: tuple[float, float, float]
    parts: list[Placement]
    extras: list[Placement]


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
    weight: str
    price: str
    minutes: int


class BlankView(BaseModel):
    name: str
    size: str
    flutes: str
    svg: str | None = Field(None, description="the drawing, where it was asked for")


class FenceView(BaseModel):
    fence: str
    blade: str
    do: str
    cuts: int


class ChargeView(BaseModel):
    kind: str
    what: str
    amount: str
    why: str


class CostsView(BaseModel):
    postage: str
    surcharges: str
    cover: str
    box: str
    wrap: str
    fill: str
    tape: str
    labour: str


class QuoteView(BaseModel):
    carrier: str
    service: str
    programme: str
    amount: str
    currency: str
    actual: str
    dimensional: str | None
    billed: str
    billed_weight_g: float
    weight_share: float = Field(description="actual weight as a share of the billed, 0 to 1")
    days: tuple[int, int]
    charges: list[ChargeView]
    own: str = Field(description="what the box costs the shop: board, fill, tape and time")
    total: str = Field(description="all in: the quote and what the box costs")
    costs: CostsView
    chosen: bool = False


class RefusedView(BaseModel):
    carrier: str
    service: str
    why: str


class OtherSchool(BaseModel):
    """The same box by the other school, for comparison."""

    school: Literal["exact", "thumb"]
    blanks: list[BlankView]
    outside: str
    inside: str
    notes: list[str]


class WayView(BaseModel):
    """One way to get the box, worked out to its prices."""

    way: str
    title: str
    school: Literal["exact", "thumb"]
    schools: list[Literal["exact", "thumb"]]
    board: str
    chosen: bool
    too_large: str | None
    needed_mm: tuple[float, float, float]
    inside: SizesView
    outside: SizesView
    weight: Figure
    air_percent: int
    minutes: int
    sheets: list[str]
    notes: list[str]
    blank_why: WhyView
    blanks: list[BlankView]
    fence: list[FenceView]
    total: str | None = Field(description="all in by the cheapest service, None where none takes it")
    quotes: list[QuoteView]
    refused: list[RefusedView]
    other_school: OtherSchool | None


class KnotView(BaseModel):
    name: str
    state: State
    says: str


class Docket(BaseModel):
    """The figures that are always in sight. `basis` says whose they are."""

    basis: str
    outside: SizesView | None = None
    weight: Figure | None = None
    quote: QuoteView | None = None
    air_percent: int | None = None
    total: str | None = None
    total_why: WhyView | None = None
    note: str = Field("", description="why there is no sum")
    currency: str
    missing: list[str]
    stop: list[str] = Field(default_factory=list, description="why it does not ship at all")
    cautions: list[str]


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


class FieldProblem(BaseModel):
    """`sentence` is for under the field's own label; it does not name the field."""

    field: str
    sentence: str


class WorkOut(BaseModel):
    """Everything worked out from a job as it stands."""

    problems: list[FieldProblem]
    missing: list[str]
    beyond: str | None
    inside: SizesView | None
    layout: Layout | None
    parts: list[PartView]
    wrap: WrapList
    ways: list[WayView]
    docket: Docket
    knots: list[KnotView]
    next_move: str
    cutting_cautions: list[str]
    hazards: list[HazardView]
    measured: dict[str, str] = Field(description="what each typed measure was read as, by field")


class WorkOutRequest(BaseModel):
    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "in_hand": "tray"}]})
    job: JobFile
    in_hand: str | None = Field(None, description="the way looked at: its blanks are drawn, the docket shows it")


class JobView(BaseModel):
    id: str
    revision: int
    saved_at: str
    put_away: bool
    job: JobFile


class JobChange(BaseModel):
    """A job as it should be, and the revision it was changed from."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 1, "job": EXAMPLE}]})

    revision: int = Field(ge=0)
    job: JobFile


class JobRow(BaseModel):
    """A job on the bench: a short piece of twine."""

    id: str
    revision: int
    title: str
    day: str | None
    destination: str
    saved_at: str
    next_move: str
    knots: list[KnotView]


class JobPage(BaseModel):
    jobs: list[JobRow]
    cursor: str | None


class ShopView(BaseModel):
    revision: int
    shop: ShopFile
    carriers: list[str]


class ShopChange(BaseModel):
    """The shop as it should be, and the revision it was changed from."""

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"revision": 0, "shop": starting_shop().model_dump(mode="json")}]}
    )
    revision: int = Field(ge=0)
    shop: ShopFile


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

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 0, "kind": KIND_EXAMPLE}]})
    revision: int = Field(ge=0)
    kind: KindFile


class LineAnswer(BaseModel):
    """What the bench line made of its text: a price, or the jobs and the kinds of goods it finds."""

    kind: Literal["price", "jobs"]
    read_as: str | None = None
    quotes: list[QuoteView] = []
    refused: list[RefusedView] = []
    jobs: list[JobRow] = []
    kinds: list[KindRow] = Field(default=[], description="kinds of goods that a job can be begun from")


def view_sizes(
    sizes: tuple[Length, Length, Length], units: Units, why: Why | None = None, rounding: Literal["up", "down"] = "up"
) -> SizesView:
    """Sizes in words: `up` for what is needed or measured outside, `down` for the room a box really has."""
    shown = show_sizes(sizes, units, rounding)
    a, b, c = (show_length(side, units, rounding).text.removesuffix(f" {units}") for side in sizes)
    figure = Figure(text=shown.text, exact=shown.exact, rounded=rounding, why=view_why(why, units) if why else None)
    return SizesView(mm=(sizes[0].mm, sizes[1].mm, sizes[2].mm), sides=(a, b, c), figure=figure)


def view_why(why: Why, units: Units) -> WhyView:
    return WhyView(formula=why.formula, values=[(name, say(value, units)) for name, value in why.values], rule=why.rule)


def say(value: Value, units: Units) -> str:
    """A value in words; lengths to a sixty-fourth or a tenth of a millimetre, so that the sum can be checked."""
    if isinstance(value, Length):
        return show_length(value, units, "nearest", FINEST[units]).text
    if isinstance(value, Mass):
        return show_mass(value, units, "up").text
    if isinstance(value, tuple):
        return show_sizes(value, units, "nearest", FINEST[units]).text
    return f"{value} {value.currency}" if isinstance(value, Money) else value
