"""The carriers' tariffs: looked at, read in, looked over, tried with a size, archived, restored to a version."""

from __future__ import annotations

import json
from itertools import count
from typing import Annotated, Any, cast

from fastapi import Path, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict, Field
from pydantic.config import JsonDict

from fardo.api import views
from fardo.api.context import AppContext, Context
from fardo.api.downloads import download
from fardo.api.quotes import view_quote, view_refused
from fardo.api.resource import resource
from fardo.api.tariff_rows import TariffRow, view_tariff
from fardo.core.quantity import read_flat, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.lint import look_over, overlapping
from fardo.core.tariff.parcel import Parcel, read_postcode, soft_pack
from fardo.core.tariff.service import compare
from fardo.files.charges import ChargeEntry, Rows
from fardo.files.grid_csv import LARGEST_TABLE, grid_csv, in_the_table, read_grid
from fardo.files.own_prices import with_own_prices
from fardo.files.tariff import EXAMPLE, ServiceEntry, TariffFile, check_tariff, read_tariff
from fardo.files.tariff_forms import FORMS, FormCode, begin_tariff

router = resource("/api/tariffs", "tariffs")

Carrier = Annotated[str, Path(max_length=80)]


class LookedOver(BaseModel):
    problem: str = Field(description="why it cannot be kept as it is, for beside the field; else nothing")
    field: str
    findings: list[str]


@router.get("")
def list_tariffs(context: Context) -> list[TariffRow]:
    """Every carrier's tariff with what is worth a second look."""
    return [view_tariff(stored, context) for stored in context.settings.stored_tariffs()]


_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}, "example": EXAMPLE}},
    }
}


@router.post("/file", status_code=201, openapi_extra=_BODY)
async def read_in(request: Request, context: Context) -> TariffRow:
    """Takes a tariff file as it is, in the place of the carrier's own. Nothing is kept of one with a fault."""
    content = await request.body()
    return await run_in_threadpool(_keep, content, context)


def _keep(content: bytes, context: AppContext) -> TariffRow:
    tariff = read_tariff(content)
    context.settings.keep_tariff(tariff)
    return view_tariff(context.settings.tariff(tariff.carrier), context)


@router.get("/{carrier}/file", response_class=Response)
def write_out(carrier: Carrier, context: Context) -> Response:
    """The tariff as an open file."""
    tariff = context.settings.tariff(carrier).tariff
    content = json.dumps(tariff.model_dump(mode="json", by_alias=True, exclude_none=True), indent=1, ensure_ascii=False)
    return download(content + "\n", "application/json", carrier, ".tariff.json")


_OTHER: JsonDict = cast(JsonDict, EXAMPLE) | {"carrier": "Oddbarrow"}
_CHANGED: JsonDict = {"revision": 1, "tariff": _OTHER}


class TariffChange(BaseModel):
    """A tariff as it should be, and the version it was changed from."""

    model_config = ConfigDict(json_schema_extra={"examples": [_CHANGED]})
    revision: int = Field(ge=1, le=10**9)
    tariff: dict[str, Any] = Field(description="a tariff file; read whole or not at all")


class TariffWhole(BaseModel):
    revision: int
    tariff: TariffFile


@router.get("/-/form")
def form() -> dict[str, Any]:
    """What a tariff may hold, as a JSON Schema: the screen that changes one is drawn from it."""
    return TariffFile.model_json_schema(by_alias=True)


Number = Annotated[int, Path(ge=0, le=1000)]
Version = Annotated[int, Path(ge=1, le=10**9)]


class FormRow(BaseModel):
    """A form that a tariff is begun from."""

    code: FormCode
    title: str
    about: str


@router.get("/-/forms")
def forms() -> list[FormRow]:
    """How carriers price: what a tariff can be begun from."""
    return [FormRow(code=code, title=form.title, about=form.about) for code, form in FORMS.items()]


