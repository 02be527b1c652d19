"""What was answered is on the disk, not only in the system's hands: power cuts at any moment while jobs are saved."""

from __future__ import annotations

from pathlib import Path
from random import Random

import pytest

from fardo.files.job import JobFile
from fardo.store import database as store
from fardo.store.database import Database, Gone
from fardo.store.jobs import Jobs
from fardo.store.soundness import check_shop
from tests.made_up import job
from tests.power_cut import forgetful

SAVES = 160  # enough that the log is folded into the file on the way
EVERY = 8


def lost_by_power_cuts(folder: Path, seed: int) -> int:
    """Saves a job again and again with the power cut now and then; how many acknowledged saves some cut lost."""
    draw, lost = Random(seed), 0
    for name in ("shop", "after"):
        (folder / name).mkdir(parents=True)
    with forgetful(folder / "shop") as disk:
        database = Database(folder / "shop" / "shop.db")
        jobs = Jobs(database)
        words = "bobbin reed heddle shuttle treadle maiden flyer " * 40
        stored = jobs.add(JobFile.model_validate(job(parts=[{**job()["parts"][0], "name": words[:119]}] * 20)))
        for n in range(1, SAVES):
            stored = jobs.change(stored.id, n, stored.job.model_copy(update={"title": f"save {n}"}))
            if n % EVERY == 0:
                image = folder / "after" / str(n)
                disk.after_power_cut(image, draw)
                found = check_shop(image / "shop.db")
                after = Database(image / "shop.db")
                try:
                    lost = max(lost, stored.revision - Jobs(after).get(stored.id).revision)
                except Gone:
                    lost = stored.revision
                after.close()
                assert found.flaws == ()
        database.close()
    return lost


@pytest.mark.parametrize("seed", [1, 2, 3])
def test_no_power_cut_loses_an_acknowledged_save(tmp_path: Path, seed: int) -> None:
    assert lost_by_power_cuts(tmp_path, seed) == 0


def test_the_disk_of_these_tests_does_forget(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """The same with SQLite's own usual setting, which syncs the log only now and then."""
    monkeypatch.setattr(store, "SYNCHRONOUS", "NORMAL")
    assert lost_by_power_cuts(tmp_path, 1) > 0


def test_every_connection_of_a_shop_is_in_wal_and_fully_synchronised(shop_file: Path) -> None:
    database = Database(shop_file)
    set_to = {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1}  # 2: full
    with database.writing() as writer:
        for name, value in set_to.items():
            assert writer.execute(f"PRAGMA {name}").fetchone()[0] == value
            assert database.read(f"PRAGMA {name}")[0][0] == value
    database.close()
