"""Keeps a shop's file as this version writes it: ``python -m tests.keep_shop``, before a migration is added.

What is in it, `tests/api/test_earlier_shops.py` looks for in every version after.
"""

from __future__ import annotations

import lzma
import sqlite3
import tempfile
from contextlib import closing
from datetime import date
from pathlib import Path

from fardo.core.pack.fetch import NOTHING_USED
from fardo.demo import open_demo
from fardo.files.sending import SendingEntry
from fardo.store.database import Database
from fardo.store.files import Files
from fardo.store.jobs import Jobs
from fardo.store.labels import GivenQuote, Labels
from fardo.store.migrating import newest_version
from fardo.store.sending import Sendings
from fardo.store.ticks import Tick, Ticks

KEPT = Path(__file__).parent / "kept/shops"


def write_shop(path: Path) -> None:
    """The made-up shop with something in every table: a job changed, one archived, a file, a tick, a label, a parcel.

    Args:
        path: where there is none yet.
    """
    open_demo(path, date(2026, 3, 2))
    database = Database(path)
    jobs, labels = Jobs(database), Labels(database)
    first, *_, last = jobs.page().jobs
    job = first.read().job
    jobs.change(first.id, first.revision, job.model_copy(update={"title": f"{job.title} (second revision)"}))
    jobs.archive(last.id)
    Files(database).keep("photo", ".txt", "text/plain", b"a file of this shop")
    Ticks(database).keep(first.id, [Tick("t1", "fetch", True, "2026-03-02T08:00:00Z")])
    quote = GivenQuote("Oddbarrow", "q-1", "Ground", "account", "21.50", "USD")
    labels.keep_quotes(first.id, [quote])
    labels.settle(labels.intend(first.id, quote), "sold", "sold", tracking="OB-1", amount="21.50", currency="USD")
    closed = {"closed": {"weight": "12 lb 3 oz", "sides": "24 x 12 x 8 in"}, "number": "OB 1"}
    Sendings(database).change(first.id, 0, SendingEntry.model_validate(closed), NOTHING_USED)
    database.close()
    with closing(sqlite3.connect(path)) as connection:  # one file, no log beside it
        connection.execute("PRAGMA journal_mode = DELETE")
        connection.execute("VACUUM")


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as folder:
        write_shop(Path(folder) / "shop.db")
        kept = KEPT / f"version-{newest_version():02d}.db.xz"
        kept.write_bytes(lzma.compress((Path(folder) / "shop.db").read_bytes(), preset=9))
        print(kept)
