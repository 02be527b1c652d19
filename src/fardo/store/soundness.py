"""Whether a shop's file is sound: its pages, its version, its settings, every job with its revisions, the search index.

Nothing is written to the file or beside it, so that one on a read-only medium can be looked at, and one that a newer
Fardo wrote stays as it is to the last byte.
"""

from __future__ import annotations

import json
import shutil
import sqlite3
import tempfile
from collections.abc import Callable, Collection, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from pathlib import Path

from pydantic import BaseModel, TypeAdapter, ValidationError

from fardo.core.refusal import BadInput
from fardo.files.job import JobFile
from fardo.files.kind import KindFile, shipped_kinds
from fardo.files.recipient import RecipientEntry
from fardo.files.sending import SendingEntry, StockTaken
from fardo.files.shop import ShopFile
from fardo.files.tariff import TariffFile, services_in
from fardo.files.typed import complaints
from fardo.store.faults import StoreError
from fardo.store.migrating import newest_version
from fardo.store.words import words_of

_SIDECARS = ("-wal", "-journal")

_ARCHIVED_SINCE = 6  # the version of a file that calls it so
_TAKEN_BY_SORT_SINCE = 11  # the version of a file that parts boxes from wrap, fill and tape in what was taken


@dataclass(frozen=True, slots=True)
class Soundness:
    """What was found in a file that can be opened.

    Args:
        version: of its tables.
        jobs, services, kinds: how many there are.
        flaws: sentences on what cannot be read or does not agree. The shop can be served all the same.
    """

    version: int
    jobs: int
    services: int
    kinds: int
    flaws: tuple[str, ...]


