"""The job file, format fardo-job/1: what is sent, where to, and what was chosen. Its JSON Schema is in docs.

The whole format is read and kept, also where a part of it is not worked out yet; `understand` says so in a sentence
rather than leaving out what it does not know.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from typing import Annotated, Any, Final, Literal, TypeVar

from pydantic import ConfigDict, Discriminator, Field, Tag, ValidationError

from fardo.core.goods.part import Extra, Part
from fardo.core.make import WAYS
from fardo.core.make.made import School
from fardo.core.plan.boxed import Load
from fardo.core.plan.progress import BoxChoice, PriceChoice
from fardo.core.plan.search import Journey
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length, Mass, Money, Units
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.parcel import read_postcode
from fardo.files.typed import Kind, Measure, Strict, TypedSizes, complaints, to_length, to_mass, to_sizes, with_unit

FORMAT: Final = "fardo-job/1"
LARGEST_FILE = 2_000_000
_WAY_NAMES = Literal["shelf", "stash", "recut", "tray", "slotted", "folder", "stack", "mailer", "carrier"]

T = TypeVar("T")


class BoxShape(Strict):
    """A box-shaped thing. Sizes may be missing while it is still being measured."""

    kind: Literal["box"] = "box"
    length: Measure | None = None
    width: Measure | None = None
    height: Measure | None = None


class OtherShape(Strict):
    """Any other shape of the format, kept as it came."""

    model_config = ConfigDict(extra="allow")
    kind: Literal["cylinder", "disc", "ring", "taper", "ellipsoid", "bars", "outline", "compound", "mesh"]


def _shape_tag(value: Any) -> str:
    kind = value.get("kind", "box") if isinstance(value, dict) else getattr(value, "kind", "box")
    return "box" if kind == "box" else "other"


Shape = Annotated[Annotated[BoxShape, Tag("box")] | Annotated[OtherShape, Tag("other")], Discriminator(_shape_tag)]


class Layer(Strict):
    material: str
    layers: int = Field(1, ge=1, le=100)


class Rules(Strict):
    this_side_up: bool = False
    keep_flat: bool = False
    no_load_on_top: bool = False


class PartEntry(Strict):
    name: str = Field("", max_length=120)
    count: int = Field(1, ge=1, le=999)
    weight: Measure | None = None
    fragility: str | None = Field(None, max_length=40)
    shape: Shape = Field(default_factory=BoxShape)
    protect: list[Layer] = Field(default_factory=list, max_length=20)
    gap: Measure | None = None
    rules: Rules = Field(default_factory=Rules)


class ExtraEntry(Strict):
    name: str = Field("", max_length=120)
    size: TypedSizes | None = None
    weight: Measure | None = None


class Ship(Strict):
    """Where from and to. JSON calls the origin ``from``."""

    model_config = ConfigDict(populate_by_name=True)
    origin: str | None = Field(None, alias="from", max_length=20)
    to: str | None = Field(None, max_length=20)
    residential: bool = False


class ChosenBox(Strict):
    way: str
    school: Literal["exact", "thumb"] = "exact"
    board: str
    inside_mm: tuple[float, float, float]


class ChosenPrice(Strict):
    carrier: str
    service: str
    programme: str
    amount: str
    currency: str
    billed_weight_g: float


class Chosen(Strict):
    """What was settled on, and for which figures; a figure that changed since makes the knot loose."""

    box: ChosenBox | None = None
    price: ChosenPrice | None = None


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
    ways: list[_WAY_NAMES] = Field(default_factory=lambda: list(WAYS), max_length=20)  # type: ignore[arg-type]
    parcels_at_most: int = Field(1, ge=1, le=100)
    board: str | None = Field(None, max_length=20, description="code of the board, the shop's usual one unless given")
    school: Literal["exact", "thumb"] = "exact"
    chosen: Chosen = Field(default_factory=Chosen)


@dataclass
class Understood:
    """What a job says once its measures are read.

    Args:
        load, journey, school, box, price: as far as they could be read. missing: what is not there yet, in words.
        problems: what cannot be read. beyond: what the job asks for that is not worked out yet, or None.
    """

    load: Load | None = None
    journey: Journey | None = None
    school: School = "exact"
    box: BoxChoice | None = None
    price: PriceChoice | None = None
    missing: list[str] = field(default_factory=list)
    problems: list[BadInput] = field(default_factory=list)
    beyond: str | None = None

    def must_load(self) -> Load:
        """The load. Raises BadInput or NoAnswer, the first there is."""
        if self.problems:
            raise self.problems[0]
        if self.beyond:
            raise NoAnswer(self.beyond)
        if self.load is None:
            raise BadInput(
                "nothing given", read="", allowed="a measure", field=self.missing[0] if self.missing else "parts"
            )
        return self.load


def read_job(text: bytes | str) -> JobFile:
    """A job file. Raises BadInput naming the first field that is wrong."""
    if len(text) > LARGEST_FILE:
        raise BadInput(
            "too large", read=f"{len(text)} bytes", allowed=f"at most {LARGEST_FILE} bytes", field="job file"
        )
    try:
        content = json.loads(text)
    except (ValueError, RecursionError) as error:
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
        raise next(complaints(error)) from error


def write_job(job: JobFile) -> str:
    """The job as a file, with everything it holds."""
    return json.dumps(plain(job), indent=1, ensure_ascii=False) + "\n"


def plain(job: JobFile) -> dict[str, Any]:
    """The job as JSON values, by the names of the format."""
    return job.model_dump(mode="json", by_alias=True, exclude_none=True)


def with_units(job: JobFile, shop: Shop) -> JobFile:
    """The job with the shop's unit behind every measure whose meaning hangs on it."""
    copy = job.model_copy(deep=True)
    units = shop.units
    for part in copy.parts:
        part.weight = _keep(part.weight, units, "mass")
        part.gap = _keep(part.gap, units, "length")
        if isinstance(part.shape, BoxShape):
            for side in ("length", "width", "height"):
                setattr(part.shape, side, _keep(getattr(part.shape, side), units, "length"))
    for extra in copy.extras:
        if isinstance(extra.size, str):
            extra.size = with_unit(extra.size, units, "sizes")
        extra.weight = _keep(extra.weight, units, "mass")
    return copy


