"""The tariff file, format fardo-tariff/1: a carrier's services with their zones, weights, measures and charges.

Its JSON Schema is in docs. A new kind of charge is a class here and one in `core.tariff.charges`.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable
from datetime import date
from fractions import Fraction
from pathlib import Path
from typing import Annotated, Final, Literal, TypeVar

from pydantic import ConfigDict, Field, ValidationError

from fardo.core.goods.hazard import TAGS
from fardo.core.quantity import INCH, Length, Mass, Money, Units, volume_nm3
from fardo.core.refusal import BadInput
from fardo.core.tariff.charges import (
    Charge,
    ContainerPrice,
    Cover,
    Distance,
    ForAll,
    Freight,
    Fuel,
    Instead,
    Packing,
    Residential,
    SoftPackTiers,
    Surcharge,
    Tail,
    VolumeTiers,
    WeightGrid,
)
from fardo.core.tariff.charges.freight import DENSITY_CLASSES
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.lint import overlapping
from fardo.core.tariff.measure import Bulky, Dimensional, WeightRule
from fardo.core.tariff.service import Service
from fardo.core.tariff.when import ALWAYS, When
from fardo.core.tariff.zones import ZoneRow
from fardo.files.typed import Measure, Strict, complaints, to_length, to_mass

FORMAT: Final = "fardo-tariff/1"
LARGEST_TARIFF = 4_000_000
EXAMPLE: Final = {
    "format": FORMAT,
    "carrier": "Fennick Carts",
    "currency": "USD",
    "services": [
        {
            "name": "Cart",
            "zones": [{"from": "1", "to": ["1-9"], "zone": "all", "days": [2, 5]}],
            "weight_step": "1 lb",
            "charges": [{"kind": "grid", "zones": ["all"], "rows": [["10 lb", "8.50"], ["30 lb", "14.25"]]}],
        }
    ],
}
_UNITS = {"ft3": volume_nm3(INCH * 12, INCH * 12, INCH * 12), "dm3": 10**24}
Key = TypeVar("Key")
Row = tuple[Key, tuple[Money, ...]]


class ZoneEntry(Strict):
    """``from`` is a prefix of the origin; ``to`` are prefixes or ranges of them, such as ``730-739``."""

    model_config = ConfigDict(populate_by_name=True)
    origin: str = Field("", alias="from", max_length=12)
    to: list[str] = Field(min_length=1, max_length=2000)
    zone: str
    days: tuple[int, int]


class DimensionalEntry(Strict):
    divisor: str
    unit: Literal["in3/lb", "cm3/kg"]
    sides: Literal["exact", "up", "down", "nearest-half-up", "nearest-half-down"] = Field(
        description="how each is rounded before they are multiplied"
    )
    threshold: str | None = Field(None, description="in in3 or cm3: a volume that is not over it is spared")
    step: Measure | None = Field(None, description="sides are rounded to it; a whole inch or centimetre unless said")
    odd: str = Field("1", description="what counts of the volume of what is not rectangular: 0.785, say")


class BulkyEntry(Strict):
    """What is large and light is billed as so much at least."""

    length_and_girth_over: Measure
    length_and_girth_to: Measure
    weight_under: Measure
    billed: Measure


class WhenEntry(Strict):
    """Conditions that must all hold; ``over`` is more than, ``to`` up to and including."""

    longest_side_over: Measure | None = None
    second_side_over: Measure | None = None
    length_and_girth_over: Measure | None = None
    length_and_girth_to: Measure | None = None
    weight_over: Measure | None = None
    weight_to: Measure | None = None
    billed_over: Measure | None = None
    linear_over: Measure | None = Field(None, description="length, width and height together")
    value_over: str | None = None
    forms: list[Literal["box", "soft", "not rectangular"]] = Field(default_factory=list, max_length=3)
    to: list[str] = Field(default_factory=list, max_length=2000, description="postcode prefixes or ranges")
    home: bool = False
    signature: bool = False

    def to_core(self, currency: str, units: Units) -> When:
        def length(name: str) -> Length | None:
            value = getattr(self, name)
            return None if value is None else to_length(value, units, f"when.{name}")

        def mass(name: str) -> Mass | None:
            value = getattr(self, name)
            return None if value is None else to_mass(value, units, f"when.{name}")

        return When(
            length("longest_side_over"), length("second_side_over"), length("length_and_girth_over"),
            length("length_and_girth_to"), mass("weight_over"), mass("weight_to"), mass("billed_over"),
            None if self.value_over is None else _money(self.value_over, currency, "when.value_over"),
            tuple(self.forms), tuple(self.to), self.home, self.signature, length("linear_over"),
        )  # fmt: skip


class LimitsEntry(Strict):
    longest_side: Measure | None = None
    second_side: Measure | None = None
    length_and_girth: Measure | None = None
    weight: Measure | None = None
    linear: Measure | None = Field(None, description="length, width and height together")


class ChargeBase(Strict):
    """What every charge may say of when it is made."""

    when: WhenEntry | None = Field(None, description="it is made only where this holds")
    unless: WhenEntry | None = Field(None, description="it is made only where this does not hold")
    for_all: bool = Field(False, description="once for all parcels that go together, by what they weigh together")


class Rows(ChargeBase):
    """A table: what a row is for, then a price a zone; one price where there are no zones."""

    zones: list[str] = Field(default_factory=list, max_length=60)
    rows: list[list[str]] = Field(min_length=1, max_length=1000)

    def read_rows(self, read: Callable[[str, str], Key], currency: str, rising: str = "") -> list[Row[Key]]:
        """Raises BadInput naming row and column. Args: rising: what must rise from row to row, in words."""
        found: list[Row[Key]] = []
        for n, row in enumerate(self.rows):
            key = read(row[0] if row else "", f"rows[{n}][0]")
            if found and rising and key <= found[-1][0]:  # type: ignore[operator]
                raise BadInput(
                    "not above the row before", read=row[0], allowed=f"rising {rising}", field=f"rows[{n}][0]"
                )
            found.append((key, _prices(row[1:], self.zones, currency, f"rows[{n}]")))
        return found


class TailEntry(Strict):
    step: Measure
    prices: list[str] = Field(min_length=1, max_length=60)


class GridEntry(Rows):
    kind: Literal["grid"]
    tail: TailEntry | None = Field(None, description="beyond the last row, for every step begun")

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, field: to_mass(text, units, field), currency, "weights")
        tail = None
        if self.tail is not None:
            prices = _prices(self.tail.prices, self.zones, currency, "tail.prices", 0)
            tail = Tail(to_mass(self.tail.step, units, "tail.step"), prices)
        return WeightGrid(tuple(self.zones), tuple(rows), tail)


class VolumeEntry(Rows):
    """By volume, whatever it weighs: rows of volume up to so much."""

    kind: Literal["volume"]
    unit: Literal["ft3", "dm3"] = "ft3"
    step: Measure = Field(description="each side is rounded down to it")
    longest_side: Measure
    weight: Measure

    def to_core(self, currency: str, units: Units) -> Charge:
        return VolumeTiers(
            tuple(self.zones), tuple(self.read_rows(_fraction, currency, "volumes")), (_UNITS[self.unit], self.unit),
            to_length(self.step, units, "step"), to_length(self.longest_side, units, "longest_side"),
            to_mass(self.weight, units, "weight"), units,
        )  # fmt: skip


class SoftPackEntry(Rows):
    """Soft packs by flat length and width together: rows of them up to so much."""

    kind: Literal["soft-pack"]
    side: Measure
    weight: Measure

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, field: to_length(text, units, field), currency, "lengths")
        return SoftPackTiers(
            tuple(self.zones), tuple(rows), to_length(self.side, units, "side"), to_mass(self.weight, units, "weight"),
            units,
        )  # fmt: skip


class ContainerEntry(Rows):
    """The carrier's own containers at a price whatever they weigh: rows by their names."""

    kind: Literal["container"]
    weight: Measure

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, _: text, currency)
        return ContainerPrice(tuple(self.zones), tuple(rows), to_mass(self.weight, units, "weight"), units)