@contextmanager
def looked_at(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection that only reads, and leaves no trace.

    Raises:
        StoreError: where there is no file, or none that SQLite reads.
    """
    if not path.is_file():
        raise StoreError(f"{path} is not there")
    sidecars = [one for ending in _SIDECARS if (one := path.with_name(path.name + ending)).exists()]
    with tempfile.TemporaryDirectory(prefix="fardo-") as folder:
        try:
            connection = _open(path, sidecars, Path(folder))
            try:
                yield connection
            finally:
                connection.close()
        except sqlite3.DatabaseError as error:
            raise StoreError(f"{path} is not a shop's database ({error})") from error
        except OSError as error:
            raise StoreError(f"{path} cannot be read: {error.strerror or error}") from error


def _open(path: Path, sidecars: list[Path], folder: Path) -> sqlite3.Connection:
    if not sidecars:
        # Nobody writes to it: where somebody did, its log would lie beside it.
        return _connect(f"{path.absolute().as_uri()}?mode=ro&immutable=1")
    if not path.with_name(path.name + "-journal").exists():
        try:
            return _connect(f"{path.absolute().as_uri()}?mode=ro")
        except sqlite3.OperationalError:
            pass  # its log cannot be read where nothing can be written beside it
    for one in (path, *sidecars):
        shutil.copyfile(one, folder / one.name)
    return _connect((folder / path.name).absolute().as_uri())


def _connect(address: str) -> sqlite3.Connection:
    connection = sqlite3.connect(address, uri=True, timeout=10)
    try:
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA schema_version")  # opens it: a log that cannot be read is told here
    except BaseException:
        connection.close()
        raise
    return connection


def check_file(path: Path) -> int:
    """The version of a shop's file, whose every page was looked at.

    Raises:
        StoreError: where it is no shop's, is damaged, was written by a newer Fardo, or its settings cannot be read.
    """
    with looked_at(path) as connection:
        return _check(connection, path)


def check_shop(path: Path) -> Soundness:
    """All of a shop's file looked at: also each job, each revision, and the search index.

    Raises:
        StoreError: where `check_file` raises it.
    """
    with looked_at(path) as connection:
        version = _check(connection, path)
        tables = _tables(connection)
        services = sum(len(services_in(text)) for (text,) in connection.execute("SELECT content FROM tariff"))
        kinds = {kind.code for kind in shipped_kinds()}
        if "kind" in tables:
            archived = "archived_at" if version >= _ARCHIVED_SINCE else "put_away_at"
            kinds |= {row["code"] for row in connection.execute(f"SELECT code FROM kind WHERE {archived} IS NULL")}
        (jobs,) = connection.execute("SELECT count(*) FROM job").fetchone()
        flaws = [
            *_flaws_of_jobs(connection), *_flaws_of_revisions(connection, tables),
            *_flaws_beside(connection, tables, version), *_flaws_of_search(connection),
        ]  # fmt: skip
        return Soundness(version, jobs, services, len(kinds), tuple(flaws))


def _check(connection: sqlite3.Connection, path: Path) -> int:
    version: int = connection.execute("PRAGMA user_version").fetchone()[0]
    newest = newest_version()
    if version > newest:
        raise StoreError(f"{path} was written by a newer Fardo (version {version}, this one knows {newest})")
    damage = connection.execute("PRAGMA integrity_check(1)").fetchone()[0]
    if damage != "ok":
        raise StoreError(f"{path} is damaged: {damage}")
    pages, page_size = (connection.execute(f"PRAGMA {name}").fetchone()[0] for name in ("page_count", "page_size"))
    if path.stat().st_size % page_size and not path.with_name(path.name + "-wal").exists():
        raise StoreError(f"{path} is damaged: {pages} pages of {page_size} bytes are not {path.stat().st_size} bytes")
    tables = _tables(connection)
    if not tables:
        raise StoreError(f"{path} has nothing in it: not a shop's database")
    if not {"shop", "tariff", "job", "job_revision", "job_search"} <= tables:
        raise StoreError(f"{path} is a database, but not a shop's")
    if broken := connection.execute("PRAGMA foreign_key_check").fetchone():
        raise StoreError(f"{path} is damaged: a row of {broken[0]} belongs to nothing")
    for what, query, model in _SETTINGS:
        if what in tables:
            for name, text in connection.execute(query):
                _must_read(f"{what} {name}".strip(), text, model, path)
    return version


_BESIDE: tuple[tuple[str, str, TypeAdapter[object]], ...] = (
    ("sending", "content", TypeAdapter(SendingEntry)),
    ("sending", "taken", TypeAdapter(StockTaken)),
    ("recipient", "content", TypeAdapter(RecipientEntry)),
    ("job_cut", "blanks", TypeAdapter(list[str])),
)
_COUNTED = (
    ("job", "revision"), ("job", "changed"), ("shop", "revision"), ("tariff", "revision"), ("kind", "revision"),
    ("sending", "revision"), ("recipient", "revision"), ("label", "number"),
)  # fmt: skip
_MOST_COUNTED = 2**53  # what a page's numbers hold exactly
_SETTINGS: tuple[tuple[str, str, Callable[[str], object]], ...] = (
    ("shop", "SELECT '', content FROM shop", lambda text: ShopFile.model_validate_json(text).to_core()),
    ("tariff", "SELECT carrier, content FROM tariff", services_in),
)


def _must_read(what: str, text: str, read: Callable[[str], object], path: Path) -> None:
    try:
        read(text)
    except (ValueError, BadInput) as error:
        raise StoreError(f"{path}: the {what} in it cannot be read: {_first_line(error)}") from error


def _tables(connection: sqlite3.Connection) -> set[str]:
    return {row[0] for row in connection.execute("SELECT name FROM sqlite_schema WHERE type = 'table'")}


def _flaws_of_jobs(connection: sqlite3.Connection) -> Iterator[str]:
    for key, text in connection.execute("SELECT id, content FROM job"):
        if why := why_unreadable(text):
            yield f"job {key} cannot be read: {why}"


def why_unreadable(text: str) -> str:
    """Why a kept job is none; nothing where it can be read."""
    try:
        JobFile.model_validate_json(text)
    except ValidationError as error:
        first = next(complaints(error))
        return f"{first.field}: {first.why}" if first.field else first.why
    return ""


def _first_line(error: Exception) -> str:
    lines = [line.strip() for line in str(error).splitlines() if line.strip()]
    return ", ".join(lines[1:3] if len(lines) > 2 else lines)[:200]


def _flaws_of_revisions(connection: sqlite3.Connection, tables: set[str]) -> Iterator[str]:
    """Every number from the first to the newest, each a job that can be read, the newest as the job is."""
    bases = {row[0] for row in connection.execute("SELECT base FROM lineage")} if "lineage" in tables else set()
    rows = connection.execute(
        "SELECT job.id AS id, job.revision AS newest,"
        " (SELECT json_group_array(kept.revision) FROM job_revision AS kept WHERE kept.job_id = job.id) AS numbers,"
        " job.content IS (SELECT content FROM job_revision AS same"
        " WHERE same.job_id = job.id AND same.revision = job.revision) AS agrees"
        " FROM job"
    )
    for row in rows:
        if gone := _lost_revision(sorted(json.loads(row["numbers"])), row["newest"], bases):
            yield f"job {row['id']}: its revision {gone} is lost"
        elif not row["agrees"]:
            yield f"job {row['id']}: what it is differs from its newest revision, {row['newest']}"
    for key, revision, text in connection.execute("SELECT job_id, revision, content FROM job_revision"):
        if why := why_unreadable(text):
            yield f"revision {revision} of job {key} cannot be read: {why}"
    if "kind" in tables:
        for code, text in connection.execute("SELECT code, content FROM kind"):
            try:
                KindFile.model_validate_json(text)
            except ValueError as error:
                yield f"the shop's kind of goods {code} cannot be read: {_first_line(error)}"
    yield from _flaws_of_kept(connection, tables, "shop_revision", "'the shop'", ShopFile)
    yield from _flaws_of_kept(connection, tables, "kind_revision", "'the kind ' || code", KindFile)
    if "tariff_revision" in tables:
        for carrier, revision, text in connection.execute("SELECT carrier, revision, content FROM tariff_revision"):
            try:
                TariffFile.model_validate_json(text)
            except ValueError as error:
                yield f"revision {revision} of the tariff of {carrier} cannot be read: {_first_line(error)}"


def _lost_revision(numbers: Sequence[int], newest: int, bases: Collection[int]) -> int | None:
    """A number that should be there; None where none is lost.

    Args:
        numbers: those that are, ascending.
        bases: after a restore they went on above these.
    """
    if not numbers or numbers[-1] != newest:
        return newest
    for before, number in pairwise((0, *numbers)):
        if number != before + 1 and number - 1 not in bases:
            return number - 1
    return None


def _flaws_of_kept(
    connection: sqlite3.Connection, tables: set[str], table: str, name: str, model: type[BaseModel]
) -> Iterator[str]:
    """Of revisions that are kept whole.

    Args:
        name: of what they are, in SQL.
    """
    if table not in tables:
        return
    for called, revision, text in connection.execute(f"SELECT {name}, revision, content FROM {table}"):
        try:
            model.model_validate_json(text)
        except ValueError as error:
            yield f"revision {revision} of {called} cannot be read: {_first_line(error)}"


def _flaws_beside(connection: sqlite3.Connection, tables: set[str], version: int) -> Iterator[str]:
    """What is kept beside jobs: parcels, recipients, ticks, blanks that are cut, numbers that a page may count up."""
    for table, column, model in _BESIDE:
        if table not in tables or (column == "taken" and version < _TAKEN_BY_SORT_SINCE):
            continue
        for key, text in connection.execute(f"SELECT job_id, {column} FROM {table}"):
            try:
                model.validate_json(text)
            except ValidationError as error:
                yield f"{table} of job {key} cannot be read: {_first_line(error)}"
    if "packing_tick" in tables:
        for key, at in connection.execute("SELECT job_id, at FROM packing_tick"):
            try:
                datetime.fromisoformat(at)
            except ValueError:
                yield f"a tick of job {key} has no time: {at[:40]!r}"
    for table, column in _COUNTED:
        if table in tables and column in {row["name"] for row in connection.execute(f"PRAGMA table_info({table})")}:
            for (found,) in connection.execute(
                f"SELECT {column} FROM {table} WHERE NOT {column} BETWEEN 0 AND {_MOST_COUNTED}"
            ):
                yield f"{column} of a {table} is {found}, which is no count"


def _flaws_of_search(connection: sqlite3.Connection) -> Iterator[str]:
    """The index as it is against one made anew, word by word."""
    newer = "changed" in {row["name"] for row in connection.execute("PRAGMA table_info(job)")}
    number = "changed" if newer else "number"
    tokens = "tokenize = 'unicode61 remove_diacritics 2'"
    connection.execute(f"CREATE VIRTUAL TABLE temp.anew USING fts5 (words, {tokens})")
    for row in connection.execute(f"SELECT {number} AS number, content FROM job"):
        if not why_unreadable(row["content"]):
            words = words_of(JobFile.model_validate_json(row["content"]))
            connection.execute("INSERT INTO temp.anew (rowid, words) VALUES (?, ?)", (row["number"], words))
    connection.execute("CREATE VIRTUAL TABLE temp.kept_words USING fts5vocab (main, job_search, instance)")
    connection.execute("CREATE VIRTUAL TABLE temp.anew_words USING fts5vocab (temp, anew, instance)")
    differ = connection.execute(
        "SELECT count(*) FROM (SELECT term, doc, offset FROM temp.anew_words"
        " EXCEPT SELECT term, doc, offset FROM temp.kept_words WHERE col = 'words')"
    ).fetchone()[0]
    if differ:
        yield f"the search index lacks {differ} words; fardo check --mend makes it anew"
