"""What the screens are told: figures with their words in the shop's units, each ready to answer "why"."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.figure_views import Figure, SizesView, WhyView
from fardo.api.goods import Choice, HazardView, KindRow, PartView, ShapeKind, WrapList
from fardo.core.arrange.turn import Rotation
from fardo.core.fill.voids import Where
from fardo.core.make.inserts import wanted as insert
from fardo.core.plan.progress import KnotState
from fardo.core.protect.forms.asks import Ask, OfStock
from fardo.files.cut_by import CutBy
from fardo.files.family import InsertName, QuestionName
from fardo.files.job import EXAMPLE, JobFile
from fardo.files.page import Paper
from fardo.files.shop import ShopFile, starting_shop

MOST = 10**9  # of what is counted up by one


class Placement(BaseModel):
    """A thing in the box: the box around it as it is wrapped and turned, with what is kept free to the walls; and where
    it lies itself, a bare point p of it at turn x p + origin.
    """

    thing: int = Field(description="its number among all there are, extras after parts")
    name: str
    at_mm: tuple[float, float, float]
    size_mm: tuple[float, float, float]
    gap_before_mm: tuple[float, float, float]
    gap_beyond_mm: tuple[float, float, float]
    origin_mm: tuple[float, float, float]
    turn: Rotation
    goes_in: int = Field(description="when it goes in, from above")
    locked: bool = False


class Layout(BaseModel):
    """Where things lie in the inside of the box, each as a box of its size."""

    inside_mm: tuple[float, float, float]
    parts: list[Placement]
    extras: list[Placement]


class KeyView(BaseModel):
    """What a kind of line in a drawing means. `dash`: lengths of its dashes, empty where it is drawn through."""

    means: str
    dash: list[float]
    width: float


class BlankView(BaseModel):
    name: str
    size: str
    flutes: str
    count: int = Field(1, description="how many of it are cut")
    svg: str | None = Field(None, description="the drawing, where it was asked for")
    key: list[KeyView] = Field(default_factory=list, description="of its drawing")
    folds: bool = Field(True, description="whether it folds up from flat")


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
    parcel: int = Field(0, description="the number of the parcel it is for; 0 for all, or where there is one")


class KeptView(BaseModel):
    """A choice that keeps the tariff it was priced by, and what today's asks."""

    version: int
    amount_today: str | None = Field(description="nothing where today's tariff no longer takes it")


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
    rounding_share: float = Field(description="what the step adds to the weight, as a share of the billed")
    size_share: float = Field(description="what is billed for size alone, as a share of the billed")
    days: tuple[int, int]
    charges: list[ChargeView]
    own: str = Field(description="what the box costs the shop: board, fill, tape and time")
    total: str = Field(description="the carrier total and the packing cost")
    costs: CostsView
    chosen: bool = False
    tariff: int | None = Field(None, description="version of the carrier's tariff it is by")
    kept: KeptView | None = None
    packs: bool = Field(False, description="it packs too, so that the box costs the shop nothing")
    uncovered: str = Field("", description="of the declared value, what nothing covers")
    placeholder: bool = Field(False, description="its prices are invented, until the shop enters the carrier's own")
    tracked: bool | None = Field(None, description="whether it is tracked, where the tariff says")
    form: Literal["letter", "flat", "parcel"] = "parcel"
    more: str = Field("", description="by how much its total is above that of the first, and which that is")
    note: str = ""
    beside: list[str] = Field(default=[], description="billed weights of the parcels that go with it")


class RefusedView(BaseModel):
    carrier: str
    service: str
    programme: str
    why: str


class OtherSchool(BaseModel):
    """The same box by the other school, for comparison."""

    school: Literal["exact", "thumb"]
    blanks: list[BlankView]
    outside: str
    inside: str
    notes: list[str]


class StepView(BaseModel):
    """A step at the bench. `knife` where a blade is in hand."""

    do: str
    knife: bool


class NoWayView(BaseModel):
    """A way it cannot be boxed, and why."""

    way: str
    title: str
    why: str


class AtHand(BaseModel):
    """One of several boxes that are there and take the goods."""

    item: str
    inside: str
    total: str | None = Field(description="by the first service, None where none takes it")
    more: str = Field("", description="by how much its total is above that of the cheapest, and which that is")
    own: str = Field(description="what the box itself costs")
    service: str = Field(description="by which it is cheapest; empty where none takes it")
    outside: str
    weight: str
    air_percent: int
    minutes: int
    takes: str = Field(description="how many of how many there are")
    room: str = Field(description="from the wrapped goods to the six sides of the box; empty for a mailer")
    picked: bool
    chosen: bool


