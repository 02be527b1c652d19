"""The job file, format fardo-job/1: what is sent, where to, and what was chosen. Its JSON Schema is in docs.

The whole format is read and kept, also where a part of it is not worked out yet; what it says is read by `understand`.
"""

from __future__ import annotations

import json
from datetime import date
from typing import Annotated, Any, Final, Literal

from pydantic import ConfigDict, Field, ValidationError
from pydantic_core import from_json

from fardo.core.fill.voids import Where
from fardo.core.make import WAYS
from fardo.core.protect.material import Side
from fardo.core.refusal import BadInput
from fardo.files.arrangement import ArrangementEntry
from fardo.files.channel import SaleLabelEntry
from fardo.files.cut_by import CutBy
from fardo.files.family import InsertName, WayName
from fardo.files.gap import GapEntry
from fardo.files.shapes import ShapeEntry, box_shape
from fardo.files.stock import FoundBoxEntry, ReadyBoxEntry
from fardo.files.typed import Count, ExtraEntry, Measure, Strict, TypedDistance, TypedSizes, Weight, complaints

FORMAT: Final = "fardo-job/1"
LARGEST_FILE = 2_000_000
LONGEST_CHECK = 400  # as long as any sentence of a kind


MeasureName = Literal["length", "width", "height", "diameter", "thickness", "diameter_a", "diameter_b"]


class LayerEntry(Strict):
    """A material on a part. What a form does not ask for is left out."""

    material: str = Field(max_length=40)
    layers: Count = 1
    crossed: bool = Field(False, description="wound both ways")
    across: Count | None = Field(None, description="layers the second way; nothing said: as many as the first")
    reused: bool = Field(False, description="it was used before and costs nothing")
    room: Measure | None = Field(None, description="free on each side inside an inner box")
    hollow: TypedSizes | None = Field(None, description="size of the hollow that is stuffed")
    lengths: list[Measure] | None = Field(None, max_length=60, description="of the tubes to cover")
    bubbles: Literal["in", "out"] | None = Field(None, description="where the shop's habit is not followed")
    on: Side = Field("all", description="on one side only")
    each: bool = Field(False, description="on every piece of a pile, before they are piled")
    item: str | None = Field(None, max_length=80, description="name of the box or mailer that is there, which it is")
    open: bool = Field(False, description="a box without its top flaps, that need not shut")


class RulesEntry(Strict):
    this_side_up: bool = False
    keep_flat: bool = False
    no_load_on_top: bool = False
    hard_edges: bool = Field(False, description="they punch through a bag or a mailer")
    bears: Weight | None = Field(None, description="the most that may lie over it; nothing said: by how fragile it is")
    bundle: str = Field("", max_length=60, description="parts of one name are held together")
    cushion_for: str = Field(
        "", max_length=120, description="flat goods that lie in front of and behind that part, as its cushion"
    )
    apart_from: list[str] = Field(default_factory=list, max_length=40, description="parts it must not lie beside")
    not_with: list[str] = Field(default_factory=list, max_length=40, description="parts that go in another parcel")


class PartEntry(Strict):
    name: str = Field("", max_length=120)
    count: Count = 1
    weight: Weight | None = Field(None, description="of one")
    fragility: str | None = Field(None, max_length=40, description="a class, or what it bears: '60 G'")
    shape: ShapeEntry = Field(default_factory=box_shape, validate_default=True)
    protect: list[LayerEntry] = Field(default_factory=list, max_length=20)
    gap: Measure | GapEntry | None = Field(
        None, description="what is kept free around it: one length, or lengths by place"
    )
    rules: RulesEntry = Field(default_factory=RulesEntry)
    proven: str = Field(
        "",
        max_length=200,
        description="how such goods are packed in practice, where that stands over the cushion check",
    )
    piles: Count | None = Field(None, description="flat things of a count, in so many piles")
    sleeve_holds: Count | None = Field(None, description="at most so many in a pile")
    photos: list[str] = Field(default_factory=list, max_length=12, description="files kept with the shop")
    off_by: str | None = Field(None, max_length=40, description="the step that took it off")
    guessed: bool = Field(False, description="its measures are the kind's, not taken of this one yet")


class StepEntry(Strict):
    """A step of taking apart, as it was when the job was begun."""

    id: str = Field(min_length=1, max_length=40)
    do: str = Field(max_length=300)
    tool: str = Field("", max_length=120)
    turn: str = Field("", max_length=200, description="which way a thread turns")
    caution: str = Field("", max_length=400)
    keep: str = Field("", max_length=200, description="what comes loose and where it is kept")
    back: str = Field("", max_length=300, description="how it goes back on, for the receiver")
    saves: dict[MeasureName, Measure] = Field(
        default_factory=dict, description="what it takes off the measures of the thing itself"
    )
    adds: dict[MeasureName, Measure] = Field(
        default_factory=dict, description="what it adds to other measures of it, as of what is folded"
    )
    of: str = Field("", max_length=120, description="the part whose measures change; nothing said: the thing itself")
    frees: list[PartEntry] = Field(default_factory=list, max_length=12)
    chosen: bool = False
    done: bool = False


