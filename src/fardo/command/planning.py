"""Plans and prices from the shell."""

from __future__ import annotations

import time
from dataclasses import replace
from pathlib import Path
from typing import Annotated, cast

import typer
from rich.table import Table

from fardo.answers import alternative_json, habit_json, plan_json, quote_json, refused_json
from fardo.arranging import Effort, Whole, Workers, arranger, cheapest_here, refuse
from fardo.command.shared import AsJson, DbFile, TariffFolder, bytes_of, one_of, open_shop, out, print_json
from fardo.core.arrange.ask import Arrangement
from fardo.core.goods.shape import Scanned, scanned
from fardo.core.plan.alternatives import alternatives, habit
from fardo.core.plan.load import Load, ask_of, not_in_one
from fardo.core.plan.parcels import plans_in_parcels
from fardo.core.plan.picture import best_plans
from fardo.core.plan.price import compared
from fardo.core.plan.weighed import Weighed
from fardo.core.quantity import (
    Length,
    Money,
    Units,
    read_distance,
    read_flat,
    read_mass,
    read_sizes,
    show_mass,
    show_sizes,
)
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.parcel import Parcel, read_postcode, soft_pack
from fardo.core.tariff.service import compare
from fardo.files.job import read_job
from fardo.files.mesh import read_mesh
from fardo.files.shapes import MeshFinder
from fardo.files.understood import understand

# Parcels that are worked out at most, where a job may go in several.
_LOOKED_AT: dict[Effort, int] = {"quick": 24, "normal": 80, "long": 400}
_LISTED = 4  # arrangements whose plans are listed beside everything side by side


def plan(
    job: Annotated[Path, typer.Argument(help="A job file.")],
    as_json: AsJson = False,
    seed: Annotated[int, typer.Option(help="Same file, seed and effort give the same plans.")] = 0,
    effort: Annotated[str, typer.Option(help="quick, normal or long.")] = "normal",
    db: DbFile = None,
    tariffs: TariffFolder = None,
) -> None:
    """The boxes and services for a job, best first."""
    one_of(effort, ("quick", "normal", "long"), "effort")
    started = time.monotonic()
    file = read_job(bytes_of(job, "job file"))
    shop_file, carriers = open_shop(db, tariffs, file.chosen.price)
    shop = shop_file.to_core()
    read = understand(file, shop, shop_file.postcode, _meshes_beside(job))
    load = read.must_load()
    read.must_go()  # said before a search that takes seconds
    arrangements = _arrangements(Whole(read, shop, carriers, seed), load, cast(Effort, effort))
    arrange_one = None if effort == "quick" else arranger(shop, carriers, seed)
    several = plans_in_parcels(read, shop, carriers, _LOOKED_AT[cast(Effort, effort)], arrange_one)
    plans = best_plans(read, arrangements, shop, carriers, several)
    others, usual = alternatives(plans, shop, read.value), habit(read, shop, carriers)
    if as_json:
        elapsed = round(time.monotonic() - started, 4)
        print_json(
            {
                "plans": [plan_json(p) for p in plans],
                "compared": compared(plans),
                "alternatives": [alternative_json(one) for one in others],
                "habit": habit_json(usual, plans[0]) if usual is not None else None,
                "left_aside": [],  # nothing is any more; the name is part of the contract
                "elapsed_s": elapsed,
            }
        )
        return
    table = Table("Total", "Box and service", "Outside", "Weighs", "Billed", "Days", title=file.title or None)
    for p in plans:
        days, billed = p.quote.days, (p.quote.billing, *p.quote.beside)
        table.add_row(
            str(p.costs.total), p.label,
            "\n".join(show_sizes(boxed.made.outside, shop.units, "up").text for boxed in p.boxes),
            "\n".join(show_mass(boxed.weights.total, shop.units, "up").text for boxed in p.boxes),
            "\n".join(show_mass(one.billed, shop.units, "up").text for one in billed), f"{days[0]}-{days[1]}",
        )  # fmt: skip
    out.print(table)
    out.print(compared(plans))
    for one in others:
        aims = ", ".join(one.aims)
        out.print(f"{aims[0].upper()}{aims[1:]}: {one.plan.costs.total}, {one.plan.label}. {one.why} {one.gives_up}")
    if usual is not None and (saved := usual.saved_by(plans[0])):
        out.print(f"Usual practice, {usual.box}, it costs {usual.plan.costs.total}: the cheapest saves {saved}.")


