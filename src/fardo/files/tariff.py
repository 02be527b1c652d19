"""The tariff file, format fardo-tariff/1: a carrier's services with their zones, weights, measures and charges.

Its JSON Schema is in docs. A new kind of charge is a class here and one in `core.tariff.charges`.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from fractions import Fraction
from pathlib import Path
from typing import Annotated, Final, Literal

from pydantic import ConfigDict, Field, ValidationError

from fardo.core.goods.hazard import TAGS
from fardo.core.quantity import Mass, Money, Units
from fardo.core.refusal import BadInput
from fardo.core.tariff.charges import Charge, Cover, Fuel, Residential, WeightGrid
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.measure import Dimensional, WeightRule
from fardo.core.tariff.service import Service
from fardo.core.tariff.zones import ZoneRow
from fardo.files.typed import Measure, Strict, complaints, to_length, to_mass

FORMAT: Final = "fardo-tariff/1"


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
    sides: Literal["exact", "up", "down", "nearest-half-up", "nearest-half-down"]
    threshold: str | None = None


class LimitsEntry(Strict):
    longest_side: Measure | None = None
    second_side: Measure | None = None
    length_and_girth: Measure | None = None
    weight: Measure | None = None


class GridEntry(Strict):
    kind: Literal["grid"]
    zones: list[str] = Field(min_length=1, max_length=60)
    rows: list[list[str]] = Field(min_length=1, max_length=1000, description="weight up to, then a price a zone")

    def to_core(self, currency: str, units: Units) -> Charge:
        rows: list[tuple[Mass, tuple[Money, ...]]] = []
        for n, row in enumerate(self.rows):
            if len(row) != len(self.zones) + 1:
                raise BadInput(
                    f"{len(row) - 1} prices",
                    read=row,
                    allowed=f"one for each of {len(self.zones)} zones",
                    field=f"rows[{n}]",
                )
            up_to = to_mass(row[0], units, f"rows[{n}][0]")
            if rows and up_to <= rows[-1][0]:
                raise BadInput("not above the row before", read=row[0], allowed="rising weights", field=f"rows[{n}][0]")
            rows.append((up_to, tuple(Money.read(price, currency) for price in row[1:])))
        return WeightGrid(tuple(self.zones), tuple(rows))


class ResidentialEntry(Strict):
    kind: Literal["residential"]
    amount: str

    def to_core(self, currency: str, units: Units) -> Charge:
        return Residential(Money.read(self.amount, currency))


class FuelEntry(Strict):
    kind: Literal["fuel"]
    percent: str
    on: list[str] = Field(default_factory=lambda: ["postage"])

    def to_core(self, currency: str, units: Units) -> Charge:
        return Fuel(_fraction(self.percent, "percent"), tuple(self.on))


class CoverEntry(Strict):
    kind: Literal["cover"]
    free: str
    step: str
    price: str
    most: str

    def to_core(self, currency: str, units: Units) -> Charge:
        free, step, price, most = (Money.read(text, currency) for text in (self.free, self.step, self.price, self.most))
        if step.minor <= 0:
            raise BadInput("no step at all", read=self.step, allowed="more than nothing", field="step")
        return Cover(free, step, price, most)


ChargeEntry = Annotated[GridEntry | ResidentialEntry | FuelEntry | CoverEntry, Field(discriminator="kind")]


class ServiceEntry(Strict):
    name: str = Field(min_length=1, max_length=80)
    programme: str = Field("counter", max_length=40)
    zones: list[ZoneEntry] = Field(min_length=1, max_length=2000)
    weight_step: Measure
    dimensional: DimensionalEntry | None = None
    limits: LimitsEntry = Field(default_factory=LimitsEntry)
    charges: list[ChargeEntry] = Field(min_length=1, max_length=40)
    refuses: list[str] = Field(default_factory=list, max_length=40, description="hazards it does not take")


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
                weights=WeightRule(step),
                dimensional=_dimensional(entry.dimensional),
                limits=_limits(entry.limits, units),
                charges=tuple(_charge(c, self.currency, units, n) for n, c in enumerate(entry.charges)),
                refuses=_refuses(entry.refuses),
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
    tariff.to_core()
    return tariff


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


def _dimensional(entry: DimensionalEntry | None) -> Dimensional | None:
    if entry is None:
        return None
    threshold = None if entry.threshold is None else _fraction(entry.threshold, "dimensional.threshold")
    divisor = _fraction(entry.divisor, "dimensional.divisor")
    if divisor <= 0:
        raise BadInput("no divisor", read=entry.divisor, allowed="more than nothing", field="dimensional.divisor")
    return Dimensional(divisor, entry.unit, entry.sides, threshold)


def _limits(entry: LimitsEntry, units: Units) -> Limits:
    def length(name: str) -> object:
        value = getattr(entry, name)
        return None if value is None else to_length(value, units, f"limits.{name}")

    return Limits(
        length("longest_side"), length("second_side"), length("length_and_girth"),  # type: ignore[arg-type]
        None if entry.weight is None else to_mass(entry.weight, units, "limits.weight"),
    )  # fmt: skip


def _charge(entry: ChargeEntry, currency: str, units: Units, n: int) -> Charge:
    try:
        return entry.to_core(currency, units)
    except BadInput as problem:
        raise problem.under(f"charges[{n}]") from problem


def _fraction(text: str, field: str) -> Fraction:
    try:
        return Fraction(text)
    except (ValueError, ZeroDivisionError) as error:
        raise BadInput("not a number", read=text, allowed="a decimal such as 166 or 14.5", field=field) from error