class FreightEntry(Rows):
    """By density class: rows by class, the price of a hundred pounds a zone."""

    kind: Literal["freight"]
    minimum: str

    def to_core(self, currency: str, units: Units) -> Charge:
        classes = [name for _, name in DENSITY_CLASSES]

        def read(text: str, field: str) -> str:
            if text not in classes:
                raise BadInput("not a density class", read=text, allowed=", ".join(classes), field=field)
            return text

        rows = self.read_rows(read, currency)
        return Freight(tuple(self.zones), tuple(rows), _money(self.minimum, currency, "minimum"))


class SurchargeEntry(ChargeBase):
    """More, where `when` holds: `prices` a zone (or one), or `percent` of the lines named in `on`.

    Of a `group` only the first that holds is charged.
    """

    kind: Literal["surcharge"]
    code: str = Field(min_length=1, max_length=40, description="names its line, for percentages")
    what: str = Field(min_length=1, max_length=120)
    why: str = Field(max_length=200)
    zones: list[str] = Field(default_factory=list, max_length=60, description="of the prices, one each; none: for all")
    prices: list[str] | None = Field(None, max_length=60)
    percent: str | None = Field(None, description="in the place of prices")
    on: list[str] = Field(
        default_factory=lambda: ["postage"], max_length=20, description="lines the percentage is taken of"
    )
    group: str = Field("", max_length=40, description="of one group only the first that holds is charged")

    def to_core(self, currency: str, units: Units) -> Charge:
        if (self.prices is None) == (self.percent is None):
            raise BadInput("both or neither", read=str(self.prices), allowed="prices or percent", field="prices")
        prices = None if self.prices is None else _prices(self.prices, self.zones, currency, "prices", 0)
        percent = None if self.percent is None else _fraction(self.percent, "percent")
        return Surcharge(
            self.code, self.what, ALWAYS, self.why, tuple(self.zones), prices, percent, tuple(self.on), self.group
        )


