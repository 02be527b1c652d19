"""The command `fardo`: plan, blank and price from the shell; serve, demo, backup, restore and check a shop.

Exit codes: 0 done, 1 no answer possible, 2 bad input.
"""

from __future__ import annotations

import json
import sys
import threading
import time
from contextlib import closing
from dataclasses import replace
from datetime import date
from pathlib import Path
from typing import Annotated, Any, cast

import typer
from rich.console import Console
from rich.table import Table

from fardo.answers import made_json, plan_json, quote_json, recuts_json, refused_json, stack_json
from fardo.arranging import Effort, Workers, in_this_process, refuse
from fardo.core.arrange.ask import Answer, Ask
from fardo.core.goods.shape import Scanned, scanned
from fardo.core.make import WAYS, Made, School, make_box
from fardo.core.make.recut import Folds, recuts
from fardo.core.make.recut import steps as recut_steps
from fardo.core.make.stack import stack_up
from fardo.core.make.stack import steps as stack_steps
from fardo.core.plan.load import Load, ask_of
from fardo.core.plan.picture import best_plans
from fardo.core.plan.price import compared
from fardo.core.plan.shop import Shop
from fardo.core.quantity import (
    Length,
    Money,
    Units,
    read_distance,
    read_length,
    read_mass,
    read_sizes,
    show_length,
    show_mass,
    show_sizes,
)
from fardo.core.refusal import BadInput, NoAnswer
from fardo.core.tariff.carriers import Carriers
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.core.tariff.service import compare
from fardo.files.drawn import exact_text, in_words
from fardo.files.job import ChosenPrice, read_job
from fardo.files.mesh import read_mesh
from fardo.files.shapes import MeshFinder
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import read_tariffs, services_of
from fardo.files.understood import understand
from fardo.serving import be_carrier, carrier_beside, serve_shop, stand_in
from fardo.store.backup import back_up
from fardo.store.backup import restore as put_back
from fardo.store.database import Database
from fardo.store.faults import CannotWrite, StoreError
from fardo.store.jobs import Jobs
from fardo.store.settings import Settings
from fardo.store.soundness import check_file, check_shop

DEFAULT_PORT = 8740

_CUT_FROM_SHEET = ", ".join(name for name, way in WAYS.items() if way.NEEDS == "sheet")

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False, help=__doc__)
out = Console(highlight=False, soft_wrap=True)

AsJson = Annotated[bool, typer.Option("--json", help="Answer in JSON.")]
DbFile = Annotated[Path | None, typer.Option("--db", help="A shop's database.", envvar="FARDO_DB")]
TariffFolder = Annotated[Path | None, typer.Option("--tariffs", help="A folder with *.tariff.json files.")]


def main(arguments: list[str] | None = None) -> None:
    """Runs the command (on the process's own arguments unless given), turning refusals into a sentence and a code."""
    try:
        app(arguments)
    except BadInput as error:
        print(f"fardo: {error.sentence}", file=sys.stderr)
        sys.exit(2)
    except NoAnswer as error:
        print(f"fardo: {error}", file=sys.stderr)
        sys.exit(1)
    except (StoreError, CannotWrite) as error:
        print(f"fardo: {error}", file=sys.stderr)
        sys.exit(2)


@app.command()
def plan(
    job: Annotated[Path, typer.Argument(help="A job file.")],
    as_json: AsJson = False,
    seed: Annotated[int, typer.Option(help="Same file, seed and effort give the same plans.")] = 0,
    effort: Annotated[str, typer.Option(help="quick, normal or long.")] = "normal",
    db: DbFile = None,
    tariffs: TariffFolder = None,
) -> None:
    """The boxes and services for a job, best first."""
    _one_of(effort, ("quick", "normal", "long"), "effort")
    started = time.monotonic()
    file = read_job(_bytes_of(job, "job file"))
    shop_file, carriers = _shop(db, tariffs, file.chosen.price)
    shop = shop_file.to_core()
    read = understand(file, shop, shop_file.postcode, _meshes_beside(job))
    arrangements = _arrangements(read.must_load(), cast(Effort, effort), seed, shop)
    plans = best_plans(read, arrangements, shop, carriers)
    if as_json:
        elapsed = round(time.monotonic() - started, 4)
        _print_json({"plans": [plan_json(p) for p in plans], "compared": compared(plans), "elapsed_s": elapsed})
        return
    table = Table("In all", "Box and service", "Outside", "Weighs", "Billed", "Days", title=file.title or None)
    for p in plans:
        made, days = p.boxed.made, p.quote.days
        table.add_row(
            str(p.costs.total), p.label, show_sizes(made.outside, shop.units, "up").text,
            show_mass(p.boxed.weights.total, shop.units, "up").text,
            show_mass(p.quote.billing.billed, shop.units, "up").text, f"{days[0]}-{days[1]}",
        )  # fmt: skip
    out.print(table)
    out.print(compared(plans))


