"""Files written beside the one they are for, and put in its place whole: all of it or nothing, at every instant.

A file is written under a name of its own, synced, and takes the place of the other by a rename, after which the folder
is synced too. What a killed process leaves behind is swept away by the next one that writes there.
"""

from __future__ import annotations

import fcntl
import os
import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from fardo.store.faults import StoreError, cannot_write, of_disk

_PART = ".fardo-part"


@contextmanager
def written_beside(target: Path) -> Iterator[Path]:
    """An empty file in the folder of `target`, locked while it is written and gone where anything is raised.

    Raises:
        StoreError: where the folder takes no file, or its disk is full.
    """
    sweep(target.parent)
    part = target.with_name(f"{target.name}.{secrets.token_hex(4)}{_PART}")
    try:
        held = os.open(part, os.O_RDWR | os.O_CREAT | os.O_EXCL | os.O_CLOEXEC, 0o644)
    except OSError as error:
        raise of_disk(error, str(target)) from error
    try:
        fcntl.flock(held, fcntl.LOCK_EX)
        yield part
    except OSError as error:
        raise of_disk(error, str(target)) from error
    except sqlite3.OperationalError as error:
        if (fault := cannot_write(error)) is None:
            raise
        raise StoreError(f"{target} was not written: {fault}") from error
    finally:
        for name in (part, *(part.with_name(part.name + ending) for ending in ("-journal", "-wal", "-shm"))):
            with suppress(OSError):
                name.unlink(missing_ok=True)
        os.close(held)


def put_in_place(part: Path, target: Path) -> None:
    """The finished file takes the place of `target`. Once this returns the disk has it."""
    sync(part)
    os.replace(part, target)
    sync_folder(target.parent)


def put_under_a_new_name(part: Path, wanted: Path) -> Path:
    """The finished file under `wanted`, or under that with a number where the name is taken: nothing is overwritten.

    Returns:
        The name it has.
    """
    sync(part)
    for number in range(1, 10_000):
        name = wanted if number == 1 else wanted.with_name(f"{wanted.name}-{number}")
        try:
            os.link(part, name)  # unlike a rename it never takes the place of another
        except FileExistsError:
            continue
        except OSError:  # a file system without second names
            if name.exists():
                continue
            os.replace(part, name)
        sync_folder(name.parent)
        return name
    raise StoreError(f"{wanted} and every name like it are taken")


def sync(file: Path) -> None:
    """What was written of a file is on the disk once this returns."""
    descriptor = os.open(file, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)


def sync_folder(folder: Path) -> None:
    """Names given and taken in a folder are on the disk once this returns."""
    descriptor = os.open(folder, os.O_RDONLY | getattr(os, "O_DIRECTORY", 0))
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)


def sweep(folder: Path) -> list[Path]:
    """Removes what killed processes left half written in a folder; what is being written is locked and stays."""
    swept = []
    with suppress(OSError):
        for part in folder.glob(f"*{_PART}"):
            with suppress(OSError):
                held = os.open(part, os.O_RDWR | os.O_CLOEXEC)
                try:
                    fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
                    part.unlink()
                    swept.append(part)
                finally:
                    os.close(held)
        for left in folder.glob(f"*{_PART}-*"):  # a journal whose file is gone
            if not left.with_name(left.name[: left.name.rfind(_PART) + len(_PART)]).exists():
                with suppress(OSError):
                    left.unlink()
    return swept