class ResidentialEntry(ChargeBase):
    kind: Literal["residential"]
    amount: str

    def to_core(self, currency: str, units: Units) -> Charge:
        return Residential(_money(self.amount, currency, "amount"))


class FuelEntry(ChargeBase):
    kind: Literal["fuel"]
    percent: str
    on: list[str] = Field(default_factory=lambda: ["postage"])

    def to_core(self, currency: str, units: Units) -> Charge:
        return Fuel(_fraction(self.percent, "percent"), tuple(self.on))


class CoverEntry(ChargeBase):
    kind: Literal["cover"]
    free: str
    step: str
    price: str
    most: str

    def to_core(self, currency: str, units: Units) -> Charge:
        free, step, price, most = (
            _money(getattr(self, name), currency, name) for name in ("free", "step", "price", "most")
        )
        if step.minor <= 0:
            raise BadInput("no step at all", read=self.step, allowed="more than nothing", field="step")
        return Cover(free, step, price, most)


class DistanceEntry(ChargeBase):
    """So much for every mile or kilometre of the road."""

    kind: Literal["distance"]
    what: str = Field(min_length=1, max_length=120)
    why: str = Field("", max_length=200)
    price: str
    unit: Literal["mi", "km"]
    both_ways: bool = True

    def to_core(self, currency: str, units: Units) -> Charge:
        return Distance(self.what, self.why, _money(self.price, currency, "price"), self.unit, self.both_ways)


class PackingEntry(Rows):
    """Box and packing by one who packs too: rows of length, width and height together up to so much."""

    kind: Literal["packing"]

    def to_core(self, currency: str, units: Units) -> Charge:
        if self.zones:
            raise BadInput("zones", read=", ".join(self.zones), allowed="one price for all", field="zones")
        return Packing(
            tuple(self.read_rows(lambda text, field: to_length(text, units, field), currency, "lengths")), units
        )


ChargeEntry = Annotated[
    GridEntry
    | VolumeEntry
    | SoftPackEntry
    | ContainerEntry
    | FreightEntry
    | SurchargeEntry
    | ResidentialEntry
    | FuelEntry
    | CoverEntry
    | DistanceEntry
    | PackingEntry,
    Field(discriminator="kind"),
]


class ServiceEntry(Strict):
    name: str = Field(min_length=1, max_length=80)
    programme: str = Field("counter", max_length=40, description="counter, account, marketplace, negotiated")
    zones: list[ZoneEntry] = Field(min_length=1, max_length=2000)
    weight_step: Measure = Field(description="weights are billed in whole steps of it")
    dimensional: DimensionalEntry | None = None
    limits: LimitsEntry = Field(default_factory=LimitsEntry)
    charges: list[ChargeEntry] = Field(min_length=1, max_length=40)
    refuses: list[str] = Field(default_factory=list, max_length=40, description="hazards it does not take")
    bulky: BulkyEntry | None = None
    valid_from: date | None = None
    valid_to: date | None = None
    other_way: bool = Field(
        False, description="no carrier that calls but what else people weigh up; told beside the rest"
    )
    packs: bool = Field(False, description="it packs too: no box, wrap, fill, tape or time of the shop's own")
    note: str = Field("", max_length=300, description="what to know of it")