class Begun(BaseModel):
    """A tariff to begin."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"form": "zone-weight", "carrier": "Fennick Carts"}]})
    form: FormCode
    carrier: str = Field(min_length=1, max_length=80)


@router.post("/-/begin", status_code=201)
def begin(wanted: Begun, context: Context) -> TariffRow:
    """Begins a carrier's tariff from a form with placeholder prices, or adds such a service to the tariff it has."""
    file, name = context.today.file, wanted.carrier.strip()
    if not name:
        raise BadInput("nothing", read=wanted.carrier, allowed="the carrier's name", field="carrier")
    boxes = [one.name for one in file.boxes if one.carrier == name]
    begun = begin_tariff(wanted.form, name, file.currency, file.units, file.postcode, boxes)
    check_tariff(begun)
    there = next((one for one in context.settings.stored_tariffs() if one.tariff.carrier == name), None)
    if there is None or there.archived_at is not None:
        context.settings.keep_tariff(begun)
    elif begun.services[0] not in there.tariff.services:  # pressed twice, or asked again after a lost answer
        service = _as_of(begun.services[0], there.tariff)
        grown = there.tariff.model_copy(update={"services": [*there.tariff.services, service]})
        check_tariff(grown)
        context.settings.keep_tariff(grown, there.revision)
    return view_tariff(context.settings.tariff(name), context)


def _as_of(service: ServiceEntry, tariff: TariffFile) -> ServiceEntry:
    """The service under a name that the tariff has none of yet."""
    names = {one.name for one in tariff.services}
    called = (f"{service.name} {n}" if n > 1 else service.name for n in count(1))
    return service.model_copy(update={"name": next(one for one in called if one not in names)})


class OwnPrices(BaseModel):
    """A table of prices, and a zone chart where its zones are others, as they were pasted."""

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"table": "up to,2,3\n5 lb,8.10,9.20", "zones": "0-4,2,1-2\n5-9,3,2-4\nA-Z,3"}]}
    )
    table: str = Field(max_length=LARGEST_TABLE)
    zones: str = Field("", max_length=LARGEST_TABLE)


@router.put("/{carrier}/services/{service}/own")
def own_prices(carrier: Carrier, service: Number, own: OwnPrices, context: Context) -> TariffRow:
    """Puts the carrier's own prices in the place of placeholders. Nothing is kept of what has a fault."""
    stored = context.settings.tariff(carrier)
    context.settings.keep_tariff(with_own_prices(stored.tariff, service, own.table, own.zones), stored.revision)
    return view_tariff(context.settings.tariff(carrier), context)


@router.get("/{carrier}")
def whole(carrier: Carrier, context: Context) -> TariffWhole:
    """The tariff as it is changed on the screen."""
    stored = context.settings.tariff(carrier)
    return TariffWhole(revision=stored.revision, tariff=stored.tariff)


@router.put("/{carrier}")
def change(carrier: Carrier, change: TariffChange, context: Context) -> TariffRow:
    """Keeps a changed tariff as the newest version; answers 409 where it was changed since the one named."""
    tariff = read_tariff(json.dumps(change.tariff))
    if tariff.carrier != carrier:
        raise BadInput("another carrier", read=tariff.carrier, allowed=carrier, field="carrier")
    context.settings.keep_tariff(tariff, change.revision)
    return view_tariff(context.settings.tariff(carrier), context)


@router.post("/look-over", openapi_extra=_BODY)
async def look(request: Request) -> LookedOver:
    """What is wrong or worth a second look in a tariff that is being changed; keeps nothing."""
    content = await request.body()
    return await run_in_threadpool(_look, content)


def _look(content: bytes) -> LookedOver:
    try:
        services = read_tariff(content).to_core()
    except BadInput as problem:
        return LookedOver(problem=problem.plain, field=problem.field, findings=[])
    found = [f"{service.name}, {finding}" for service in services for finding in look_over(service)]
    return LookedOver(problem="", field="", findings=[*found, *overlapping(services)])


_TABLE = {"requestBody": {"required": True, "content": {"text/csv": {"schema": {"type": "string"}}}}}


@router.get("/{carrier}/services/{service}/charges/{charge}/table.csv", response_class=Response)
def table_out(carrier: Carrier, service: Number, charge: Number, context: Context) -> Response:
    """The table of a charge, a column a zone. Services and charges are counted from 0."""
    tariff = context.settings.tariff(carrier).tariff
    table = _table(tariff, service, charge)
    return download(grid_csv(table), "text/csv", f"{carrier} {tariff.services[service].name}", "-table.csv")


