"""What a server leaves behind that is ended while it searches."""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Iterator
from datetime import date
from pathlib import Path

from tests.api.test_processes import alive, at_work, descendants
from tests.served import Served

from fardo.demo import open_demo


def attack(folder: Path) -> Iterator[tuple[str, str, str]]:
    """The signal, how many processes there were, and when the last was gone, counted from the signal."""
    for how in (signal.SIGTERM, signal.SIGINT, signal.SIGKILL):
        shop = folder / f"{how.name}.db"
        open_demo(shop, date(2026, 3, 2))
        with Served(shop) as served:
            at_work(served.url)
            there = {*descendants(served.pid), served.pid}
            begun = time.monotonic()
            os.kill(served.pid, how)
            served.wait()
            while any(alive(one) for one in there):
                time.sleep(0.005)
            yield how.name, str(len(there)), f"{time.monotonic() - begun:.2f}"