class TariffFile(Strict):
    format: Literal["fardo-tariff/1"] = FORMAT
    carrier: str = Field(min_length=1, max_length=80)
    currency: str
    units: Literal["in", "cm"] = "in"
    services: list[ServiceEntry] = Field(min_length=1, max_length=60)

    def to_core(self) -> tuple[Service, ...]:
        """Raises BadInput naming the field."""
        return tuple(self._service(entry, f"services[{n}]") for n, entry in enumerate(self.services))

    def _service(self, entry: ServiceEntry, path: str) -> Service:
        units: Units = self.units
        try:
            step = to_mass(entry.weight_step, units, "weight_step")
            return Service(
                carrier=self.carrier,
                name=entry.name,
                programme=entry.programme,
                currency=self.currency,
                units=units,
                zones=tuple(ZoneRow(z.origin, tuple(z.to), z.zone, z.days) for z in entry.zones),
                weights=WeightRule(step, _bulky(entry.bulky, units)),
                dimensional=_dimensional(entry.dimensional, units),
                limits=_limits(entry.limits, units),
                charges=tuple(_charge(c, self.currency, units, n) for n, c in enumerate(entry.charges)),
                refuses=_refuses(entry.refuses),
                valid=_valid(entry),
                other_way=entry.other_way,
                packs=entry.packs,
                note=entry.note,
            )
        except BadInput as problem:
            raise problem.under(path) from problem


def read_tariff(text: bytes | str) -> TariffFile:
    """A tariff file, checked to the last price. Raises BadInput naming the field."""
    try:
        tariff = TariffFile.model_validate(json.loads(text))
    except ValidationError as error:
        raise next(complaints(error)) from error
    except (ValueError, RecursionError) as error:
        raise BadInput(
            f"not JSON ({error})", read="the file", allowed=f"a file of format {FORMAT}", field="tariff file"
        ) from error
    check_tariff(tariff)
    return tariff


def check_tariff(tariff: TariffFile) -> None:
    """Raises BadInput, naming the field, for a tariff that some parcel could not be priced by, or twice: what cannot be
    read, a table without a column for a zone the service goes to, two price lists of one service on the same day."""
    services = tariff.to_core()
    for n, (entry, service) in enumerate(zip(tariff.services, services, strict=True)):
        for z, row in enumerate(entry.zones):
            _check_zone(row, f"services[{n}].zones[{z}]")
        zones = sorted({row.zone for row in service.zones})
        for c, charge in enumerate(entry.charges):
            columns = getattr(charge, "zones", None)
            # What is asked only under a condition may leave out the zones that are never under it.
            if not columns or charge.when or charge.unless or (isinstance(charge, SurchargeEntry) and charge.percent):
                continue
            if missing := [zone for zone in zones if zone not in columns]:
                raise BadInput(
                    f"no column for zone {', '.join(missing)}", read=", ".join(columns),
                    allowed="every zone it goes to", field=f"services[{n}].charges[{c}].zones",
                )  # fmt: skip
        if overlap := overlapping(services[: n + 1], of=service):
            raise BadInput(
                overlap[0], read=f"{entry.valid_from or 'any day'} to {entry.valid_to or 'any day'}",
                allowed="days of its own", field=f"services[{n}].valid_from",
            )  # fmt: skip


def _check_zone(row: ZoneEntry, field: str) -> None:
    least, most = row.days
    if not 0 <= least <= most <= 365:
        raise BadInput(
            "not days in order", read=f"{least}, {most}", allowed="the least, then the most", field=f"{field}.days"
        )
    for k, prefix in enumerate(row.to):
        low, dash, high = prefix.partition("-")
        if not low or (dash and (len(low) != len(high) or low > high)):
            raise BadInput(
                "neither a prefix nor a range", read=prefix, allowed="73, or 730-739", field=f"{field}.to[{k}]"
            )


