"""What a job says once its measures are read: the load, where it goes, what was chosen, what is missing or wrong.

What is not worked out yet is said in a sentence rather than left out.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction
from typing import Any

from fardo.core.fill.filling import FillWish
from fardo.core.goods.hazard import NO_HAZARDS, QUESTIONS, weigh_answers
from fardo.core.goods.part import MOST_OF_ONE, Extra, Part, Rules
from fardo.core.goods.shape import Scanned
from fardo.core.make import WAYS
from fardo.core.make.inserts import INSERTS, check_insert
from fardo.core.make.inserts.wanted import MOST_PIECES, Wanted
from fardo.core.make.stock import Pouch, StockBox
from fardo.core.plan.cells import lacks_cells
from fardo.core.plan.job import MOST_PARCELS, Job, ReadPart, beyond, parcels_for
from fardo.core.plan.load import Bundle, Load, with_packed
from fardo.core.plan.progress import BoxChoice, KnotState, PriceChoice
from fardo.core.plan.shop import Shop
from fardo.core.plan.wrapped import Wrapped, in_front_and_behind, units_of
from fardo.core.protect.cushion import read_fragility
from fardo.core.protect.forms import WOUND, goes_around_several, goes_on_walls, of_stock
from fardo.core.protect.forms.asks import OfStock
from fardo.core.protect.material import MOST_LAYERS, Layer
from fardo.core.quantity import ZERO, Length, Mass, Money, show_length
from fardo.core.refusal import BadInput
from fardo.files.arrangement import read_arrangement
from fardo.files.field_reading import is_empty
from fardo.files.gap import GapEntry, to_gap
from fardo.files.job import Chosen, InsertEntry, JobFile, LayerEntry, PartEntry
from fardo.files.journey_reading import JourneyReading
from fardo.files.shapes import MeshFinder, ShapeReader
from fardo.files.stock import BoxEntry, FoundBoxEntry, ReadyBoxEntry, read_box
from fardo.files.typed import ExtraEntry, to_count, to_length, to_mass, to_sizes

_EMPTY_PART = PartEntry()


def no_mesh(file: str, unit: Length) -> Scanned:
    """Where no files are at hand."""
    raise BadInput("not a file that is here", read=file, allowed="a mesh file kept with the shop", field="file")


def understand(job: JobFile, shop: Shop, origin: str = "", find_mesh: MeshFinder = no_mesh) -> Job:
    """Reads every measure of a job; never raises for what a person may type.

    Args:
        origin: the shop's own postcode, where the job names none.
        find_mesh: gives the shape of a mesh file.
    """
    reading = _Reading(shop, find_mesh)
    channel = reading.channel(job)
    reading.house = reading.rules_that_hold(job, channel)
    ready = tuple(one for n, box in enumerate(job.ready_boxes) if (one := reading.ready_box(box, n)) is not None)
    found = tuple(one for n, box in enumerate(job.found_boxes) if (one := reading.found_box(box, n)) is not None)
    reading.found, unboxed = found, tuple(reading.missing)
    filled = [n for n, part in enumerate(job.parts) if part != _EMPTY_PART]  # a row begun and left empty is none
    parts = tuple(
        reading.part(part, n, alone=filled == [n]) if n in filled else ReadPart(part.name or f"part {n + 1}")
        for n, part in enumerate(job.parts)
    )
    parts = reading.cushioned(parts)
    if not filled:
        reading.part(_EMPTY_PART, 0, alone=True)
    extras = reading.extras(job.extras)
    liner = reading.liner(job.liner) if job.liner else None
    so_far = len(reading.missing)
    inserts = [reading.insert(insert, n) for n, insert in enumerate(job.inserts)]
    unfinished = (*unboxed, *reading.missing[so_far:])
    over_box = reading.over_box(job.over_box) if job.over_box else None
    bundles = reading.bundles(job)
    ways = tuple(way for way in job.ways if way in WAYS)
    asked = tuple(job.questions)
    hazards = reading.attempt(weigh_answers, asked, job.answers) or replace(
        NO_HAZARDS, asked=tuple(code for code in asked if code in QUESTIONS)
    )
    if extras is not None and channel is not None:
        extras = (*extras, *channel.inserts)
    journey = reading.journey(job, origin, hazards, channel)
    if job.board is not None:
        reading.attempt(shop.grade, job.board)
    box, price = reading.chosen(job.chosen)
    value, sale = reading.value(job), reading.sale(job, channel)
    several = parcels_for(sum(len(part.units) for part in parts))  # more than go in one go in several by themselves
    most = reading.house.parcels_at_most(max(job.parcels_at_most, min(several, MOST_PARCELS)))
    load: Load | None = None
    arranged: KnotState = "open"
    packed_or_with = all(parts[n].units or parts[n].lies_with for n in filled)
    whole = bool(filled) and packed_or_with and bool(job.liner) == bool(liner)
    if whole and extras is not None and beyond(parts, ways, most) is None:
        load = Load(
            tuple(unit for part in parts for unit in part.units), extras, liner,
            inserts=tuple(insert for insert in inserts if insert is not None), holes=job.hand_holes, over_box=over_box,
            bundles=bundles, fill=reading.fill(job), tape=reading.house.tape,
            wet=job.wet_weather, repacked=job.repacked,
            pack_minutes=None if job.pack_minutes is None else Fraction(job.pack_minutes),
        )  # fmt: skip
        load = replace(load, pressed=reading.pressed(job, load))
        if lacks_cells(load):
            unfinished = (*unfinished, "cells of the divider, along and across")
            reading.missing.append(unfinished[-1])
        if job.arrangement is not None:
            packed = read_arrangement(job.arrangement, load)
            load = load if packed is None else with_packed(load, packed)
            arranged = "loose" if load.packed is None else "tied"
    return Job(
        parts, load, journey, ways, job.board, job.school, box, price, hazards, value,
        job.liner is not None, most, arranged, tuple(reading.missing), tuple(reading.problems),
        unfinished, tuple(reading.read), found, ready, reading.house, sale,
    )  # fmt: skip


class _Reading(JourneyReading):
    """Reads what a job says of its goods and where they go."""

    def __init__(self, shop: Shop, find_mesh: MeshFinder) -> None:
        super().__init__(shop)
        self.find_mesh = find_mesh
        self.found: tuple[StockBox, ...] = ()

    def part(self, entry: PartEntry, n: int, alone: bool) -> ReadPart:
        """A part, with what is packed of it; nothing where something of it is missing or wrong.

        Args:
            alone: whether the job has no other, so that its name need not be said.
        """
        name = entry.name or f"part {n + 1}"
        units = self.units(entry, f"parts[{n}]", "" if alone else f" of {name}")
        return ReadPart(name, units, bool(entry.protect), not is_empty(entry.gap), entry.guessed)

    def cushioned(self, parts: tuple[ReadPart, ...]) -> tuple[ReadPart, ...]:
        """Goods that lie in front of and behind others are packed with those: they are no things of their own then."""
        named = {part.name: n for n, part in enumerate(parts)}
        found = list(parts)
        for n, part in enumerate(parts):
            around = part.units[0].part if part.units else None
            if around is None or not around.rules.cushion_for:
                continue
            k = named.get(around.rules.cushion_for, n)
            if k == n or len(found[k].units) != 1:
                allowed = ", ".join(one.name for m, one in enumerate(parts) if m != n and len(one.units) == 1) or "none"
                self.problems.append(BadInput("not a single part of this job", read=around.rules.cushion_for,
                                              allowed=allowed, field=f"parts[{n}].rules.cushion_for"))  # fmt: skip
                continue
            if part.wrapped:
                self.problems.append(
                    BadInput("it is a cushion itself", read=f"layers on {part.name}",
                             allowed="none; wrap what it lies around", field=f"parts[{n}].protect")
                )  # fmt: skip
                continue
            whole = self.attempt(in_front_and_behind, found[k].units[0], around, self.shop, under=f"parts[{n}]")
            if whole is not None:
                found[k] = replace(found[k], units=(whole,))
                found[n] = replace(part, units=(), lies_with=found[k].name)
        return tuple(found)

    def units(self, entry: PartEntry, path: str, of: str) -> tuple[Wrapped, ...]:
        units, faults = self.shop.units, len(self.problems)

        def measure(name: str, value: Any, where: str) -> Length | None:
            return self.measure(f"{name}{of}", value, where)

        shape = ShapeReader(units, measure, self.attempt, self.find_mesh).read(entry.shape, f"{path}.shape")
        weight = self.needed(f"weight{of}", entry.weight, to_mass, units, f"{path}.weight")
        fragility = self.optional(entry.fragility, None, read_fragility, f"{path}.fragility")
        count = self.attempt(to_count, entry.count, f"{path}.count", MOST_OF_ONE)
        piles = self.optional(entry.piles, None, to_count, f"{path}.piles", MOST_OF_ONE)
        holds = self.optional(entry.sleeve_holds, None, to_count, f"{path}.sleeve_holds", MOST_OF_ONE)
        if weight is not None:
            self.read.append((f"{path}.weight", weight))
        touches = piles is not None or holds is not None
        said = None if is_empty(entry.gap) else entry.gap
        gap = self.attempt(to_gap, said, self.shop.gap(fragility), touches, units, f"{path}.gap")
        if gap is not None and said is not None and not isinstance(said, GapEntry):
            self.read.append((f"{path}.gap", gap.wall))
        if gap is not None:
            gap = gap.widened(self.house.more_gap)
        layers = [self.layer(layer, f"{path}.protect[{k}]") for k, layer in enumerate(entry.protect)]
        if None in (shape, weight, gap, count, *layers) or len(self.problems) > faults:
            return ()
        assert shape is not None and weight is not None and gap is not None and count is not None  # noqa: PT018
        rules = self.rules(entry, f"{path}.rules")
        part = Part(entry.name or "the goods", shape, weight, gap, count, fragility, rules, entry.proven.strip())
        whole = tuple(layer for layer in layers if layer is not None)
        return self.attempt(units_of, part, whole, self.shop, piles, holds, under=path) or ()

    def rules(self, entry: PartEntry, path: str) -> Rules:
        said = entry.rules
        bears = self.optional(said.bears, None, to_mass, self.shop.units, f"{path}.bears", zero=True)
        apart = frozenset(said.apart_from) - {""}
        return Rules(
            said.this_side_up,
            said.keep_flat,
            said.no_load_on_top,
            bears,
            said.bundle.strip(),
            apart,
            said.hard_edges,
            said.cushion_for.strip(),
            frozenset(said.not_with) - {""},
        )

    def layer(self, entry: LayerEntry, path: str) -> Layer | None:
        units = self.shop.units
        material = self.attempt(self.shop.material, entry.material, under=path)
        room = self.optional(entry.room, ZERO, to_length, units, f"{path}.room", zero=True)
        hollow = self.optional(entry.hollow, None, to_sizes, units, f"{path}.hollow")
        lengths = [
            self.attempt(to_length, length, units, f"{path}.lengths[{k}]")
            for k, length in enumerate(entry.lengths or ())
        ]
        layers = self.attempt(to_count, entry.layers, f"{path}.layers", MOST_LAYERS)
        across = self.optional(entry.across, None, to_count, f"{path}.across", MOST_LAYERS)
        if material is None or room is None or layers is None or None in lengths:
            return None
        item = None if is_empty(entry.item) else self.attempt(self.item, entry.item, material.form, under=path)
        if item is None and not is_empty(entry.item):
            return None
        return Layer(
            material, layers, entry.crossed, across, entry.reused, room, hollow,
            tuple(length for length in lengths if length is not None), entry.bubbles, entry.on, entry.each, item,
            entry.open,
        )  # fmt: skip

    def item(self, name: str, form: str) -> StockBox | Pouch:
        """The box or mailer of that name that a layer of that form is. Raises BadInput where there is none."""
        stock = self.shop.stock
        choices: dict[OfStock, tuple[StockBox | Pouch, ...]] = {
            "": (), "boxes": (*self.found, *stock.boxes), "mailers": stock.pouches,
        }  # fmt: skip
        there = choices[of_stock(form)]
        found = next((one for one in there if one.name == name.strip()), None)
        if found is None:
            allowed = ", ".join(one.name for one in there) or "none of a layer of this form"
            raise BadInput("not a box or mailer that is there", read=name, allowed=allowed, field="item")
        return found

    def liner(self, entry: LayerEntry) -> Layer | None:
        layer = self.layer(entry, "liner")
        if layer is not None and not goes_on_walls(layer.material.form):
            allowed = ", ".join(m.code for m in self.shop.materials.values() if goes_on_walls(m.form)) or "none"
            self.problems.append(BadInput("not a liner", read=entry.material, field="liner.material", allowed=allowed))
            return None
        return layer

    def pressed(self, job: JobFile, load: Load) -> Length:
        """By how much the goods are pressed in; nothing where that cannot be."""
        by = self.optional(job.pressed, ZERO, to_length, self.shop.units, "pressed") or ZERO
        if by > load.gives:
            most = show_length(load.gives, self.shop.units, "down").text
            allowed = f"up to {most}, what the wrap gives" if load.gives > ZERO else "nothing; the wrap gives nothing"
            self.problems.append(BadInput("more than the wrap gives", read=str(job.pressed), allowed=allowed,
                                          field="pressed"))  # fmt: skip
            return ZERO
        return by

    def bundles(self, job: JobFile) -> tuple[Bundle, ...]:
        """What goes around parts that are held together."""
        held = {part.rules.bundle.strip() for part in job.parts}
        found = []
        for name, entries in job.bundles.items():
            layers = [self.layer(entry, f"bundles.{name}[{n}]") for n, entry in enumerate(entries)]
            around = [layer for layer in layers if layer is not None]
            for n, layer in enumerate(around):
                if not goes_around_several(layer.material.form) or layer.on != "all":
                    allowed = ", ".join(m.code for m in self.shop.materials.values() if goes_around_several(m.form))
                    self.problems.append(
                        BadInput("not put around several things", read=entries[n].material, allowed=allowed,
                                 field=f"bundles.{name}[{n}].material")
                    )  # fmt: skip
                    return ()
                if layer.item is not None and layer.item.count < 1:
                    self.problems.append(
                        BadInput("there are none left", read=layer.item.name, allowed="one of which there is one",
                                 field=f"bundles.{name}[{n}].item")
                    )  # fmt: skip
                    return ()
            if name in held and around:
                found.append(Bundle(name, tuple(around)))
        return tuple(found)

    def over_box(self, entry: LayerEntry) -> Layer | None:
        layer = self.layer(entry, "over_box")
        if layer is not None and layer.material.form != WOUND:
            allowed = ", ".join(m.code for m in self.shop.materials.values() if m.form == WOUND) or "none"
            self.problems.append(
                BadInput("not wound around a box", read=entry.material, field="over_box.material", allowed=allowed)
            )
            return None
        return layer

    def ready_box(self, entry: ReadyBoxEntry, n: int) -> StockBox | None:
        whole = BoxEntry(name=entry.name, inside=entry.inside, board=self.shop.default_grade)
        return self.attempt(read_box, whole, self.shop.units, self.shop.currency, self.shop.grades, f"ready_boxes[{n}]")

    def found_box(self, entry: FoundBoxEntry, n: int) -> StockBox | None:
        """A box for this job only; nothing for a row begun and left empty, or while its inside is missing or wrong."""
        path = f"found_boxes[{n}]"
        if not entry.name and is_empty(entry.inside):
            return None
        name = entry.name or f"found box {n + 1}"
        if self.needed(f"inside of {name}", entry.inside, to_sizes, self.shop.units, f"{path}.inside") is None:
            return None
        board = entry.board or self.shop.default_grade
        whole = BoxEntry(
            name=name, inside=entry.inside, board=board, used=True, worn=entry.worn, hollow=entry.hollow or None
        )
        return self.attempt(read_box, whole, self.shop.units, self.shop.currency, self.shop.grades, path)

    def fill(self, job: JobFile) -> FillWish:
        """What the job says of it; a kind that the shop does not have is told, and the usual one goes in."""
        wish, names = job.fill, [fill.name for fill in self.shop.fills]
        for field, name in (("kind", wish.kind), *((f"places.{where}", said) for where, said in wish.places.items())):
            if name and name not in names:
                problem = BadInput(
                    "not a fill the shop has", read=name, allowed=", ".join(names), field=f"fill.{field}"
                )
                self.problems.append(problem)
        loose = False if self.house.no_loose_fill else wish.loose
        return FillWish(wish.kind, dict(wish.places), loose, wish.full)

    def insert(self, entry: InsertEntry, n: int) -> Wanted | None:
        """What is asked for; nothing where a measure its kind needs is missing or wrong."""
        units, path = self.shop.units, f"inserts[{n}]"
        asked: set[str] = {one.field for one in INSERTS[entry.kind].ASKS}
        readers: dict[str, Callable[..., Any]] = {"size": to_sizes, "length": to_length, "depth": to_length}
        measures: dict[str, Any] = {
            field: self.needed(f"{field} of the {entry.kind}", getattr(entry, field), read, units, f"{path}.{field}")
            for field, read in readers.items() if field in asked
        }  # fmt: skip
        if None in measures.values():
            return None
        for field in asked & {"count", "along", "across"}:
            typed = getattr(entry, field)
            if field != "count" and is_empty(entry.along) and is_empty(entry.across):
                measures[field] = 0
            else:
                measures[field] = self.attempt(
                    to_count, 1 if is_empty(typed) else typed, f"{path}.{field}", MOST_PIECES
                )
        if None in measures.values():
            return None
        if "where" in asked:
            measures["where"] = entry.where
        return self.attempt(check_insert, Wanted(entry.kind, **measures), under=path)

    def extras(self, entries: Sequence[ExtraEntry]) -> tuple[Extra, ...] | None:
        counted = [
            self.extra(extra, n)
            for n, extra in enumerate(entries)
            if extra.name
            or not is_empty(extra.size)
            or not is_empty(extra.weight)  # a row begun and left empty is none
        ]
        return None if None in counted else tuple(extra for extra in counted if extra is not None)

    def extra(self, entry: ExtraEntry, n: int) -> Extra | None:
        name = entry.name or f"extra {n + 1}"
        sizes = self.needed(f"size of {name}", entry.size, to_sizes, self.shop.units, f"extras[{n}].size")
        weight = self.optional(entry.weight, Mass(0), to_mass, self.shop.units, f"extras[{n}].weight", zero=True)
        if sizes is None or weight is None:
            return None
        return Extra(name, sizes, weight, entry.placed(sizes))

    def chosen(self, chosen: Chosen) -> tuple[BoxChoice | None, PriceChoice | None]:
        box: BoxChoice | None = None
        if (had := chosen.box) is not None and had.way in WAYS:
            inside = self.attempt(to_sizes, list(had.inside_mm), "in", "chosen.box.inside_mm")
            if inside:
                kept = had.cut_by.to_core() if had.cut_by else None
                box = BoxChoice(had.way, had.school, had.board, inside, had.item, kept)
        price: PriceChoice | None = None
        if (was := chosen.price) is not None:
            amount = self.attempt(Money.read, was.amount, was.currency, under="chosen.price.amount")
            billed = self.attempt(to_mass, was.billed_weight_g, "in", "chosen.price.billed_weight_g")
            if amount and billed:
                price = PriceChoice(was.carrier, was.service, was.programme, amount, billed, was.tariff)
        return box, price