@router.put("/{carrier}/services/{service}/charges/{charge}/table", openapi_extra=_TABLE)
async def table_in(carrier: Carrier, service: Number, charge: Number, request: Request, context: Context) -> TariffRow:
    """Takes a table from CSV in the place of the charge's own. Nothing is kept of one with a fault."""
    content = await request.body()
    return await run_in_threadpool(_take_table, carrier, service, charge, content, context)


def _take_table(carrier: str, service: int, charge: int, content: bytes, context: AppContext) -> TariffRow:
    stored = context.settings.tariff(carrier)
    read = read_grid(content, _table(stored.tariff, service, charge))
    tariff = stored.tariff.model_copy(deep=True)
    tariff.services[service].charges[charge] = cast(ChargeEntry, read)
    tariff.services[service].placeholder = False
    try:
        check_tariff(tariff)
    except BadInput as problem:
        raise in_the_table(problem) from problem
    context.settings.keep_tariff(tariff, stored.revision)
    return view_tariff(context.settings.tariff(carrier), context)


def _table(tariff: TariffFile, service: int, charge: int) -> Rows:
    """Raises BadInput where there is none at that place."""
    try:
        found = tariff.services[service].charges[charge]
    except IndexError:
        found = None
    if not isinstance(found, Rows):
        raise BadInput("no table", read=f"{service}, {charge}", allowed="a charge with rows", field="charge")
    return found


@router.delete("/{carrier}")
def archive(carrier: Carrier, context: Context) -> TariffRow:
    """Its services are not asked any more. It can be restored."""
    context.settings.archive_tariff(carrier)
    return view_tariff(context.settings.tariff(carrier), context)


@router.post("/{carrier}/restore")
def restore(carrier: Carrier, context: Context) -> TariffRow:
    context.settings.restore_tariff(carrier)
    return view_tariff(context.settings.tariff(carrier), context)


@router.post("/{carrier}/versions/{revision}")
def back_to(carrier: Carrier, revision: Version, context: Context) -> TariffRow:
    """An earlier version becomes the newest; none is lost."""
    context.settings.keep_tariff(context.settings.tariff_version(carrier, revision))
    return view_tariff(context.settings.tariff(carrier), context)


class Trial(BaseModel):
    """A parcel to try a tariff with."""

    model_config = ConfigDict(
        populate_by_name=True,
        json_schema_extra={"examples": [{"size": "24x12x8in", "weight": "9 lb", "from": "10440", "to": "73120"}]},
    )
    size: str = Field(max_length=80)
    weight: str = Field(max_length=40)
    origin: str = Field("", alias="from", max_length=20, description="the shop's own postcode unless said")
    to: str = Field(max_length=20)
    home: bool = False
    soft: bool = Field(False, description="in a bag or an envelope")
    flat: str = Field("", max_length=80, description="of a soft pack as it lies empty and trimmed; else from its size")


@router.post("/{carrier}/try")
def try_out(carrier: Carrier, trial: Trial, context: Context) -> views.LineAnswer:
    """What each of its services asks for a parcel, or why it does not take it."""
    today = context.today
    units = today.shop.units
    parcel = Parcel(
        read_sizes(trial.size, units, field="size"),
        read_mass(trial.weight, "lb" if units == "in" else "kg", field="weight"),
        read_postcode(trial.origin or today.file.postcode, "from"), read_postcode(trial.to, "to"), trial.home,
    )  # fmt: skip
    if trial.soft or trial.flat.strip():
        flat = read_flat(trial.flat, units, field="flat") if trial.flat.strip() else None
        parcel = soft_pack(parcel, flat)
    services = context.settings.tariff(carrier).tariff.to_core()
    quotes, refused = compare(services, parcel, exchange=today.shop.exchange)
    return views.LineAnswer(
        kind="price", quotes=[view_quote(quote, units) for quote in quotes], refused=view_refused(refused)
    )