class InsertEntry(Strict):
    """What goes into the box of board, cut with it. What a kind does not ask for is left out."""

    kind: InsertName
    count: Count = 1
    where: Literal["below", "above", "both"] = Field("below", description="for a pad: under or over the goods")
    along: Count | None = Field(None, description="cells of a divider along the box; nothing: from the goods")
    across: Count | None = Field(None, description="cells of a divider across the box; nothing: from the goods")
    size: TypedSizes | None = Field(None, description="of the thing in a sleeve")
    length: Measure | None = Field(None, description="of a spacer or an edge cap")
    depth: Measure | None = Field(None, description="what a spacer keeps; how wide the legs of an edge cap are")


class Ship(Strict):
    """Where from and to. JSON calls the origin ``from``."""

    model_config = ConfigDict(populate_by_name=True)
    origin: str | None = Field(None, alias="from", max_length=20)
    to: str | None = Field(None, max_length=20)
    residential: bool = False
    signature: bool = Field(False, description="asked for on delivery")
    distance: TypedDistance | None = Field(None, description="by road, for one's own delivery: '40 mi'")
    from_country: str = Field("", max_length=2, description="its code; the shop's own unless given")
    to_country: str = Field("", max_length=2, description="its code; the country it leaves from unless given")


class BesideEntry(Strict):
    """Another parcel of the job, closed and measured already, that goes with what is boxed here."""

    name: str = Field("", max_length=80)
    size: TypedSizes | None = Field(None, description="outside")
    weight: Weight | None = None
    value: str | None = Field(None, max_length=20, description="its part of the declared value")


class ChosenBox(Strict):
    way: str
    school: Literal["exact", "thumb"] = "exact"
    board: str
    inside_mm: tuple[float, float, float]
    item: str | None = Field(None, max_length=200, description="which of several boxes that are there")
    cut_by: CutBy | None = Field(None, description="the allowances it was worked out by; it keeps them")


class ChosenPrice(Strict):
    carrier: str
    service: str
    programme: str
    amount: str
    currency: str
    billed_weight_g: float
    tariff: int | None = Field(
        None, ge=1, le=10**9, description="version of the carrier's tariff it was priced by; it keeps it"
    )


class LabelBought(Strict):
    """A label that a carrier sold over the network."""

    carrier: str = Field(max_length=80)
    service: str = Field(max_length=80)
    programme: str = Field("", max_length=40)
    amount: str = Field(max_length=20)
    currency: str = Field(max_length=3)
    tracking: str = Field(max_length=40, pattern=r"^[A-Z0-9-]+$")


class Chosen(Strict):
    """What was settled on, and for which figures; a figure that changed since makes the knot loose."""

    box: ChosenBox | None = None
    price: ChosenPrice | None = None
    label: LabelBought | None = None


EXAMPLE: dict[str, Any] = {
    "format": FORMAT,
    "title": "Concertina for Ostwick",
    "ship": {"from": "10440", "to": "73120", "residential": True},
    "value": "640.00",
    "parts": [
        {
            "name": "concertina in its case",
            "weight": "4 lb 6 oz",
            "gap": "2 in",
            "shape": {"kind": "box", "length": "9 1/2 in", "width": "9 1/2 in", "height": 203.2},
        }
    ],
    "extras": [{"name": "thank-you card", "size": "6 x 4 1/4 x 1/8 in", "weight": "1 oz"}],
}


class FillWishEntry(Strict):
    """What fills the room that is left; what is not said follows from the goods and the shop."""

    kind: str = Field("", max_length=80, description="name of the kind of fill, the shop's usual one unless given")
    places: dict[Where, Annotated[str, Field(max_length=80)]] = Field(
        default_factory=dict, max_length=7, description="other kinds, by place"
    )
    loose: bool | None = Field(None, description="whether loose fill may be used at all")
    full: Literal["firm", "soft"] | None = Field(None, description="how full it is packed")


class Wishes(Strict):
    """What the job asks of its services."""

    days_at_most: Count | None = Field(None, description="on the way")
    sides_sum_at_most: Measure | None = Field(None, description="length, width and height together, outside")
    parcel_weight_at_most: Weight | None = Field(None, description="of each parcel")


class SaleEntry(Strict):
    """What it sold for, in the shop's currency."""

    price: str = Field("", max_length=20)
    postage: str = Field("", max_length=20, description="that the buyer paid")


class Customs(Strict):
    """For what goes abroad."""

    contents: str = Field("", max_length=300, description="what it is, truthfully")
    reason: Literal["sale", "gift", "return", "repair", "sample"] = "sale"
    made_in: str = Field("", max_length=2, description="code of the country it was made in")
    tariff_code: str = Field("", max_length=20)


