"""The tariff file, format fardo-tariff/1: a carrier's services with their zones, weights, measures and charges.

Its JSON Schema is in docs. Its charges are in `files.charges`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from datetime import date
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Final, Literal

from pydantic import ConfigDict, Field, ValidationError
from pydantic_core import from_json

from fardo.core.quantity import Units, read_decimal
from fardo.core.refusal import BadInput
from fardo.core.tariff.limits import Limits
from fardo.core.tariff.lint import overlapping
from fardo.core.tariff.measure import Bulky, Dimensional, WeightRule
from fardo.core.tariff.service import Service
from fardo.core.tariff.zones import ZoneRow
from fardo.files.charges import ChargeEntry, FuelEntry, SurchargeEntry, charge_of
from fardo.files.family import TagName
from fardo.files.typed import Measure, Strict, Weight, complaints, to_length, to_mass

FORMAT: Final = "fardo-tariff/1"
MOST_SERVICES: Final = 60
_CARRIER = re.compile(r"[^/]*[^\W_][^/]*")  # it stands in an address, where a dash alone stands for something else
_MOST_FUEL = 100
_MOST_DIVISOR = 1_000_000
_MOST_VOLUME = 1_000_000_000  # cubic inches or centimetres
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


Days = Annotated[int, Field(ge=0, le=1000)]


class ZoneEntry(Strict):
    """``from`` is a prefix of the origin; ``to`` are prefixes or ranges of them, such as ``730-739``."""

    model_config = ConfigDict(populate_by_name=True)
    origin: str = Field("", alias="from", max_length=12)
    to: list[str] = Field(min_length=1, max_length=2000, title="destination postcodes")
    zone: str
    days: tuple[Days, Days]
    country: Annotated[
        str, Field(pattern=r"^([A-Z]{2})?$", description="code of the one it goes to, empty at home")
    ] = ""


class DimensionalEntry(Strict):
    divisor: str
    unit: Literal["in3/lb", "cm3/kg"]
    sides: Literal["exact", "up", "down", "nearest-half-up", "nearest-half-down"] = Field(
        description="how each is rounded before they are multiplied", title="sides rounded"
    )
    threshold: str | None = Field(
        None, description="in in3 or cm3: a volume that is not over it is spared", title="only above a volume of"
    )
    step: Measure | None = Field(
        None, description="sides are rounded to it; a whole inch or centimetre unless said", title="sides rounded to"
    )
    odd: str = Field(
        "1",
        description="what counts of the volume of what is not rectangular: 0.785, say",
        title="share of volume if not rectangular",
    )


class BulkyEntry(Strict):
    """What is large and light is billed as so much at least."""

    length_and_girth_over: Measure
    length_and_girth_to: Measure
    weight_under: Weight
    billed: Weight


class LimitsEntry(Strict):
    longest_side: Measure | None = None
    second_side: Measure | None = None
    length_and_girth: Measure | None = None
    weight: Weight | None = None
    linear: Measure | None = Field(
        None, description="length, width and height together", title="length + width + height"
    )
    thickness: Measure | None = Field(None, description="the shortest side", title="shortest side")
    bends: bool = Field(False, description="takes only what bends, as a letter", title="only what bends")


class ServiceEntry(Strict):
    name: str = Field(min_length=1, max_length=80)
    programme: str = Field(
        "counter", max_length=40, description="counter, account, marketplace, negotiated", title="rate plan"
    )
    zones: list[ZoneEntry] = Field(min_length=1, max_length=2000)
    weight_step: Weight = Field(description="weights are billed in whole steps of it", title="weight rounded up to")
    dimensional: DimensionalEntry | None = None
    limits: LimitsEntry = Field(default_factory=LimitsEntry, title="size and weight limits")
    charges: list[ChargeEntry] = Field(min_length=1, max_length=40)
    refuses: list[TagName] = Field(
        default_factory=list, max_length=40, description="hazards it does not take", title="hazards refused"
    )
    bulky: BulkyEntry | None = Field(None, title="minimum billed weight of large, light parcels")
    valid_from: date | None = None
    valid_to: date | None = None
    other_way: bool = Field(
        False, description="no carrier that calls but what else people weigh up; told beside the rest"
    )
    packs: bool = Field(
        False,
        description="it packs too: no box, wrap, fill, tape or time of the shop's own",
        title="packs for the shop",
    )
    note: str = Field("", max_length=300, description="what to know of it")
    tracked: bool | None = Field(None, description="whether it is tracked")
    form: Literal["letter", "flat", "parcel"] = "parcel"
    placeholder: bool = Field(
        False, description="its prices are invented until its own are entered; no label is bought by them",
        title="placeholder prices",
    )  # fmt: skip

    def holds_on(self, day: date) -> bool:
        """Whether its prices do."""
        return (self.valid_from is None or self.valid_from <= day) and (self.valid_to is None or self.valid_to >= day)


class TariffFile(Strict):
    format: Literal["fardo-tariff/1"] = FORMAT
    carrier: str = Field(min_length=1, max_length=80)
    currency: str
    units: Literal["in", "cm"] = "in"
    services: list[ServiceEntry] = Field(min_length=1, max_length=MOST_SERVICES)

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
                rate_plan=entry.programme,
                currency=self.currency,
                units=units,
                zones=tuple(ZoneRow(z.origin, tuple(z.to), z.zone, z.days, z.country) for z in entry.zones),
                weights=WeightRule(step, _bulky(entry.bulky, units)),
                dimensional=_dimensional(entry.dimensional, units),
                limits=_limits(entry.limits, units),
                charges=tuple(charge_of(c, self.currency, units, n) for n, c in enumerate(entry.charges)),
                refuses=frozenset(entry.refuses),
                valid=_valid(entry),
                other_way=entry.other_way,
                packs=entry.packs,
                note=entry.note,
                tracked=entry.tracked,
                form=entry.form,
                placeholder=entry.placeholder,
            )
        except BadInput as problem:
            raise problem.under(path) from problem


def read_tariff(text: bytes | str) -> TariffFile:
    """A tariff file, checked to the last price. Raises BadInput naming the field."""
    try:
        tariff = TariffFile.model_validate(from_json(text))
    except ValidationError as error:
        raise next(complaints(error, TariffFile)) from error
    except ValueError as error:
        raise BadInput(
            f"not JSON ({error})", read="the file", allowed=f"a file of format {FORMAT}", field="tariff file"
        ) from error
    check_tariff(tariff)
    return tariff


def check_tariff(tariff: TariffFile) -> None:
    """Raises BadInput, naming the field, for a tariff that some parcel could not be priced by, or twice: what cannot be
    read, a table without a column for a zone the service goes to, two price lists of one service on the same day.

    Stricter than what reads a kept tariff, in carriers' names, fuel and shares: a shop is not served with a tariff that
    cannot be read, so what could be kept before still opens.
    """
    if not _CARRIER.fullmatch(tariff.carrier):
        raise BadInput(
            "not a name that can be opened", read=tariff.carrier, field="carrier",
            allowed="a name with a letter or figure in it, without /",
        )  # fmt: skip
    services = tariff.to_core()
    for n, (entry, service) in enumerate(zip(tariff.services, services, strict=True)):
        for z, row in enumerate(entry.zones):
            _check_zone(row, f"services[{n}].zones[{z}]")
        if entry.dimensional is not None:
            field = f"services[{n}].dimensional.odd"
            read_decimal(entry.dimensional.odd, most=1, more_than_least=True, example="0.785", field=field)
        zones = sorted({row.zone for row in service.zones})
        for c, charge in enumerate(entry.charges):
            if isinstance(charge, FuelEntry):
                read_decimal(charge.percent, most=_MOST_FUEL, field=f"services[{n}].charges[{c}].percent")
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


@lru_cache(maxsize=64)
def services_in(text: str) -> tuple[Service, ...]:
    """The services of a kept tariff, worked out once for as long as it stays the same.

    Raises: ValidationError or BadInput where it cannot be read.
    """
    return TariffFile.model_validate_json(text).to_core()


def services_of(tariffs: Iterable[TariffFile]) -> list[Service]:
    """All services, in the order of the files."""
    return [service for tariff in tariffs for service in tariff.to_core()]


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
    threshold = None
    if entry.threshold is not None:
        threshold = read_decimal(entry.threshold, most=_MOST_VOLUME, example="1728", field="dimensional.threshold")
    divisor = read_decimal(
        entry.divisor, most=_MOST_DIVISOR, more_than_least=True, example="166", field="dimensional.divisor"
    )
    step = None if entry.step is None else to_length(entry.step, units, "dimensional.step")
    odd = read_decimal(entry.odd, most=10, more_than_least=True, example="0.785", field="dimensional.odd")
    return Dimensional(divisor, entry.unit, entry.sides, threshold, step, odd)


def _limits(entry: LimitsEntry, units: Units) -> Limits:
    def length(name: str) -> object:
        value = getattr(entry, name)
        return None if value is None else to_length(value, units, f"limits.{name}")

    return Limits(
        length("longest_side"), length("second_side"), length("length_and_girth"),  # type: ignore[arg-type]
        None if entry.weight is None else to_mass(entry.weight, units, "limits.weight"),
        length("linear"), length("thickness"), entry.bends,  # type: ignore[arg-type]
    )  # fmt: skip