@app.command()
def price(
    size: Annotated[list[str], typer.Option(help="Outside size: 24x12x8in. Once for each parcel that goes together.")],
    weight: Annotated[list[str], typer.Option(help="Weight: 9lb. Once for each.")],
    to: Annotated[str, typer.Option(help="Postcode it goes to.")],
    origin: Annotated[str, typer.Option("--from", help="Postcode it leaves from.")],
    residential: Annotated[bool, typer.Option(help="To a home.")] = False,
    value: Annotated[str | None, typer.Option(help="Declared value, of the first parcel.")] = None,
    signature: Annotated[bool, typer.Option(help="Asked for on delivery.")] = False,
    distance: Annotated[str | None, typer.Option(help="By road, for one's own delivery: 40mi")] = None,
    as_json: AsJson = False,
    db: DbFile = None,
    tariffs: TariffFolder = None,
) -> None:
    """What each service asks for a parcel, or for several that go together, cheapest first."""
    shop_file, carriers = _shop(db, tariffs)
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
        _print_json({
            "quotes": [quote_json(q) for q in quotes], "others": [quote_json(q) for q in others],
            "refused": [refused_json(r) for r in refused],
        })  # fmt: skip
    else:
        for q in (*quotes, *others):
            days = f"{q.days[0]}-{q.days[1]} days"
            out.print(f"{q.amount!s:>9} {q.amount.currency}  {q.carrier} {q.service} ({q.programme}), {days}")
            for line in q.lines:
                of = f"parcel {line.parcel}, " if line.parcel else ""
                out.print(f"{line.amount!s:>13}      {of}{line.what}: {line.why}")
        for r in refused:
            out.print(f"        -      {r.carrier} {r.service} ({r.programme}): {r.why}")
    if not quotes:
        raise NoAnswer("No service takes it.")


@app.command()
def blank(
    way: Annotated[str, typer.Option(help=f"One of: {_CUT_FROM_SHEET}.")],
    inside: Annotated[str, typer.Option(help="Inside size: 10.5x8.5x1.5in")],
    board: Annotated[str | None, typer.Option(help="Code of the board, C say.")] = None,
    school: Annotated[str, typer.Option(help="exact or thumb.")] = "exact",
    thumb: Annotated[str | None, typer.Option(help="The rule-of-thumb allowance: 1/2in")] = None,
    slip: Annotated[str | None, typer.Option(help="How much looser the lid is than the tray: 1/16in")] = None,
    step: Annotated[
        str, typer.Option(help="Panels go up to this step: 1/16in, 1mm; 'none' keeps them exact.")
    ] = "none",
    as_json: AsJson = False,
    svg: Annotated[Path | None, typer.Option(help="Write SVG here; with several blanks their name is put in.")] = None,
    dxf: Annotated[Path | None, typer.Option(help="Write DXF here.")] = None,
    pdf: Annotated[Path | None, typer.Option(help="Write a cut sheet here.")] = None,
    full: Annotated[bool, typer.Option("--full-size", help="The PDF at 1:1 over several pages.")] = False,
    db: DbFile = None,
) -> None:
    """The blanks for an inside size, with every line and dimension."""
    shop_file, _ = _shop(db, None)
    shop = shop_file.to_core()
    usual = shop.allowances
    allowances = replace(
        usual,
        thumb=read_length(thumb, shop.units, zero=True, field="thumb") if thumb else usual.thumb,
        slip=read_length(slip, shop.units, zero=True, field="slip") if slip else usual.slip,
        step=None if step == "none" else read_length(step, shop.units, field="step"),
    )
    taken: School = "thumb" if _one_of(school, ("exact", "thumb"), "school") == "thumb" else "exact"
    made = make_box(way, read_sizes(inside, shop.units, field="inside"), shop.grade(board), allowances, taken)
    _write_drawings(made, shop_file, svg, dxf, pdf, full)
    if as_json:
        _print_json(made_json(made))
        return
    out.print(f"{WAYS[way].TITLE}, {made.grade.name}")
    out.print(f"inside  {show_sizes(made.inside, shop.units, 'down')}")
    out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
    table = Table("Fence", "Blade", "Do, in this order", "Cuts")
    for setting in made.fence:
        table.add_row(exact_text(setting.fence, shop.units), setting.blade, setting.do, str(setting.cuts))
    out.print(table)
    for note in made.notes:
        out.print(note)


