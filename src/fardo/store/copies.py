"""Copies of a shop that are made by themselves, one a day, and thrown away again after a time that the shop sets.

They lie in a folder beside the shop's file. Of the last week each day's is kept, of the time before one a week. A copy
holds what was forgotten in the shop since; that is why none is kept for longer than the shop says, and the copies made
before an update or a restore no longer either.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from fardo.store.backup import keep_copy

_EACH_DAY_FOR = 7
_ENDING = ".db"
_LOGS = ("-wal", "-shm", "-journal")
_IMPORTED = "imported"
_MOST_OF_A_KIND = 10  # kept of those that are made by a deed: before a restore, imported


def copies_folder(shop: Path) -> Path:
    """Where the copies of a shop lie."""
    return shop.with_name(f"{shop.name}.copies")


def copies_of(shop: Path) -> dict[date, Path]:
    """The daily copies there are, the newest first."""
    folder = copies_folder(shop)
    found = {day: one for one in (folder.iterdir() if folder.is_dir() else ()) if (day := _day_of(one)) is not None}
    return dict(sorted(found.items(), reverse=True))


@dataclass(frozen=True, slots=True)
class KeptCopy:
    """A copy that lies beside a shop.

    Args:
        name: of its file, by which it is asked for.
        made: the day, of a daily one; else when, as 2026-11-28T09:30:00+00:00.
        size: in bytes.
        why: it was made: daily, before-restore, before-update, imported.
    """

    name: str
    path: Path
    made: str
    size: int
    why: str


def kept_copies(shop: Path) -> list[KeptCopy]:
    """Every copy beside a shop, the newest first."""
    found = [(path, day.isoformat(), "daily") for day, path in copies_of(shop).items()]
    others = [*shop.parent.glob(f"{shop.name}.before-*"), *copies_folder(shop).glob(f"{_IMPORTED}*{_ENDING}")]
    for path in others:
        why = next((one for one in ("before-restore", _IMPORTED) if one in path.name), "before-update")
        found.append((path, _made(path).isoformat(timespec="seconds"), why))
    kept = [
        KeptCopy(path.name, path, made, path.stat().st_size, why) for path, made, why in found
        if not path.name.endswith(_LOGS)
    ]  # fmt: skip
    return sorted(kept, key=lambda one: one.path.stat().st_mtime, reverse=True)


def place_for_import(shop: Path) -> Path:
    """A file that is not there yet, in the folder of copies, for a shop that is imported."""
    copies_folder(shop).mkdir(exist_ok=True)
    return copies_folder(shop) / f"{_IMPORTED}-{datetime.now(UTC):%Y%m%d-%H%M%S-%f}{_ENDING}"


def drop_oldest(shop: Path, but: Sequence[Path] = ()) -> None:
    """Throws away the oldest copies that were made by a deed, so that deeds done again and again fill no disk.

    Args:
        but: copies that stay however old they are.
    """
    for why in ("before-restore", _IMPORTED):
        for old in [one for one in kept_copies(shop) if one.why == why][_MOST_OF_A_KIND:]:
            if old.path not in but:
                _remove(old.path)


def _remove(copy: Path) -> None:
    for ending in ("", *_LOGS):
        copy.with_name(copy.name + ending).unlink(missing_ok=True)


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
        _remove(old)
    return made


def _too_old(shop: Path, today: date, keep_days: int) -> Iterator[Path]:
    oldest, weeks = today - timedelta(days=keep_days), set()
    for day, path in reversed(copies_of(shop).items()):  # of a week its first stays
        week = day.isocalendar()[:2]
        if day < oldest or (day <= today - timedelta(days=_EACH_DAY_FOR) and week in weeks):
            yield path
        else:
            weeks.add(week)
    for path in (*shop.parent.glob(f"{shop.name}.before-*"), *copies_folder(shop).glob(f"{_IMPORTED}*")):
        if _made(path).astimezone().date() < oldest:
            yield path


def _made(path: Path) -> datetime:
    return datetime.fromtimestamp(path.stat().st_mtime, UTC)


def _day_of(path: Path) -> date | None:
    try:
        return date.fromisoformat(path.stem) if path.suffix == _ENDING else None
    except ValueError:
        return None