def read_tariffs(folder: Path) -> list[TariffFile]:
    """Every ``*.tariff.json`` of a folder, by name. Raises BadInput where there is none, or one is wrong."""
    paths = sorted(folder.glob("*.tariff.json")) if folder.is_dir() else []
    if not paths:
        raise BadInput(
            "no tariff in it", read=str(folder), allowed="a folder with *.tariff.json files", field="tariffs"
        )
    found = []
    for path in paths:
        try:
            found.append(read_tariff(path.read_bytes()))
        except BadInput as problem:
            raise problem.under(path.name) from problem
    return found


def services_of(tariffs: Iterable[TariffFile]) -> list[Service]:
    """All services, in the order of the files."""
    return [service for tariff in tariffs for service in tariff.to_core()]


def _refuses(tags: list[str]) -> frozenset[str]:
    for n, tag in enumerate(tags):
        if tag not in TAGS:
            raise BadInput("not a hazard", read=tag, allowed=", ".join(sorted(TAGS)), field=f"refuses[{n}]")
    return frozenset(tags)


def _valid(entry: ServiceEntry) -> tuple[str | None, str | None]:
    first, last = entry.valid_from, entry.valid_to
    if first and last and last < first:
        raise BadInput("before valid_from", read=str(last), allowed=f"{first} or later", field="valid_to")
    return first.isoformat() if first else None, last.isoformat() if last else None


def _bulky(entry: BulkyEntry | None, units: Units) -> Bulky | None:
    if entry is None:
        return None
    return Bulky(
        to_length(entry.length_and_girth_over, units, "bulky.length_and_girth_over"),
        to_length(entry.length_and_girth_to, units, "bulky.length_and_girth_to"),
        to_mass(entry.weight_under, units, "bulky.weight_under"), to_mass(entry.billed, units, "bulky.billed"),
    )  # fmt: skip


def _dimensional(entry: DimensionalEntry | None, units: Units) -> Dimensional | None:
    if entry is None:
        return None
    threshold = None if entry.threshold is None else _fraction(entry.threshold, "dimensional.threshold")
    divisor = _fraction(entry.divisor, "dimensional.divisor")
    if divisor <= 0:
        raise BadInput("no divisor", read=entry.divisor, allowed="more than nothing", field="dimensional.divisor")
    step = None if entry.step is None else to_length(entry.step, units, "dimensional.step")
    return Dimensional(divisor, entry.unit, entry.sides, threshold, step, _fraction(entry.odd, "dimensional.odd"))


def _limits(entry: LimitsEntry, units: Units) -> Limits:
    def length(name: str) -> object:
        value = getattr(entry, name)
        return None if value is None else to_length(value, units, f"limits.{name}")

    return Limits(
        length("longest_side"), length("second_side"), length("length_and_girth"),  # type: ignore[arg-type]
        None if entry.weight is None else to_mass(entry.weight, units, "limits.weight"),
        length("linear"),  # type: ignore[arg-type]
    )  # fmt: skip


def _charge(entry: ChargeEntry, currency: str, units: Units, n: int) -> Charge:
    try:
        charge = entry.to_core(currency, units)
        for said, unless in ((entry.when, False), (entry.unless, True)):
            if said is not None:
                charge = Instead(charge, said.to_core(currency, units), unless)
        return ForAll(charge) if entry.for_all else charge
    except BadInput as problem:
        raise problem.under(f"charges[{n}]") from problem


def _prices(texts: list[str], zones: list[str], currency: str, field: str, offset: int = 1) -> tuple[Money, ...]:
    """A price a zone, or one where there are none; `offset` is the column of the first."""
    wanted = max(1, len(zones))
    if len(texts) != wanted:
        raise BadInput(f"{len(texts)} prices", read=texts, allowed=f"one for each of {wanted} zones", field=field)
    return tuple(_money(text, currency, f"{field}[{n + offset}]") for n, text in enumerate(texts))


def _money(text: str, currency: str, field: str) -> Money:
    try:
        return Money.read(text, currency)
    except BadInput as problem:
        raise problem.under(field) from problem


def _fraction(text: str, field: str) -> Fraction:
    try:
        return Fraction(text)
    except (ValueError, ZeroDivisionError) as error:
        raise BadInput("not a number", read=text, allowed="a decimal such as 166 or 14.5", field=field) from error
