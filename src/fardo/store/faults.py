"""What the store refuses, and why it could not write."""

from __future__ import annotations

import errno
import sqlite3


class StoreError(Exception):
    """The database file cannot be used; the sentence says why."""


class Conflict(Exception):
    """A change was made from a revision that is not the newest any more.

    Args:
        revision: the newest.
    """

    def __init__(self, revision: int) -> None:
        self.revision = revision
        super().__init__(f"changed meanwhile; the newest is revision {revision}")


class NameTaken(Exception):
    """Something else has that name already, and its place was not asked for.

    Args:
        code: of what has it.
    """

    def __init__(self, says: str, code: str) -> None:
        self.code = code
        super().__init__(says)


class Gone(Exception):
    """There is no such thing."""


class Unreadable(Exception):
    """Something is kept that is not what it should be; its text can still be saved.

    Args:
        key: of the job.
        title: as far as it is known.
        why: in a sentence.
    """

    def __init__(self, key: str, title: str, why: str) -> None:
        self.key, self.title, self.why = key, title, why
        super().__init__(f"This job cannot be read: {why}. What is kept of it can be saved as text.")


class CannotWrite(Exception):
    """Nothing of a change was saved, and nothing that was saved before is lost.

    Args:
        full: whether the disk is full.
    """

    def __init__(self, says: str, *, full: bool = False) -> None:
        self.full = full
        super().__init__(says)


_KEPT = "Nothing of this change was saved; everything saved before is as it was"


def cannot_write(error: sqlite3.Error) -> CannotWrite | None:
    """What a fault of writing says to the person at the bench; None where it is a fault of ours."""
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    if code == sqlite3.SQLITE_FULL:
        return CannotWrite(f"The disk is full. {_KEPT}. Make room, then save again.", full=True)
    says = {
        sqlite3.SQLITE_READONLY: "The shop's file cannot be written to.",
        sqlite3.SQLITE_IOERR: "The disk did not take it.",
        sqlite3.SQLITE_CANTOPEN: "The shop's file cannot be opened.",
        sqlite3.SQLITE_BUSY: "Another program is writing to the shop's file.",
        sqlite3.SQLITE_LOCKED: "Another program is writing to the shop's file.",
    }.get(code)
    return CannotWrite(f"{says} {_KEPT}.") if says else None


def of_disk(error: OSError, what: str) -> StoreError:
    """A fault of the disk as a sentence.

    Args:
        what: was to be written.
    """
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return StoreError(f"{what} was not written: the disk is full. Nothing was changed")
    return StoreError(f"{what} was not written: {error.strerror or error}. Nothing was changed")
