"""A shop from the shell: served, backed up, restored, looked over; and the simulated devices beside it."""

from __future__ import annotations

import threading
from datetime import date
from pathlib import Path
from typing import Annotated

import typer

from fardo.command.machine import lacking
from fardo.command.shared import DbFile, one_of, out
from fardo.core.refusal import BadInput, NoAnswer
from fardo.serving import Network, be_carrier, carrier_beside, serve_shop, stand_in
from fardo.store.access import Access
from fardo.store.archive import export_shop, import_shop
from fardo.store.backup import back_up
from fardo.store.backup import restore as put_back
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.soundness import check_file, check_shop

DEFAULT_PORT = 8740


def serve(
    db: DbFile = None,
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT,
    lan: Annotated[bool, typer.Option("--lan", help="To other devices of the network too, with a passphrase.")] = False,
    cert: Annotated[Path | None, typer.Option(help="A certificate of the shop's own, for TLS.")] = None,
    key: Annotated[Path | None, typer.Option(help="Its key.")] = None,
) -> None:
    """Serves a shop to this machine's browser, and with --lan to the tablet at the bench."""
    if (cert is None) != (key is None):
        raise BadInput("only one of two", read="--cert" if cert else "--key", allowed="--cert and --key", field="cert")
    if cert is not None and not lan:
        raise BadInput("without --lan", read="--cert", allowed="--lan --cert --key", field="cert")
    network = Network(cert, key)
    network.check()
    serve_shop(db or Path("fardo.db"), port, network=network if lan else None)


def passphrase(
    db: DbFile = None,
    file: Annotated[Path | None, typer.Option(help="Read from a file rather than typed.")] = None,
) -> None:
    """Sets the passphrase with which other devices open the shop; every device must enter it again."""
    if file is not None:
        words = file.read_text("utf-8").strip()
    else:
        words = typer.prompt("Passphrase", hide_input=True, confirmation_prompt=True)
    database = Database(db or Path("fardo.db"))
    try:
        Access(database).set_passphrase(words)
    finally:
        database.close()
    out.print("The passphrase is set; every device must enter it again.")


def demo(
    db: Annotated[Path, typer.Option("--db", help="Where the made-up shop is kept.")] = Path("shop/demo.db"),
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT,
) -> None:
    """Serves the made-up shop; what you change in it is kept."""
    from fardo.demo import open_demo

    devices = {"tape": port + 1, "scale": port + 2, "printer": port + 4}
    with carrier_beside(port + 3) as (address, says):
        open_demo(db, date.today(), address, f"http://127.0.0.1:{devices['printer']}")
        serve_shop(db, port, devices, says, made_up=True)


def standin(
    device: Annotated[str, typer.Argument(help="tape, scale, printer or carrier.")],
    port: Annotated[int, typer.Option(min=1, max=65535)] = DEFAULT_PORT + 1,
    shop: Annotated[str, typer.Option(help="Where the shop is served.")] = f"http://127.0.0.1:{DEFAULT_PORT}",
) -> None:
    """A simulated device, with a page of its own, or a simulated carrier; with faults on request."""
    one_of(device, ("tape", "scale", "printer", "carrier"), "device")
    if device == "carrier":
        be_carrier(port)
        return
    if not stand_in(device, port, shop):
        raise BadInput("taken by something else", read=str(port), allowed="another port", field="port")
    threading.Event().wait()


def backup(file: Annotated[Path, typer.Argument(help="Where to.")], db: DbFile = None) -> None:
    """Copies a shop whole, also while it is being served."""
    source = db or Path("fardo.db")
    back_up(source, file)
    out.print(f"{source} is copied to {file}, and the copy was checked.")


def export(file: Annotated[Path, typer.Argument(help="The archive to write.")], db: DbFile = None) -> None:
    """Writes a shop whole as one open archive: JSON, photographs and meshes in a ZIP. It may be served meanwhile."""
    source = db or Path("fardo.db")
    export_shop(source, file)
    out.print(f"{source} is exported to {file}.")


def import_(
    file: Annotated[Path, typer.Argument(help="An archive that fardo export wrote.")],
    db: Annotated[Path, typer.Option("--db", help="Where the shop is made; nothing may be there.")],
) -> None:
    """Makes a shop of an archive, all of it or nothing."""
    import_shop(file, db)
    out.print(f"{file} is imported to {db}.")


def restore(file: Annotated[Path, typer.Argument(help="A backup.")], db: DbFile = None) -> None:
    """Puts a backup in a shop's place; the shop that was there is kept beside it. Stop serving it first."""
    target = db or Path("fardo.db")
    kept = put_back(file, target)
    out.print(f"{target} is now what was in {file}." + (f" What it was before is in {kept}." if kept else ""))


def check(
    db: DbFile = None,
    mend: Annotated[bool, typer.Option("--mend", help="Makes the search index anew.")] = False,
) -> None:
    """Looks whether this machine has what it takes, and a shop's file is sound: every page, job, revision, tariff."""
    path = db or Path("fardo.db")
    for sentence in lacking(path, date.today()):
        out.print(sentence)
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
