"""What a job says once its measures are read: the load, where it goes, what was chosen, what is missing or wrong.

What is not worked out yet is said in a sentence rather than left out.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, TypeVar

from fardo.core.goods.hazard import NO_HAZARDS, QUESTIONS, Hazards, weigh_answers
from fardo.core.goods.part import Extra, Part, Rules, Sizes
from fardo.core.goods.shape import Scanned
from fardo.core.make import WAYS
from fardo.core.make.insert import Wanted
from fardo.core.make.made import School
from fardo.core.plan.load import MOST_UNITS, Load, with_packed
from fardo.core.plan.progress import BoxChoice, PriceChoice, State
from fardo.core.plan.search import Journey
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import Wrapped, units_of
from fardo.core.protect.cushion import read_fragility
from fardo.core.protect.forms import LINER
from fardo.core.protect.material import Layer
from fardo.core.protect.pile import piles_needed
from fardo.core.quantity import ZERO, Length, Mass, Money, read_distance, volume_nm3
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.files.arrangement import read_arrangement
from fardo.files.job import BesideEntry, Chosen, InsertEntry, JobFile, LayerEntry, PartEntry
from fardo.files.shapes import MeshFinder, ShapeReader
from fardo.files.typed import ExtraEntry, to_length, to_mass, to_sizes

T = TypeVar("T")
_EMPTY_PART = PartEntry()
_NO_PARCEL = BesideEntry()


@dataclass
class Understood:
    """
    Args:
        units: of each part in the job, what is packed of it; empty where it cannot be read yet.
        load, journey, school, box, price: as far as they could be read. missing: what is not there yet, in words.
        problems: what cannot be read. beyond: what the job asks for that is not worked out, or None. hazards: what the
        answers come to. guessed: parts whose measures are still the kind's. arranged: whether an arrangement was
        kept, and still holds. unfinished: what inserts still lack; the load is without those, so that all else is
        worked out while they are typed.
    """

    units: list[tuple[Wrapped, ...]] = field(default_factory=list)
    load: Load | None = None
    journey: Journey | None = None
    school: School = "exact"
    box: BoxChoice | None = None
    price: PriceChoice | None = None
    missing: list[str] = field(default_factory=list)
    problems: list[BadInput] = field(default_factory=list)
    beyond: str | None = None
    hazards: Hazards = NO_HAZARDS
    guessed: list[str] = field(default_factory=list)
    arranged: State = "open"
    unfinished: list[str] = field(default_factory=list)

    def must_load(self) -> Load:
        """The load. Raises BadInput or NoAnswer, the first there is."""
        if self.problems:
            raise self.problems[0]
        if self.beyond:
            raise NoAnswer(self.beyond)
        if self.unfinished:
            raise BadInput("nothing given", read="", allowed="a measure", field=self.unfinished[0])
        if self.load is None:
            raise BadInput(
                "nothing given", read="", allowed="a measure", field=self.missing[0] if self.missing else "parts"
            )
        return self.load


def no_mesh(file: str, unit: Length) -> Scanned:
    """Where no files are at hand."""
    raise BadInput("not a file that is here", read=file, allowed="a mesh file kept with the shop", field="file")


def understand(job: JobFile, shop: Shop, origin: str = "", find_mesh: MeshFinder = no_mesh) -> Understood:
    """Reads every measure of a job; never raises for what a person may type.

    Args:
        origin: the shop's own postcode, where the job names none. find_mesh: gives the shape of a mesh file.
    """
    reading = _Reading(shop, find_mesh)
    said = Understood(school=job.school, missing=reading.missing, problems=reading.problems)
    parts = [(n, part) for n, part in enumerate(job.parts) if part != _EMPTY_PART]  # a row begun and left empty is none
    parts = parts or [(0, _EMPTY_PART)]
    said.units = [()] * max(len(job.parts), 1)
    for n, entry in parts:
        of = "" if len(parts) == 1 else f" of {entry.name or f'part {n + 1}'}"
        said.units[n] = reading.part(entry, n, of)
    extras = reading.extras(job.extras)
    liner = reading.liner(job.liner) if job.liner else None
    so_far = len(reading.missing)
    inserts = [reading.insert(insert, n) for n, insert in enumerate(job.inserts)]
    said.unfinished = reading.missing[so_far:]
    said.beyond = _beyond(job, said.units)
    if (
        said.beyond is None
        and all(said.units[n] for n, _ in parts)
        and extras is not None
        and bool(job.liner) == bool(liner)
    ):
        said.load = Load(
            tuple(unit for units in said.units for unit in units), extras, liner,
            inserts=tuple(insert for insert in inserts if insert is not None), holes=job.hand_holes,
        )  # fmt: skip
        if job.arrangement is not None:
            packed = read_arrangement(job.arrangement, said.load)
            said.load = said.load if packed is None else with_packed(said.load, packed)
            said.arranged = "loose" if said.load.packed is None else "tied"
    said.hazards = reading.attempt(_hazards, job) or NO_HAZARDS
    said.guessed = [part.name or f"part {n + 1}" for n, part in enumerate(job.parts) if part.guessed]
    said.journey = reading.journey(job, origin, said.hazards)
    if job.board is not None:
        reading.attempt(shop.grade, job.board)
    said.box, said.price = reading.chosen(job.chosen)
    return said


class _Reading:
    """Reads a job's fields one by one, keeping what is missing and what is wrong apart."""

    def __init__(self, shop: Shop, find_mesh: MeshFinder) -> None:
        self.shop = shop
        self.find_mesh = find_mesh
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

    def optional(self, value: Any, otherwise: T, read: Callable[..., T], *args: Any, **options: Any) -> T | None:
        """As `attempt`, where an empty value stands for another."""
        return otherwise if _empty(value) else self.attempt(read, value, *args, **options)

    def part(self, entry: PartEntry, n: int, of: str) -> tuple[Wrapped, ...]:
        """What is packed of a part; nothing where something of it is missing or wrong."""
        path, units = f"parts[{n}]", self.shop.units
        faults = len(self.problems)

        def measure(name: str, value: Any, where: str) -> Length | None:
            return self.needed(f"{name}{of}", value, to_length, units, where)

        shape = ShapeReader(units, measure, self.attempt, self.find_mesh).read(entry.shape, f"{path}.shape")
        weight = self.needed(f"weight{of}", entry.weight, to_mass, units, f"{path}.weight")
        fragility = self.optional(entry.fragility, None, read_fragility, f"{path}.fragility")
        gap = self.optional(entry.gap, self.shop.gap(fragility), to_length, units, f"{path}.gap", zero=True)
        layers = [self.layer(layer, f"{path}.protect[{k}]") for k, layer in enumerate(entry.protect)]
        if shape is None or weight is None or gap is None or None in layers or len(self.problems) > faults:
            return ()
        rules = self.rules(entry, f"{path}.rules")
        part = Part(entry.name or "the goods", shape, weight, gap, entry.count, fragility, rules)
        piles = entry.piles
        if entry.sleeve_holds is not None:
            piles = max(piles or 1, piles_needed(entry.count, entry.sleeve_holds))
        whole = tuple(layer for layer in layers if layer is not None)
        return self.attempt(units_of, part, whole, self.shop, piles, under=path) or ()

    def rules(self, entry: PartEntry, path: str) -> Rules:
        said = entry.rules
        bears = self.optional(said.bears, None, to_mass, self.shop.units, f"{path}.bears", zero=True)
        apart = frozenset(said.apart_from) - {""}
        return Rules(said.this_side_up, said.keep_flat, said.no_load_on_top, bears, said.bundle.strip(), apart)

    def layer(self, entry: LayerEntry, path: str) -> Layer | None:
        units = self.shop.units
        material = self.attempt(self.shop.material, entry.material, under=path)
        room = self.optional(entry.room, ZERO, to_length, units, f"{path}.room", zero=True)
        hollow = self.optional(entry.hollow, None, to_sizes, units, f"{path}.hollow")
        lengths = [
            self.attempt(to_length, length, units, f"{path}.lengths[{k}]")
            for k, length in enumerate(entry.lengths or ())
        ]
        if material is None or room is None or None in lengths:
            return None
        return Layer(
            material, entry.layers, entry.crossed, room, volume_nm3(*hollow) if hollow else 0,
            tuple(length for length in lengths if length is not None), entry.bubbles,
        )  # fmt: skip

    def liner(self, entry: LayerEntry) -> Layer | None:
        layer = self.layer(entry, "liner")
        if layer is not None and layer.material.form != LINER:
            allowed = ", ".join(m.code for m in self.shop.materials.values() if m.form == LINER) or "none"
            self.problems.append(BadInput("not a liner", read=entry.material, field="liner.material", allowed=allowed))
            return None
        return layer

    def insert(self, entry: InsertEntry, n: int) -> Wanted | None:
        """What is asked for; nothing where a measure its kind needs is missing or wrong."""
        units, path = self.shop.units, f"inserts[{n}]"
        size: Sizes | None = None
        length: Length | None = None
        depth: Length | None = None
        of = f"of the {entry.kind}"
        if entry.kind == "divider" and entry.along * entry.across < 2:
            allowed = "two cells or more"
            self.problems.append(BadInput("no divider", read="1 x 1 cells", allowed=allowed, field=f"{path}.along"))
            return None
        if entry.kind == "sleeve":
            size = self.needed(f"size {of}", entry.size, to_sizes, units, f"{path}.size")
            if size is None:
                return None
        if entry.kind in ("spacer", "edge-cap"):
            length = self.needed(f"length {of}", entry.length, to_length, units, f"{path}.length")
            depth = self.needed(f"depth {of}", entry.depth, to_length, units, f"{path}.depth")
            if length is None or depth is None:
                return None
        return Wanted(entry.kind, entry.count, entry.where, entry.along, entry.across, size, length, depth)

    def extras(self, entries: Sequence[ExtraEntry]) -> tuple[Extra, ...] | None:
        counted = [
            self.extra(extra, n)
            for n, extra in enumerate(entries)
            if extra.name or not _empty(extra.size) or not _empty(extra.weight)  # a row begun and left empty is none
        ]
        return None if None in counted else tuple(extra for extra in counted if extra is not None)

    def extra(self, entry: ExtraEntry, n: int) -> Extra | None:
        name = entry.name or f"extra {n + 1}"
        sizes = self.needed(f"size of {name}", entry.size, to_sizes, self.shop.units, f"extras[{n}].size")
        weight = self.optional(entry.weight, Mass(0), to_mass, self.shop.units, f"extras[{n}].weight", zero=True)
        return None if sizes is None or weight is None else Extra(name, sizes, weight)

    def journey(self, job: JobFile, shop_origin: str, hazards: Hazards) -> Journey | None:
        origin = self.needed("postcode it leaves from", job.ship.origin or shop_origin, read_postcode, "ship.from")
        destination = self.needed("postcode it goes to", job.ship.to, read_postcode, "ship.to")
        value: Money | None = None
        if not _empty(job.value):
            value = self.attempt(Money.read, job.value, self.shop.currency, under="value")
            if value is None:
                return None
        faults = len(self.problems)
        distance = self.optional(job.ship.distance, None, read_distance, self.shop.units, field="ship.distance")
        if not origin or not destination:
            return None
        ship = job.ship
        at_door = Parcel((ZERO, ZERO, ZERO), Mass(0), origin, destination, ship.residential, signature=ship.signature)
        beside = [self.beside(entry, n, at_door) for n, entry in enumerate(job.beside) if entry != _NO_PARCEL]
        if None in beside or len(self.problems) > faults:
            return None
        closed = tuple(parcel for parcel in beside if parcel is not None)
        theirs = sum(parcel.value.minor for parcel in closed if parcel.value)
        if theirs > (value.minor if value else 0):
            self.problems.append(
                BadInput(
                    "parcels worth more than all of it", read=str(Money(theirs, self.shop.currency)), field="value",
                    allowed="at least what the parcels beside it are worth together",
                )
            )  # fmt: skip
            return None
        day = job.day.isoformat() if job.day else None
        return Journey(origin, destination, ship.residential, value, hazards, day, ship.signature, closed, distance)

    def beside(self, entry: BesideEntry, n: int, at_door: Parcel) -> Parcel | None:
        """A closed parcel that goes to the same door; None where something of it is missing or wrong."""
        units, path, of = self.shop.units, f"beside[{n}]", f"of {entry.name or f'parcel {n + 2}'}"
        sizes = self.needed(f"size {of}", entry.size, to_sizes, units, f"{path}.size")
        weight = self.needed(f"weight {of}", entry.weight, to_mass, units, f"{path}.weight")
        faults = len(self.problems)
        value: Money | None = None
        if not _empty(entry.value):
            value = self.attempt(Money.read, entry.value, self.shop.currency, under=f"{path}.value")
        if sizes is None or weight is None or len(self.problems) > faults:
            return None
        return replace(at_door, sizes=sizes, weight=weight, value=value)

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


def _beyond(job: JobFile, units: Sequence[tuple[Wrapped, ...]]) -> str | None:
    number = sum(len(of_part) for of_part in units)
    if number > MOST_UNITS:
        return f"This job has {number} things to pack; up to {MOST_UNITS} in one parcel are worked out. Pile flat ones."
    if not any(way in WAYS for way in job.ways):
        return f"This job asks for no way to box it; there are {', '.join(WAYS)}."
    return None


def _hazards(job: JobFile) -> Hazards:
    for n, code in enumerate(job.questions):
        if code not in QUESTIONS:
            raise BadInput("not a question", read=code, allowed=", ".join(QUESTIONS), field=f"questions[{n}]")
    return weigh_answers(tuple(job.questions), job.answers)


def _empty(value: Any) -> bool:
    return value is None or (isinstance(value, str) and not value.strip())
