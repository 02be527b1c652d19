"""What every request works with: the store, and the shop and services as they now are, read once a revision."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request

from fardo.core.goods.shape import Scanned, scanned
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.core.tariff.service import Service
from fardo.files.mesh import read_mesh
from fardo.files.shapes import MeshFinder
from fardo.files.shop import ShopFile
from fardo.files.tariff import services_of
from fardo.store.database import Database, Gone
from fardo.store.files import Files
from fardo.store.jobs import Jobs
from fardo.store.kinds import Kinds
from fardo.store.settings import Settings


@dataclass(frozen=True, slots=True)
class Today:
    """The shop and its carriers as they stand.

    Args:
        versions: of each carrier's tariff, the newest, those put away left out. find_tariff: a version's services, none
        where there is no such version.
    """

    stamp: tuple[object, ...]
    revision: int
    file: ShopFile
    shop: Shop
    services: tuple[Service, ...]
    find_mesh: MeshFinder
    versions: dict[str, int]
    find_tariff: Callable[[str, int], tuple[Service, ...]]


class Desk:
    """One open shop."""

    def __init__(self, path: Path) -> None:
        self.database = Database(path)
        self.jobs = Jobs(self.database)
        self.settings = Settings(self.database)
        self.files = Files(self.database)
        self.kinds = Kinds(self.database)
        # A mesh is read once, not at every stroke.
        self.find_mesh = lru_cache(maxsize=32)(self._find_mesh)
        # A version never changes, so that it is read once.
        self.find_tariff = lru_cache(maxsize=64)(self._find_tariff)
        self._today: Today | None = None

    def _find_tariff(self, carrier: str, version: int) -> tuple[Service, ...]:
        try:
            return self.settings.tariff_version(carrier, version).to_core()
        except Gone:
            return ()

    def find_file(self, name: str) -> bytes | None:
        """What is kept under a name, or None."""
        try:
            return self.files.get(name).content
        except Gone:
            return None

    def _find_mesh(self, name: str, unit: Length) -> Scanned:
        """The shape of a mesh file kept here. Raises BadInput."""
        try:
            stored = self.files.get(name)
        except Gone as gone:
            raise BadInput("not a file that is here", read=name, allowed="a mesh file sent in", field="file") from gone
        return scanned(name, read_mesh(name, stored.content), unit)

    @property
    def today(self) -> Today:
        stamp = self.settings.stamp()
        today = self._today
        if today is None or today.stamp != stamp:
            revision, file = self.settings.shop()
            asked = [stored for stored in self.settings.stored_tariffs() if stored.put_away_at is None]
            services = tuple(services_of(stored.tariff for stored in asked))
            versions = {stored.tariff.carrier: stored.revision for stored in asked}
            today = Today(stamp, revision, file, file.to_core(), services, self.find_mesh, versions, self.find_tariff)
            self._today = today
        return today


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


OpenDesk = Annotated[Desk, Depends(_desk)]
