"""What every request works with: the store, and the shop and services as they now are, read once a revision."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request

from fardo.core.plan.shop import Shop
from fardo.core.tariff.service import Service
from fardo.files.shop import ShopFile
from fardo.files.tariff import services_of
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.settings import Settings


@dataclass(frozen=True, slots=True)
class Today:
    """The shop and its carriers as they stand."""

    stamp: tuple[object, ...]
    revision: int
    file: ShopFile
    shop: Shop
    services: tuple[Service, ...]


class Desk:
    """One open shop."""

    def __init__(self, path: Path) -> None:
        self.database = Database(path)
        self.jobs = Jobs(self.database)
        self.settings = Settings(self.database)
        self._today: Today | None = None

    @property
    def today(self) -> Today:
        stamp = self.settings.stamp()
        today = self._today
        if today is None or today.stamp != stamp:
            revision, file = self.settings.shop()
            services = tuple(services_of(self.settings.tariffs()))
            today = Today(stamp, revision, file, file.to_core(), services)
            self._today = today
        return today


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


OpenDesk = Annotated[Desk, Depends(_desk)]