def price(
    size: Annotated[list[str], typer.Option(help="Outside size: 24x12x8in. Once for each parcel that goes together.")],
    weight: Annotated[list[str], typer.Option(help="Weight: 9lb. Once for each.")],
    to: Annotated[str, typer.Option(help="Postcode it goes to.")],
    origin: Annotated[str, typer.Option("--from", help="Postcode it leaves from.")],
    residential: Annotated[bool, typer.Option(help="To a residential address.")] = False,
    value: Annotated[str | None, typer.Option(help="Declared value, of the first parcel.")] = None,
    signature: Annotated[bool, typer.Option(help="Asked for on delivery.")] = False,
    distance: Annotated[str | None, typer.Option(help="By road, for one's own delivery: 40mi")] = None,
    form: Annotated[str, typer.Option(help="box, or soft for a bag or an envelope.")] = "box",
    flat: Annotated[
        str | None, typer.Option(help="Of a soft pack, empty and trimmed: 13x18in. From its size unless given.")
    ] = None,
    as_json: AsJson = False,
    db: DbFile = None,
    tariffs: TariffFolder = None,
) -> None:
    """What each service asks for a parcel, or for several that go together, cheapest first."""
    shop_file, carriers = open_shop(db, tariffs)
    services = carriers.services
    units: Units = shop_file.units
    if len(size) != len(weight):
        raise BadInput(f"{len(weight)} weights", read=", ".join(weight), allowed="one for each size", field="weight")
    first, *beside = (
        Parcel(
            read_sizes(one, units, field="size"), read_mass(weighs, "lb" if units == "in" else "kg", field="weight"),
            read_postcode(origin, "from"), read_postcode(to, "to"), residential, signature=signature,
        )
        for one, weighs in zip(size, weight, strict=True)
    )  # fmt: skip
    one_of(form, ("box", "soft"), "form")
    if flat and form != "soft":
        raise BadInput("a flat size is of a soft pack", read=flat, allowed="with --form soft", field="flat")
    if form == "soft":
        first = soft_pack(first, read_flat(flat, units, field="flat") if flat else None)
    parcel = replace(
        first,
        beside=tuple(beside),
        value=Money.read(value, shop_file.currency) if value else None,
        distance=read_distance(distance, units, field="distance") if distance else None,
    )
    exchange = shop_file.to_core().exchange
    quotes, refused = compare((one for one in services if not one.other_way), parcel, exchange=exchange)
    others, not_so = compare((one for one in services if one.other_way), parcel, exchange=exchange)
    refused += not_so
    if as_json:
        print_json({
            "quotes": [quote_json(q) for q in quotes], "others": [quote_json(q) for q in others],
            "refused": [refused_json(r) for r in refused],
        })  # fmt: skip
    else:
        for q in (*quotes, *others):
            days = f"{q.days[0]}-{q.days[1]} days"
            mark = ", placeholder prices" if q.placeholder else ""
            out.print(f"{q.amount!s:>9} {q.amount.currency}  {q.carrier} {q.service} ({q.rate_plan}), {days}{mark}")
            for line in q.lines:
                of = f"parcel {line.parcel}, " if line.parcel else ""
                out.print(f"{line.amount!s:>13}      {of}{line.what}: {line.why}")
        for r in refused:
            out.print(f"        -      {r.carrier} {r.service} ({r.rate_plan}): {r.why}")
    if not quotes:
        raise NoAnswer("No service takes it.")


def _arrangements(whole: Whole, load: Load, effort: Effort) -> tuple[Arrangement, ...]:
    """The arrangements that cost least in all; none of what is alone in its box."""
    if len(load.units) + len(load.extras) < 2 or not_in_one(load):
        return ()
    refuse(ask_of(load), whole.shop.units)
    found = cheapest_here(whole, effort) if effort == "quick" else _with_workers(whole, effort)
    return tuple(one.answer for one in found[:_LISTED])


def _with_workers(whole: Whole, effort: Effort) -> tuple[Weighed, ...]:
    workers = Workers()
    try:
        return workers.cheapest(whole, effort)
    finally:
        workers.close()


def _meshes_beside(job: Path) -> MeshFinder:
    """Finds the meshes that a job file names in the folder it lies in."""

    def find(name: str, unit: Length) -> Scanned:
        path = job.parent / Path(name).name
        return scanned(name, read_mesh(name, bytes_of(path, "file")), unit)

    return find
