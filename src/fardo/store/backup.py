"""A whole copy of a shop, and a copy put in a shop's place: all of it or nothing, whenever it is cut off."""

from __future__ import annotations

import shutil
import sqlite3
from datetime import UTC, datetime
from pathlib import Path

from fardo.store.atomic_files import put_in_place, put_under_a_new_name, sync, sync_folder, written_beside
from fardo.store.faults import StoreError, of_disk
from fardo.store.lineage import go_on_above_shop
from fardo.store.lock import ShopLock
from fardo.store.soundness import check_file, looked_at

_LOGS = ("-wal", "-shm", "-journal")


def back_up(shop: Path, target: Path) -> None:
    """Copies a shop whole, also while it is being served or lies on a read-only medium; the copy is checked.

    Raises:
        StoreError: where the shop is not sound, or the copy cannot be written; what was at `target` is then as it was.
    """
    check_file(shop)
    _must_differ(shop, target)
    if any(target.with_name(target.name + ending).exists() for ending in _LOGS):
        raise StoreError(f"{target} is a shop that is open, or was when it was cut off; choose another name")
    with written_beside(target) as part:
        _copy(shop, part)
        check_file(part)
        put_in_place(part, target)


def restore(backup: Path, shop: Path) -> Path | None:
    """Puts a backup in a shop's place.

    The shop that was there is kept under a name of its own before anything else is done. Killed at any moment, the
    shop's file is the one before or the one restored.

    Returns:
        Where the shop that was there is kept; None where there was none.

    Raises:
        StoreError: where the backup is not sound, the shop is open somewhere, or something cannot be written; the shop
            is then as it was.
    """
    check_file(backup)
    _must_differ(shop, backup)
    lock = ShopLock(shop, alone=True)
    try:
        with written_beside(shop) as part:
            _copy(backup, part)
            if shop.exists():
                go_on_above_shop(part, shop)
            check_file(part)
            kept = _keep(shop) if shop.exists() else None
            _drop_logs(shop)
            put_in_place(part, shop)
        return kept
    finally:
        lock.release()


def keep_copy(shop: Path, wanted: Path) -> Path:
    """A copy of a shop beside it, under `wanted` or a name like it that is free. Raises StoreError."""
    with written_beside(wanted) as part:
        _copy(shop, part)
        return put_under_a_new_name(part, wanted)


def _keep(shop: Path) -> Path:
    wanted = shop.with_name(f"{shop.name}.before-restore-{datetime.now(UTC):%Y%m%d-%H%M%S}")
    try:
        check_file(shop)
    except StoreError:
        return _keep_as_it_is(shop, wanted)
    try:
        _fold_in_log(shop)
    except sqlite3.OperationalError as error:
        raise StoreError(f"{shop} is open in another program, or cannot be written to: {error}") from error
    return keep_copy(shop, wanted)


def _fold_in_log(shop: Path) -> None:
    """What stands in the write-ahead log goes into the file itself, and the log is gone."""
    connection = sqlite3.connect(shop, timeout=2)
    try:
        connection.execute("PRAGMA synchronous = FULL")
        connection.execute("PRAGMA journal_mode = DELETE")
    finally:
        connection.close()


def _keep_as_it_is(shop: Path, wanted: Path) -> Path:
    """A shop that is not sound, byte by byte, with the log that lies beside it."""
    with written_beside(wanted) as part:
        shutil.copyfile(shop, part)
        kept = put_under_a_new_name(part, wanted)
    for ending in _LOGS:
        if (log := shop.with_name(shop.name + ending)).exists():
            try:
                shutil.copyfile(log, kept.with_name(kept.name + ending))
                sync(kept.with_name(kept.name + ending))
            except OSError as error:
                raise of_disk(error, str(kept)) from error
    sync_folder(kept.parent)
    return kept


def _drop_logs(shop: Path) -> None:
    """A log belongs to the file it was written for; beside another it would be played into that."""
    for ending in _LOGS:
        shop.with_name(shop.name + ending).unlink(missing_ok=True)
    sync_folder(shop.parent)


def _copy(shop: Path, part: Path) -> None:
    with looked_at(shop) as source:
        copy = sqlite3.connect(part)
        try:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode = DELETE")
        except sqlite3.OperationalError as error:
            raise StoreError(f"the copy of {shop} was not written: {error}. Nothing was changed") from error
        finally:
            copy.close()


def _must_differ(shop: Path, other: Path) -> None:
    if other.is_dir():
        raise StoreError(f"{other} is a folder; name a file in it")
    if other.exists() and shop.exists() and other.samefile(shop):
        raise StoreError(f"{other} and {shop} are one file; nothing was changed")
