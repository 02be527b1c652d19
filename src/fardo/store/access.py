"""The passphrase of a shop and the sessions of devices that signed in with it."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from hashlib import sha256

from argon2 import PasswordHasher
from argon2.exceptions import VerificationError

from fardo.core.refusal import BadInput
from fardo.store.database import Database, Gone

SHORTEST = 10
LONGEST = 200
_LASTS = timedelta(days=90)  # of a session, since it was last seen
_SEEN_EVERY = timedelta(minutes=10)  # a request writes down that it was here, no oftener
_MOST_SESSIONS = 50
_HASHER = PasswordHasher()  # argon2id with the library's own costs


@dataclass(frozen=True, slots=True)
class Session:
    """A device that is signed in.

    Args:
        device: what it said it is.
    """

    id: str
    device: str
    begun_at: str
    seen_at: str

    @property
    def address(self) -> str:
        """On the network, as the device was named when it signed in."""
        return self.device.rpartition(" at ")[2]


class Access:
    """Of one shop."""

    def __init__(self, database: Database) -> None:
        self._database = database

    @property
    def has_passphrase(self) -> bool:
        return bool(self._database.read("SELECT 1 FROM passphrase"))

    def set_passphrase(self, words: str) -> None:
        """Sets it, or another; every session ends. Raises BadInput for one that is too short or too long."""
        if not len(words.strip()) >= SHORTEST or len(words) > LONGEST:
            allowed = f"{SHORTEST} to {LONGEST} signs; four words in a row are good"
            raise BadInput("not a passphrase", read=f"{len(words)} signs", allowed=allowed, field="passphrase")
        hashed, now = _HASHER.hash(words), _now()
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO passphrase VALUES (1, ?, ?) ON CONFLICT (number) DO UPDATE SET hash = excluded.hash,"
                " saved_at = excluded.saved_at", (hashed, now),
            )  # fmt: skip
            connection.execute("DELETE FROM session")

    def knows(self, words: str) -> bool:
        """Whether that is the passphrase; takes as long for a wrong one."""
        row = self._database.read("SELECT hash FROM passphrase")
        if not row:
            return False
        try:
            return _HASHER.verify(row[0]["hash"], words[: LONGEST + 1])
        except VerificationError:
            return False

    def begin(self, device: str) -> tuple[Session, str]:
        """A session for a device, and the token that is its cookie, which is not kept."""
        token, now = secrets.token_urlsafe(32), _now()
        session = Session(secrets.token_hex(6), device[:120], now, now)
        with self._database.writing() as connection:
            connection.execute(
                "INSERT INTO session VALUES (?, ?, ?, ?, ?)", (session.id, _hash(token), session.device, now, now)
            )
            connection.execute(
                "DELETE FROM session WHERE id NOT IN (SELECT id FROM session ORDER BY seen_at DESC LIMIT ?)",
                (_MOST_SESSIONS,),
            )
        return session, token

    def session_of(self, token: str) -> Session | None:
        """Whose token that is; None where there is no such session, or it has not been seen for too long."""
        rows = self._database.read("SELECT * FROM session WHERE token_hash = ?", (_hash(token),))
        if not rows:
            return None
        row, now = rows[0], datetime.now(UTC)
        unseen = now - datetime.fromisoformat(row["seen_at"])
        if unseen > _LASTS:
            self.end(row["id"])
            return None
        if unseen > _SEEN_EVERY:
            with self._database.writing() as connection:
                connection.execute("UPDATE session SET seen_at = ? WHERE id = ?", (_now(), row["id"]))
        return Session(row["id"], row["device"], row["begun_at"], row["seen_at"])

    def sessions(self) -> list[Session]:
        """All there are, the last seen first."""
        rows = self._database.read("SELECT * FROM session ORDER BY seen_at DESC, id")
        return [Session(row["id"], row["device"], row["begun_at"], row["seen_at"]) for row in rows]

    def end(self, session_id: str) -> None:
        """Raises Gone where there is no such session."""
        with self._database.writing() as connection:
            if connection.execute("DELETE FROM session WHERE id = ?", (session_id,)).rowcount == 0:
                raise Gone(f"There is no session {session_id}.")


def _hash(token: str) -> str:
    return sha256(token.encode()).hexdigest()


def _now() -> str:
    return datetime.now(UTC).isoformat(timespec="seconds")