class FillPlaceView(BaseModel):
    """A place that is filled."""

    where: Where
    title: str
    depth: str
    litres: str
    kind: str = Field(description="of fill")
    fetch: str = Field(description="how much of it, in things one can fetch")


class FillingView(BaseModel):
    """What fills the room that is left in a box, in the order in which it is filled."""

    places: list[FillPlaceView]
    in_all: list[str] = Field(description="what is fetched for all of it")
    full: Literal["firm", "soft"]
    says: str = Field(description="how full it is packed, and why something else goes in than was asked for")


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
    wall_mm: float = Field(description="how thick its walls are")
    weight: Figure
    air_percent: int
    minutes: int
    sheets: list[str]
    inserts: list[str] = Field(description="what there is to say of the inserts")
    notes: list[str]
    item: str = Field(description="which of several boxes there, empty where it is cut from sheet")
    at_hand: list[AtHand] = Field(description="of the way in hand: each box there for the goods, cheapest first")
    made_over: str = Field(description="name of the box it is re-cut from, empty where it is not")
    from_stock: str = Field(description="which box that is there it is made from, empty where it is cut from sheet")
    steps: list[StepView]
    filling: FillingView | None = Field(None, description="of the way in hand")
    warnings: list[str] = Field(description="what speaks against its strength")
    suggested: str | None = Field(description="code of the lightest board certified for it, where this one is not")
    own: str = Field(description="what the box itself costs: board or bought, tape, and the time to make it")
    compared: str = Field(description="against the totals of the other ways, and against the box that is bought")
    strength: str
    blank_why: WhyView
    blanks: list[BlankView]
    full_size_pages: dict[Paper, int] = Field(
        description="by paper, how many pages its blanks take at full size; none where more than are printed"
    )
    standing: str | None = Field(description="it from the side as a drawing, where it was asked for and there is one")
    fence: list[FenceView]
    total: str | None = Field(description="by the first service, None where none takes it")
    more: str = Field("", description="by how much its total is above that of the cheapest, and which that is")
    quotes: list[QuoteView] = Field(description="lowest total first; of ways not in hand only the first")
    refused: list[RefusedView]
    others: list[QuoteView] = Field(description="what else people weigh up, of the way in hand")
    others_refused: list[RefusedView]
    other_school: OtherSchool | None
    cut_by: CutBy | None = Field(description="the allowances of today, to keep with the job when this box is chosen")
    cut_by_others: bool = Field(description="whether it was chosen by others than today's, which it keeps")


class KnotView(BaseModel):
    name: str
    state: KnotState
    says: str


class SaleView(BaseModel):
    """What a sale leaves after fees and sending."""

    left: str
    fees: str
    postage_to_ask: str = Field(description="that pays for sending it once the channel has kept its share")
    fees_known: bool


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
    way_on: Literal["", "tariffs"] = Field("", description="the room where that is put right")
    trim: str = Field("", description="the small trim that would save most, in words")
    trim_may_be_tried: bool = Field(False, description="whether things may lie otherwise for it")
    sale: SaleView | None = Field(None, description="where it is said what it sold for")
    currency: str
    missing: list[str]
    stop: list[str] = Field(default_factory=list, description="why it does not ship at all")
    cautions: list[str]


class FieldProblem(BaseModel):
    """`sentence` is for under the field's own label; it does not name the field."""

    field: str
    sentence: str


class NotHereView(BaseModel):
    """A box that is sold ready for such goods, and is not here."""

    name: str
    inside: str
    says: str


class HouseRuleView(BaseModel):
    """A house rule that holds for a job."""

    name: str
    does: str = Field(description="what follows from it")
    left_out: bool = Field(description="whether the job leaves it out")


class WorkOut(BaseModel):
    """Everything worked out from a job as it stands."""

    problems: list[FieldProblem]
    missing: list[str]
    beyond: str | None
    several: str = Field(description="why it does not go in one parcel; empty where it does")
    parcels_least: int = Field(description="parcels it takes at least")
    inside: SizesView | None
    layout: Layout | None
    parts: list[PartView]
    wrap: WrapList
    ways: list[WayView]
    no_ways: list[NoWayView]
    not_here: list[NotHereView] = Field(description="boxes and cases that are sold ready for such goods")
    ways_left_out: int = Field(description="how many ways there are that this job does not look at")
    docket: Docket
    rules: list[HouseRuleView] = Field(description="of the house, that hold for it")
    knots: list[KnotView]
    next_move: str
    cutting_cautions: list[str]
    hazards: list[HazardView]
    last_in: list[str] = Field(description="extras that are folded or lie on top, and size no box")
    measured: dict[str, str] = Field(description="what each typed measure was read as, by field")