class JobFile(Strict):
    """A job. Lengths are millimetres and weights grams where they are numbers, or text with its unit."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})

    format: Literal["fardo-job/1"] = FORMAT
    title: str = Field("", max_length=200)
    day: date | None = Field(None, description="the day it should leave")
    ship: Ship = Field(default_factory=lambda: Ship())
    value: str | None = Field(None, max_length=20, description="declared value, in the shop's currency")
    parts: list[PartEntry] = Field(default_factory=list, max_length=200)
    extras: list[ExtraEntry] = Field(default_factory=list, max_length=40)
    ways: list[WayName] = Field(default_factory=lambda: list(WAYS), max_length=40)
    beside: list[BesideEntry] = Field(default_factory=list, max_length=20, description="parcels that go with it")
    parcels_at_most: int = Field(1, ge=1, le=100)
    board: str | None = Field(None, max_length=20, description="code of the board, the shop's usual one unless given")
    school: Literal["exact", "thumb"] = "exact"
    kind: str | None = Field(None, max_length=40, description="code of the kind of goods it was begun from")
    take_apart: list[StepEntry] = Field(default_factory=list, max_length=60)
    questions: list[str] = Field(default_factory=list, max_length=20, description="hazards that are asked about")
    answers: dict[str, str] = Field(default_factory=dict, max_length=20, description="to the questions, by their code")
    liner: LayerEntry | None = Field(None, description="on all six walls of the box")
    inserts: list[InsertEntry] = Field(default_factory=list, max_length=20, description="of board, cut with the box")
    hand_holes: bool = Field(False, description="in the two ends of a case")
    pressed: Measure | None = Field(
        None, description="by how much smaller each way a box is cut than the wrapped goods, which are pressed in"
    )
    ready_boxes: list[ReadyBoxEntry] = Field(
        default_factory=list, max_length=8, description="that are sold ready for such goods and may be bought"
    )
    found_boxes: list[FoundBoxEntry] = Field(default_factory=list, max_length=20, description="for this job only")
    bundles: dict[Annotated[str, Field(max_length=60)], list[LayerEntry]] = Field(
        default_factory=dict, max_length=20,
        description="what goes around parts that are held together, by the name of their bundle",
    )  # fmt: skip
    fill: FillWishEntry = Field(default_factory=FillWishEntry)
    channel: str | None = Field(None, max_length=80, description="where it was sold, by the shop's name for it")
    label: SaleLabelEntry | None = Field(None, description="that the sale gave; its channel's unless given")
    wishes: Wishes = Field(default_factory=Wishes)
    rules_left_out: list[Annotated[str, Field(max_length=80)]] = Field(
        default_factory=list, max_length=100, description="house rules that this job leaves out, by their names"
    )
    sale: SaleEntry | None = None
    plain_outside: bool = Field(False, description="nothing outside tells what is in it")
    wet_weather: bool = Field(False, description="rain on the way: every edge is taped")
    repacked: bool = Field(False, description="others open it and pack it again: one side is taped lightly")
    pack_minutes: int | None = Field(
        None, ge=0, le=600, description="to place, fill, close and label it; the shop's usual unless given"
    )
    checklist: list[Annotated[str, Field(max_length=LONGEST_CHECK)]] = Field(
        default_factory=list, max_length=40, description="lines of its own to tick before it is closed"
    )
    customs: Customs | None = Field(None, description="for what goes abroad")
    over_box: LayerEntry | None = Field(None, description="around a closed box that goes in a bag or an envelope")
    practice: bool = Field(False, description="begun to practise on: its page says what to do next")
    arrangement: ArrangementEntry | None = Field(None, description="where things lie, as far as it holds for the parts")
    chosen: Chosen = Field(default_factory=Chosen)


def read_job(text: bytes | str) -> JobFile:
    """A job file. Raises BadInput naming the first field that is wrong."""
    if len(text) > LARGEST_FILE:
        raise BadInput(
            "too large", read=f"{len(text)} bytes", allowed=f"at most {LARGEST_FILE} bytes", field="job file"
        )
    try:
        content = from_json(text)
    except ValueError as error:
        start = text[:40].decode("utf-8", "replace") if isinstance(text, bytes) else text[:40]
        raise BadInput(
            f"not JSON ({error})", read=start, allowed=f"a file of format {FORMAT}", field="job file"
        ) from error
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        found = content.get("format", "no format") if isinstance(content, dict) else type(content).__name__
        raise BadInput("another format", read=found, allowed=FORMAT, field="format")
    try:
        return JobFile.model_validate(content)
    except ValidationError as error:
        raise next(complaints(error, JobFile)) from error


def write_job(job: JobFile) -> str:
    """The job as a file, with everything it holds."""
    return json.dumps(plain(job), indent=1, ensure_ascii=False) + "\n"


def plain(job: JobFile) -> dict[str, Any]:
    """The job as JSON values, by the names of the format."""
    return job.model_dump(mode="json", by_alias=True, exclude_none=True)