def understand(job: JobFile, shop: Shop, origin: str = "") -> Understood:
    """Reads every measure of a job; never raises for what a person may type.

    Args:
        origin: the shop's own postcode, where the job names none.
    """
    reading = _Reading(shop)
    said = Understood(school=job.school, beyond=_beyond(job), missing=reading.missing, problems=reading.problems)
    if said.beyond is None:
        said.load = reading.load(job.parts[0] if job.parts else PartEntry(), job.extras)
    said.journey = reading.journey(job, origin)
    if job.board is not None:
        reading.attempt(shop.grade, job.board)
    said.box, said.price = reading.chosen(job.chosen)
    return said


class _Reading:
    """Reads a job's fields one by one, keeping what is missing and what is wrong apart."""

    def __init__(self, shop: Shop) -> None:
        self.shop = shop
        self.missing: list[str] = []
        self.problems: list[BadInput] = []

    def attempt(self, read: Callable[..., T], *args: Any, under: str = "", **options: Any) -> T | None:
        """What `read` gives, or None with its refusal kept."""
        try:
            return read(*args, **options)
        except BadInput as problem:
            self.problems.append(problem.under(under) if under else problem)
            return None

    def needed(self, name: str, value: Any, read: Callable[..., T], *args: Any) -> T | None:
        """As `attempt`, where an empty value is missing rather than wrong."""
        if _empty(value):
            self.missing.append(name)
            return None
        return self.attempt(read, value, *args)

    def load(self, entry: PartEntry, extras: list[ExtraEntry]) -> Load | None:
        shape, units = entry.shape, self.shop.units
        assert isinstance(shape, BoxShape)  # other shapes are beyond, which is asked before
        length = self.needed("length", shape.length, to_length, units, "parts[0].shape.length")
        width = self.needed("width", shape.width, to_length, units, "parts[0].shape.width")
        height = self.needed("height", shape.height, to_length, units, "parts[0].shape.height")
        weight = self.needed("weight", entry.weight, to_mass, units, "parts[0].weight")
        gap: Length | None = self.shop.default_gap
        if not _empty(entry.gap):
            gap = self.attempt(to_length, entry.gap, units, "parts[0].gap", zero=True)
        counted = [
            self.extra(extra, n)
            for n, extra in enumerate(extras)
            if extra.name or not _empty(extra.size) or not _empty(extra.weight)  # a row begun and left empty is none
        ]
        if length is None or width is None or height is None or weight is None or gap is None or None in counted:
            return None
        part = Part(entry.name or "the goods", (length, width, height), weight, gap)
        return Load(part, tuple(extra for extra in counted if extra is not None))

    def extra(self, entry: ExtraEntry, n: int) -> Extra | None:
        name = entry.name or f"extra {n + 1}"
        sizes = self.needed(f"size of {name}", entry.size, to_sizes, self.shop.units, f"extras[{n}].size")
        weight: Mass | None = Mass(0)
        if not _empty(entry.weight):
            weight = self.attempt(to_mass, entry.weight, self.shop.units, f"extras[{n}].weight", zero=True)
        return None if sizes is None or weight is None else Extra(name, sizes, weight)

    def journey(self, job: JobFile, shop_origin: str) -> Journey | None:
        origin = self.needed("postcode it leaves from", job.ship.origin or shop_origin, read_postcode, "ship.from")
        destination = self.needed("postcode it goes to", job.ship.to, read_postcode, "ship.to")
        value: Money | None = None
        if not _empty(job.value):
            value = self.attempt(Money.read, job.value, self.shop.currency, under="value")
            if value is None:
                return None
        return Journey(origin, destination, job.ship.residential, value) if origin and destination else None

    def chosen(self, chosen: Chosen) -> tuple[BoxChoice | None, PriceChoice | None]:
        box: BoxChoice | None = None
        if chosen.box is not None and chosen.box.way in WAYS:
            inside = self.attempt(to_sizes, list(chosen.box.inside_mm), "in", "chosen.box.inside_mm")
            if inside:
                box = BoxChoice(chosen.box.way, chosen.box.school, chosen.box.board, inside)
        price: PriceChoice | None = None
        if (was := chosen.price) is not None:
            amount = self.attempt(Money.read, was.amount, was.currency, under="chosen.price.amount")
            billed = self.attempt(to_mass, was.billed_weight_g, "in", "chosen.price.billed_weight_g")
            if amount and billed:
                price = PriceChoice(was.carrier, was.service, was.programme, amount, billed)
        return box, price


def _beyond(job: JobFile) -> str | None:
    if len(job.parts) > 1 or (job.parts and job.parts[0].count > 1):
        number = sum(part.count for part in job.parts)
        return f"This job has {number} parts; a box is worked out for one part with its extras."
    if job.parts:
        part = job.parts[0]
        name = part.name or "the part"
        if not isinstance(part.shape, BoxShape):
            return (
                f"{name} is of shape {part.shape.kind!r}; only box-shaped things are worked out. Measure it as a box."
            )
        if part.protect:
            return f"{name} has wrap listed; wrap is not worked out. Measure it wrapped and leave the wrap out."
    if not any(way in WAYS for way in job.ways):
        return f"None of the ways {', '.join(job.ways) or 'to box it'} is worked out; {' and '.join(WAYS)} are."
    return None


def _keep(value: Any, units: Units, kind: Kind) -> Any:
    return with_unit(value, units, kind) if isinstance(value, str) else value


def _empty(value: Any) -> bool:
    return value is None or (isinstance(value, str) and not value.strip())