class WorkOutRequest(BaseModel):
    model_config = ConfigDict(json_schema_extra={"examples": [{"job": EXAMPLE, "in_hand": "tray"}]})
    job: JobFile
    in_hand: str | None = Field(
        None, max_length=240,
        description="the way looked at, 'shelf/18 x 14 x 12' for one of several boxes there, nothing for the cheapest; "
        "its blanks are drawn, the docket shows it",
    )  # fmt: skip
    id: str | None = Field(None, max_length=40, description="of the saved job, whose box may be off the stock already")


class LabelView(BaseModel):
    """A label bought over the network, or meant to be. Its carrier is asked until it says whether it sold."""

    state: Literal["asking", "sold", "unsold", "voiding", "void"]
    carrier: str
    service: str
    programme: str
    amount: str = Field(description="what it was sold for; before that the price agreed to")
    currency: str
    tracking: str | None
    says: str = Field(description="what there is to say of it, in sentences; empty where all is well")


class JobView(BaseModel):
    id: str
    revision: int
    saved_at: str
    archived: bool
    job: JobFile
    change: str = Field("", description="what the page called the change that made this revision")
    label: LabelView | None = Field(None, description="the live one, or the last there was")


class JobChange(BaseModel):
    """A job as it should be, and the revision it was changed from."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 1, "job": EXAMPLE}]})

    revision: int = Field(ge=0, le=MOST)
    job: JobFile
    change: str = Field(
        "", max_length=40, pattern=r"^[A-Za-z0-9-]*$",
        description="what the page calls this change; sent twice, it is made once",
    )  # fmt: skip


class JobRow(BaseModel):
    """A job on the bench: a short piece of twine. One that is `stale` is being calculated: what it shows is of before a
    change, or not there yet.
    """

    id: str
    revision: int
    title: str
    day: str | None
    destination: str
    saved_at: str
    next_move: str
    left: str = Field("", description="what the sale leaves after fees, box and postage, with its currency")
    knots: list[KnotView]
    archived: bool = False
    stale: bool = False
    unreadable: str = Field("", description="why the job cannot be read; its text can be saved")


class JobPage(BaseModel):
    jobs: list[JobRow]
    cursor: str | None
    renewing: bool = Field(False, description="whether rows are being calculated; they are there a moment later")


class WayChoice(BaseModel):
    """A way to get a box, and the minutes it takes to begin with."""

    way: str
    title: str
    minutes: int
    cut: bool = Field(description="whether it is cut from sheet")


class FormChoice(BaseModel):
    """A way to put a material on."""

    form: str
    title: str
    asks: list[Ask] = Field(description="what it asks of a layer")
    laps: bool = Field(description="whether a length of it meets itself and laps")
    on_walls: bool = Field(description="whether it goes on the walls of the box, and no part wears it")
    around_several: bool = Field(description="whether it may go around what is held together")
    around_a_box: bool = Field(description="whether it may go around a closed box")
    of_stock: OfStock = Field(description="what there is that a layer of it may be")


class AsksView(BaseModel):
    """A field of an insert, and what stands beside it."""

    field: insert.Field
    label: str


class InsertChoice(BaseModel):
    """A kind of insert, and how many there are of it to begin with."""

    kind: InsertName
    title: str
    count: int
    asks: list[AsksView]


class AllowanceChoice(BaseModel):
    """An allowance, and what it is until the shop has measured its own."""

    name: str
    title: str
    starts: str


class QuestionChoice(BaseModel):
    """A question about a hazard."""

    value: QuestionName
    says: str


class ShopView(BaseModel):
    revision: int
    shop: ShopFile
    carriers: list[str]
    shapes: list[ShapeKind]
    fragilities: list[Choice]
    ways: list[WayChoice] = Field(description="every way to get a box")
    forms: list[FormChoice]
    inserts: list[InsertChoice]
    allowances: list[AllowanceChoice]
    tags: list[Choice] = Field(description="hazards that a service may refuse")
    questions: list[QuestionChoice]
    sides: list[Choice] = Field(description="where a layer may go")
    wear: list[Choice] = Field(description="what is asked of a used box")
    made_up: Literal["", "offered", "tried"] = Field(description="whether the made-up shop may be tried, or this is it")


class ShopChange(BaseModel):
    """The shop as it should be, and the revision it was changed from."""

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"revision": 0, "shop": starting_shop().model_dump(mode="json")}]}
    )
    revision: int = Field(ge=0, le=MOST)
    shop: ShopFile


class LineAnswer(BaseModel):
    """What the bench line made of its text: a price, or the jobs and the kinds of goods it finds."""

    kind: Literal["price", "jobs"]
    read_as: str | None = None
    quotes: list[QuoteView] = []
    refused: list[RefusedView] = []
    jobs: list[JobRow] = []
    kinds: list[KindRow] = Field(default=[], description="kinds of goods that a job can be begun from")
