"""What a machine lacks to serve a shop well, in sentences that say what to do."""

from __future__ import annotations

import os
import shutil
from collections.abc import Iterator
from datetime import date
from importlib.resources import files
from pathlib import Path

import fardo.core.arrange

LEAST_FREE = 500_000_000  # bytes, for a shop, its copies and what is written beside it
_BEGUN = date(2026, 1, 1)  # no clock that is right says an earlier day


def lacking(shop: Path, today: date) -> Iterator[str]:
    """What is missing, a sentence each; nothing where all is there.

    Args:
        shop: its database, which may be there or not.
        today: the day by the machine's clock.
    """
    if not Path(str(files("fardo").joinpath("static", "index.html"))).is_file():
        yield "The screens are not built: run make setup, or install the wheel."
    folder = shop.absolute().parent
    if not os.access(folder, os.W_OK | os.X_OK):
        yield f"{folder} cannot be written to by this user: nothing can be saved there."
    elif (free := shutil.disk_usage(folder).free) < LEAST_FREE:
        yield f"Only {free // 10**6} MB are free in {folder}: a copy is made each day the shop is served."
    if not any(_can_keep(one) for one in (Path(fardo.core.arrange.__file__).parent, Path.home())):
        yield "Compiled loops can be kept nowhere: every start takes 10 to 20 seconds longer."
    if today < _BEGUN:
        yield f"The clock of this machine says {today}: ship dates, tariffs and copies go by it."


def _can_keep(folder: Path) -> bool:
    return os.access(folder, os.W_OK | os.X_OK)
