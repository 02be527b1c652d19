"""What the commands share: where they print, the shop they work with, files read and written."""

from __future__ import annotations

import json
from contextlib import closing
from pathlib import Path
from typing import Annotated, Any

import typer
from rich.console import Console

from fardo.core.refusal import BadInput
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import ChosenPrice
from fardo.files.shop import ShopFile, starting_shop
from fardo.files.tariff import read_tariffs, services_of
from fardo.store.database import Database
from fardo.store.settings import Settings
from fardo.store.soundness import check_file

out = Console(highlight=False, soft_wrap=True)

AsJson = Annotated[bool, typer.Option("--json", help="Answer in JSON.")]
DbFile = Annotated[Path | None, typer.Option("--db", help="A shop's database.", envvar="FARDO_DB")]
TariffFolder = Annotated[Path | None, typer.Option("--tariffs", help="A folder with *.tariff.json files.")]


def open_shop(db: Path | None, tariffs: Path | None, was: ChosenPrice | None = None) -> tuple[ShopFile, Carriers]:
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


def print_json(answer: dict[str, Any]) -> None:
    print(json.dumps(answer, ensure_ascii=False, indent=1))


def bytes_of(path: Path, field: str) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise BadInput(f"{error.strerror}", read=str(path), allowed="a file that can be read", field=field) from error


def write(path: Path, content: bytes) -> None:
    try:
        path.write_bytes(content)
    except OSError as error:
        raise BadInput(f"{error.strerror}", read=str(path), allowed="a place to write to", field="file") from error


def one_of(value: str, allowed: tuple[str, ...], field: str) -> str:
    if value not in allowed:
        raise BadInput("not one of them", read=value, allowed=", ".join(allowed), field=field)
    return value