@app.command()
def recut(
    box: Annotated[str, typer.Option(help="Inside of the used box: 18.5x12x21in")],
    inside: Annotated[str, typer.Option(help="Inside that is wanted: 24x6.5x21in")],
    board: Annotated[str | None, typer.Option(help="Code of its board, C say.")] = None,
    folds: Annotated[str, typer.Option(help="tape counts no loss at moved corners, bench counts the shop's.")] = "tape",
    upright: Annotated[bool, typer.Option(help="The height wanted stays the height.")] = False,
    as_json: AsJson = False,
    db: DbFile = None,
) -> None:
    """What a used box becomes when its corners are moved, its height is cut down, or both."""
    shop_file, _ = _shop(db, None)
    shop = shop_file.to_core()
    taken: Folds = "bench" if _one_of(folds, ("tape", "bench"), "folds") == "bench" else "tape"
    old, needed = (read_sizes(text, shop.units, field=name) for text, name in ((box, "box"), (inside, "inside")))
    try:
        found = recuts(old, shop.grade(board).caliper, needed, shop.allowances.refold, taken, upright)
    except NoAnswer as none:
        if as_json:
            _print_json({"possible": False, "why": str(none), "results": []})
        raise
    if as_json:
        _print_json(recuts_json(found, shop.units))
        return
    for made in found:
        out.print(f"inside  {show_sizes(made.inside, shop.units, 'down')}")
        out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
        for n, step in enumerate(recut_steps(made), 1):
            out.print(f"{n:3}. {step.told(in_words(shop.units))}")


@app.command()
def stack(
    box: Annotated[str, typer.Option(help="Inside of one of the equal boxes: 14x14x12in")],
    goods: Annotated[str, typer.Option(help="What stands in it, gaps and all: 13x13x35in")],
    board: Annotated[str | None, typer.Option(help="Code of its board, C say.")] = None,
    as_json: AsJson = False,
    db: DbFile = None,
) -> None:
    """How many equal boxes, one telescoped into the next, take something long."""
    shop_file, _ = _shop(db, None)
    shop = shop_file.to_core()
    one, needed = (read_sizes(text, shop.units, field=name) for text, name in ((box, "box"), (goods, "goods")))
    made = stack_up(one, shop.grade(board).caliper, needed, shop.allowances.overlap)
    if as_json:
        _print_json(stack_json(made, shop.units))
        return
    least, most = (show_length(length, shop.units, "down").text for length in (made.least, made.most))
    out.print(f"{made.boxes} boxes, from {least} to {most} high inside")
    out.print(f"outside {show_sizes(made.outside, shop.units, 'up')}")
    for n, step in enumerate(stack_steps(made), 1):
        out.print(f"{n:3}. {step.told(in_words(shop.units))}")


@app.command()
def serve(
    db: DbFile = None,
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT,
) -> None:
    """Serves a shop to this machine's browser."""
    serve_shop(db or Path("fardo.db"), port)


@app.command()
def demo(
    db: Annotated[Path, typer.Option("--db", help="Where the made-up shop is kept.")] = Path("shop/demo.db"),
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT,
) -> None:
    """Serves the made-up shop; what you change in it is kept."""
    from fardo.demo import open_demo

    carrier_port = port + 3
    with carrier_beside(carrier_port) as (address, says):
        open_demo(db, date.today(), address)
        serve_shop(db, port, devices=("tape", "scale"), says=says)


@app.command()
def standin(
    device: Annotated[str, typer.Argument(help="tape, scale or carrier.")],
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT + 1,
    shop: Annotated[str, typer.Option(help="Where the shop is served.")] = f"http://127.0.0.1:{DEFAULT_PORT}",
) -> None:
    """A simulated device, a page that sends readings to the shop, or a simulated carrier; with faults on request."""
    _one_of(device, ("tape", "scale", "carrier"), "device")
    if device == "carrier":
        be_carrier(port)
        return
    if not stand_in(device, port, shop):
        raise BadInput("taken by something else", read=str(port), allowed="another port", field="port")
    threading.Event().wait()


@app.command()
def backup(file: Annotated[Path, typer.Argument(help="Where to.")], db: DbFile = None) -> None:
    """Copies a shop whole, also while it is being served."""
    source = db or Path("fardo.db")
    back_up(source, file)
    out.print(f"{source} is copied to {file}, and the copy was checked.")


@app.command()
def restore(file: Annotated[Path, typer.Argument(help="A backup.")], db: DbFile = None) -> None:
    """Puts a backup in a shop's place; the shop that was there is kept beside it. Stop serving it first."""
    target = db or Path("fardo.db")
    kept = put_back(file, target)
    out.print(f"{target} is now what was in {file}." + (f" What it was before is in {kept}." if kept else ""))


