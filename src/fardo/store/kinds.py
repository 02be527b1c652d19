"""The shop's own kinds of goods. One with the code of a kind that ships takes its place."""

from __future__ import annotations

import json
import re
from contextlib import suppress
from dataclasses import dataclass
from datetime import UTC, datetime

from fardo.files.kind import KindFile, shipped_kinds
from fardo.files.typed import must_read_back
from fardo.store.database import Conflict, Database, Gone
from fardo.store.lineage import next_first


@dataclass(frozen=True, slots=True)
class StoredKind:
    """`revision` is 0 for a kind as it ships."""

    kind: KindFile
    revision: int


_NO_MATCH = 9


def _match(want: str, kind: KindFile) -> int:
    """How a word is found in a kind, 0 the best: whole in its title or its words, or as the beginning of one there.

    The plural of a title counts as the word: "book" is whole in "Books".
    """
    title, others = (re.findall(r"\w+", text.lower()) for text in (kind.title, kind.words))
    if any(word in (want, f"{want}s", f"{want}es") for word in title):
        return 0
    if want in others:
        return 1
    if any(word.startswith(want) for word in title):
        return 2
    return 3 if any(word.startswith(want) for word in others) else _NO_MATCH


class Kinds:
    """The kinds of one database, with those that ship."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[StoredKind]:
        """By title."""
        found = {kind.code: StoredKind(kind, 0) for kind in shipped_kinds()}
        rows = self._database.read("SELECT revision, content FROM kind WHERE archived_at IS NULL")
        for row in rows:
            with suppress(ValueError):  # one that cannot be read does not take the others with it; `check` names it
                kind = KindFile.model_validate_json(row["content"])
                found[kind.code] = StoredKind(kind, row["revision"])
        return sorted(found.values(), key=lambda stored: (stored.kind.title.lower(), stored.kind.code))

    def get(self, code: str) -> StoredKind:
        """Raises Gone."""
        for stored in self.all():
            if stored.kind.code == code:
                return stored
        raise Gone(f"There is no kind of goods {code}.")

    def find(self, words: str) -> list[StoredKind]:
        """Those that hold every one of `words`, the best match first.

        A whole word goes before the beginning of one, and the title before the other words.
        """
        wanted = re.findall(r"\w+", words.lower())
        if not wanted:
            return []
        scored = [(stored, [_match(want, stored.kind) for want in wanted]) for stored in self.all()]
        found = [one for one in scored if _NO_MATCH not in one[1]]
        return [stored for stored, _ in sorted(found, key=lambda one: sum(one[1]))]

    def keep(self, kind: KindFile, revision: int) -> StoredKind:
        """The kind as it now is. Raises Conflict where `revision` is not the newest; 0 is a new one of the shop's."""
        content = json.dumps(kind.model_dump(mode="json", by_alias=True, exclude_none=True), ensure_ascii=False)
        must_read_back(KindFile, content)
        with self._database.writing() as connection:
            row = connection.execute("SELECT revision, archived_at FROM kind WHERE code = ?", (kind.code,)).fetchone()
            newest = row["revision"] if row and row["archived_at"] is None else 0
            if newest != revision:
                raise Conflict(newest)
            # Revisions go on from one that was archived, so that no number stands for two things.
            number = row["revision"] + 1 if row else next_first(connection)
            connection.execute(
                "INSERT INTO kind VALUES (?, ?, ?, ?, NULL) ON CONFLICT (code) DO UPDATE SET"
                " revision = excluded.revision, content = excluded.content, saved_at = excluded.saved_at,"
                " archived_at = NULL",
                (kind.code, number, content, now := _now()),
            )
            connection.execute("INSERT INTO kind_revision VALUES (?, ?, ?, ?)", (kind.code, number, content, now))
        return StoredKind(kind, number)

    def newest(self, code: str) -> int:
        """The revision that the shop's own kind has; 0 where it has none on its list."""
        row = self._database.read_one("SELECT revision FROM kind WHERE code = ? AND archived_at IS NULL", (code,))
        return int(row["revision"]) if row else 0

    def archive(self, code: str) -> None:
        """Takes the shop's own kind off the list; the one that ships under its code is back. Raises Gone."""
        with self._database.writing() as connection:
            done = connection.execute(
                "UPDATE kind SET archived_at = ? WHERE code = ? AND archived_at IS NULL", (_now(), code)
            )
            if done.rowcount == 0:
                raise Gone(f"The shop has no kind of goods {code} of its own.")

    def restore(self, code: str) -> StoredKind:
        """Raises Gone."""
        with self._database.writing() as connection:
            done = connection.execute("UPDATE kind SET archived_at = NULL WHERE code = ?", (code,))
            if done.rowcount == 0:
                raise Gone(f"The shop has no kind of goods {code} of its own.")
        return self.get(code)


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
