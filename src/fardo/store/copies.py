"""Copies of a shop that are made by themselves, one a day, and thrown away again after a time that the shop sets.

They lie in a folder beside the shop's file. Of the last week each day's is kept, of the time before one a week. A copy
holds what was forgotten in the shop since; that is why none is kept for longer than the shop says, and the copies made
before an update or a restore no longer either.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from fardo.store.backup import keep_copy

_EACH_DAY_FOR = 7
_ENDING = ".db"


def copies_folder(shop: Path) -> Path:
    """Where the copies of a shop lie."""
    return shop.with_name(f"{shop.name}.copies")


def copies_of(shop: Path) -> dict[date, Path]:
    """The daily copies there are, the newest first."""
    folder = copies_folder(shop)
    found = {day: one for one in (folder.iterdir() if folder.is_dir() else ()) if (day := _day_of(one)) is not None}
    return dict(sorted(found.items(), reverse=True))


def copy_daily(shop: Path, today: date, keep_days: int) -> Path | None:
    """Makes today's copy where there is none yet, then throws away what is too old.

    Args:
        today: the day, by the clock of this machine.
        keep_days: no copy is kept for longer.

    Returns: the copy; None where today's was there already.

    Raises: StoreError where it cannot be written; then nothing is thrown away.
    """
    wanted = copies_folder(shop) / f"{today.isoformat()}{_ENDING}"
    made = None
    if not wanted.exists():
        wanted.parent.mkdir(exist_ok=True)
        made = keep_copy(shop, wanted)
    for old in list(_too_old(shop, today, keep_days)):
        for ending in ("", "-wal", "-shm", "-journal"):
            old.with_name(old.name + ending).unlink(missing_ok=True)
    return made


def _too_old(shop: Path, today: date, keep_days: int) -> Iterator[Path]:
    oldest, weeks = today - timedelta(days=keep_days), set()
    for day, path in reversed(copies_of(shop).items()):  # of a week its first stays
        week = day.isocalendar()[:2]
        if day < oldest or (day <= today - timedelta(days=_EACH_DAY_FOR) and week in weeks):
            yield path
        else:
            weeks.add(week)
    for path in shop.parent.glob(f"{shop.name}.before-*"):
        if datetime.fromtimestamp(path.stat().st_mtime, UTC).astimezone().date() < oldest:
            yield path


def _day_of(path: Path) -> date | None:
    try:
        return date.fromisoformat(path.stem) if path.suffix == _ENDING else None
    except ValueError:
        return None
