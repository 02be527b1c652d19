"""Copies that a shop makes by itself: one a day, each sound, and none kept for longer than the shop says."""

from __future__ import annotations

import os
from datetime import date, datetime, timedelta
from pathlib import Path

import httpx
import pytest

from fardo.store.copies import copies_folder, copies_of, copy_daily, drop_oldest, kept_copies
from fardo.store.database import Database
from fardo.store.faults import StoreError
from fardo.store.jobs import Jobs
from fardo.store.soundness import check_shop
from tests.api.test_backups import add, titles
from tests.served import Served

FIRST = date(2026, 1, 1)  # a Thursday


@pytest.fixture
def shop(tmp_path: Path) -> Path:
    path = tmp_path / "fardo.db"
    add(path, "first")
    return path


def test_a_copy_a_day_holds_what_there_was_that_day(shop: Path) -> None:
    first = copy_daily(shop, FIRST, 30)
    assert first is not None
    add(shop, "second")
    assert copy_daily(shop, FIRST, 30) is None
    second = copy_daily(shop, FIRST + timedelta(1), 30)
    assert second is not None
    assert (titles(first), titles(second)) == (["first"], ["first", "second"])
    assert list(copies_of(shop)) == [FIRST + timedelta(1), FIRST]


def test_a_shop_that_is_open_is_copied_whole(shop: Path) -> None:
    database = Database(shop)
    try:
        assert len(Jobs(database).page().jobs) == 1
        copy = copy_daily(shop, FIRST, 30)
    finally:
        database.close()
    assert copy is not None
    assert check_shop(copy).flaws == ()


def test_each_day_of_a_week_and_one_a_week_before_it_are_kept(shop: Path) -> None:
    today = FIRST
    for n in range(40):
        today = FIRST + timedelta(n)
        copy_daily(shop, today, 30)
    kept = list(copies_of(shop))
    assert kept[:7] == [today - timedelta(n) for n in range(7)]
    assert min(kept) >= today - timedelta(30)
    weeks = [day.isocalendar()[:2] for day in kept[7:]]
    assert len(weeks) == len(set(weeks)) == 4


def test_no_copy_is_kept_for_longer_than_the_shop_says(shop: Path) -> None:
    """What was forgotten in the shop is gone from every copy after that time."""
    before_update = shop.with_name("fardo.db.before-011")
    before_update.write_bytes(shop.read_bytes())
    then = datetime(2026, 1, 1, 12).timestamp()
    os.utime(before_update, (then, then))
    copy_daily(shop, FIRST, 3)
    copy_daily(shop, FIRST + timedelta(3), 3)
    assert before_update.exists()
    assert FIRST in copies_of(shop)
    copy_daily(shop, FIRST + timedelta(4), 3)
    assert not before_update.exists()
    assert list(copies_of(shop)) == [FIRST + timedelta(4), FIRST + timedelta(3)]


def test_nothing_is_thrown_away_where_todays_copy_cannot_be_made(shop: Path) -> None:
    copy_daily(shop, FIRST, 3)
    kept = copies_of(shop)
    shop.write_bytes(b"no shop any more")
    with pytest.raises(StoreError):
        copy_daily(shop, FIRST + timedelta(30), 3)
    assert copies_of(shop) == kept


def test_what_else_lies_in_the_folder_is_left_alone(shop: Path) -> None:
    copy_daily(shop, FIRST, 3)
    own = copies_folder(shop) / "before the fair.db"
    own.write_text("the shop's own")
    copy_daily(shop, FIRST + timedelta(400), 3)
    assert own.exists()
    assert list(copies_of(shop)) == [FIRST + timedelta(400)]


def test_a_shop_that_is_served_has_a_copy_of_today(shop: Path) -> None:
    with Served(shop) as served:
        for _ in range(2000):  # questions, each of which gives the copy time
            if copies_of(shop):
                break
            httpx.get(f"{served.url}/api/jobs")
    (day,) = copies_of(shop)
    assert abs((day - date.today()).days) <= 1


def test_of_copies_made_before_a_restore_the_last_ten_stay(shop: Path) -> None:
    for n in range(13):
        kept = shop.with_name(f"{shop.name}.before-restore-{n:02d}")
        kept.write_bytes(shop.read_bytes())
        os.utime(kept, (n, n))
    first = shop.with_name(f"{shop.name}.before-restore-00")
    drop_oldest(shop, but=[first])
    names = [one.name.rpartition("-")[2] for one in kept_copies(shop)]
    assert names == [f"{n:02d}" for n in range(12, 2, -1)] + ["00"]
