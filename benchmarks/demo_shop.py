"""The demo's shop as the core has it, with its carriers and where it is."""

from __future__ import annotations

import tempfile
from datetime import date
from pathlib import Path

from fardo.command.shared import open_shop
from fardo.core.plan.shop import Shop
from fardo.core.tariff.carriers import Carriers
from fardo.demo import open_demo


def demo_shop() -> tuple[Shop, Carriers, str | None]:
    """The third is its postcode."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.db"
        open_demo(database, date(2026, 3, 2))
        file, carriers = open_shop(database, None)
    return file.to_core(), carriers, file.postcode