@app.command()
def check(
    db: DbFile = None,
    mend: Annotated[bool, typer.Option("--mend", help="Makes the search index anew.")] = False,
) -> None:
    """Looks whether a shop's file is sound: every page, every job and revision, every tariff, the search index."""
    path = db or Path("fardo.db")
    if mend:
        check_file(path)
        database = Database(path)
        Jobs(database).renew_search()
        database.close()
    found = check_shop(path)
    counted = f"version {found.version}, {found.jobs} jobs, {found.services} services, {found.kinds} kinds of goods"
    if found.flaws:
        for flaw in found.flaws:
            out.print(flaw)
        flaws = f"{len(found.flaws)} things in it are not as they should be"
        raise NoAnswer(f"{path} can be served, but {flaws}: {counted}.")
    out.print(f"{path} is sound: {counted}.")


def _arrangements(load: Load, effort: Effort, seed: int, shop: Shop) -> tuple[Answer, ...]:
    """The best arrangement of each proportion; none of what is alone in its box."""
    if len(load.units) + len(load.extras) < 2:
        return ()
    ask = ask_of(load, seed=seed)
    refuse(ask, shop.units)
    return in_this_process(ask, effort) if effort == "quick" else _with_workers(ask, effort)


def _with_workers(ask: Ask, effort: Effort) -> tuple[Answer, ...]:
    workers = Workers()
    try:
        return workers.arrange(ask, effort)
    finally:
        workers.close()


def _meshes_beside(job: Path) -> MeshFinder:
    """Finds the meshes that a job file names in the folder it lies in."""

    def find(name: str, unit: Length) -> Scanned:
        path = job.parent / Path(name).name
        return scanned(name, read_mesh(name, _bytes_of(path, "file")), unit)

    return find


def _shop(db: Path | None, tariffs: Path | None, was: ChosenPrice | None = None) -> tuple[ShopFile, Carriers]:
    """The shop and carriers to work with: a database's, a folder's, or the made-up ones.

    Args:
        was: the price that a job has chosen, whose tariff it may keep.
    """
    if db is None:
        from fardo.demo import TARIFFS

        return starting_shop(), _carriers_in(tariffs or TARIFFS)
    check_file(db)
    with closing(Database(db)) as database:
        settings = Settings(database)
        kept = (was.carrier, was.tariff) if was else None
        carriers = _carriers_in(tariffs) if tariffs else settings.carriers_with(settings.carriers(), kept)
        return settings.shop()[1], carriers


def _carriers_in(folder: Path) -> Carriers:
    return Carriers(tuple(services_of(read_tariffs(folder))))


def _write_drawings(
    made: Made, shop: ShopFile, svg_path: Path | None, dxf_path: Path | None, pdf_path: Path | None, full: bool
) -> None:
    if svg_path:
        from fardo.files.svg import svg

        for piece in made.blanks:
            path = svg_path if len(made.blanks) == 1 else svg_path.with_stem(f"{svg_path.stem}-{piece.name}")
            _write(path, svg(piece, shop.units).encode())
    if dxf_path:
        from fardo.files.dxf import dxf

        _write(dxf_path, dxf(made.blanks, shop.units).encode())
    if pdf_path:
        from fardo.core.plan.cautions import CUTTING
        from fardo.files.pdf import Heading, cut_sheet, full_size

        inside, outside = show_sizes(made.inside, shop.units, "down"), show_sizes(made.outside, shop.units, "up")
        sizes = f"{made.grade.name}, inside {inside}, outside {outside}"
        heading = Heading(WAYS[made.way].TITLE, (sizes, *made.notes))
        if full:
            _write(pdf_path, full_size(heading, made.blanks, shop.units, shop.paper))
        else:
            _write(pdf_path, cut_sheet(heading, made.blanks, made.fence, CUTTING, shop.units, shop.paper))


def _print_json(answer: dict[str, Any]) -> None:
    print(json.dumps(answer, ensure_ascii=False, indent=1))


def _bytes_of(path: Path, field: str) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise BadInput(f"{error.strerror}", read=str(path), allowed="a file that can be read", field=field) from error


def _write(path: Path, content: bytes) -> None:
    try:
        path.write_bytes(content)
    except OSError as error:
        raise BadInput(f"{error.strerror}", read=str(path), allowed="a place to write to", field="file") from error


def _one_of(value: str, allowed: tuple[str, ...], field: str) -> str:
    if value not in allowed:
        raise BadInput("not one of them", read=value, allowed=", ".join(allowed), field=field)
    return value


if __name__ == "__main__":
    main()
