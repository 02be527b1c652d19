"""What every request works with: the store, and the shop and services as they now are, read once a revision; and the
processes beside the server that do what takes long."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Future
from dataclasses import dataclass
from functools import lru_cache
from hashlib import blake2b
from pathlib import Path
from typing import Annotated, Any, Concatenate, ParamSpec, TypeVar

from fastapi import Depends, Request

from fardo import __version__
from fardo.api.reading import FileReader, Reads, ReadsHere
from fardo.arranging import Workers
from fardo.core.goods.shape import Scanned, scanned
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.core.tariff.service import Service
from fardo.files.mesh import read_mesh
from fardo.files.shapes import MeshFinder
from fardo.files.shop import ShopFile
from fardo.files.tariff import services_of
from fardo.processes import Crew
from fardo.store.cuts import Cuts
from fardo.store.database import Database, Gone
from fardo.store.files import Files
from fardo.store.jobs import Jobs
from fardo.store.kinds import Kinds
from fardo.store.labels import Labels
from fardo.store.settings import Settings

P = ParamSpec("P")
T = TypeVar("T")
_RECKONERS = 2
_RECKON_NICE = 5


@dataclass(frozen=True, slots=True)
class Today:
    """The shop and its carriers as they stand.

    Args:
        mark: differs whenever the shop, a tariff or the program does.
        versions: of each carrier's tariff, the newest, those put away left out.
        find_tariff: a version's services, none where there is no such version.
    """

    stamp: tuple[object, ...]
    mark: str
    revision: int
    file: ShopFile
    shop: Shop
    services: tuple[Service, ...]
    find_mesh: MeshFinder
    versions: dict[str, int]
    find_tariff: Callable[[str, int], tuple[Service, ...]]


class Crews:
    """The processes beside a server: they search, reckon and read files. Each is begun when first asked for."""

    def __init__(self) -> None:
        self.search = Workers()
        self.reckon = Crew(_RECKONERS, _load_rules, nice=_RECKON_NICE)
        self.reader = FileReader()

    def close(self) -> None:
        self.search.close()
        self.reckon.close()
        self.reader.close()


class Desk:
    """One open shop.

    Args:
        path: of its database.
        crews: the processes beside; None in one of them, which only reads the shop.
    """

    def __init__(self, path: Path, crews: Crews | None = None) -> None:
        self.path = path
        self.database = Database(path, only_reads=crews is None)
        self.jobs = Jobs(self.database)
        self.settings = Settings(self.database)
        self.files = Files(self.database)
        self.kinds = Kinds(self.database)
        self.labels = Labels(self.database)
        self.cuts = Cuts(self.database)
        self.crews = crews
        self.reader: Reads = crews.reader if crews else ReadsHere()
        # A mesh is read once, not at every stroke.
        self.find_mesh = lru_cache(maxsize=32)(self._find_mesh)
        # A version never changes, so that it is read once.
        self.find_tariff = lru_cache(maxsize=64)(self._find_tariff)
        self._today: Today | None = None

    def reckon(self, function: Callable[Concatenate[Desk, P], T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        """The function's value on this shop, worked out beside the server; it must not write."""
        if self.crews is None:
            return function(self, *args, **kwargs)
        found: T = self.crews.reckon.run(_on_shop, self.path, function, args, kwargs)
        return found

    def reckon_beside(
        self, function: Callable[Concatenate[Desk, P], T], /, *args: P.args, **kwargs: P.kwargs
    ) -> Future[T]:
        """The same, not waited for."""
        assert self.crews is not None, "a process beside the server asks nobody else"
        return self.crews.reckon.submit(_on_shop, self.path, function, args, kwargs)

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
        return self.reader.read(name, read_scan, name, stored.content, unit)

    @property
    def today(self) -> Today:
        stamp = self.settings.stamp()
        today = self._today
        if today is None or today.stamp != stamp:
            revision, file = self.settings.shop()
            asked = [stored for stored in self.settings.stored_tariffs() if stored.put_away_at is None]
            services = tuple(services_of(stored.tariff for stored in asked))
            versions = {stored.tariff.carrier: stored.revision for stored in asked}
            mark = blake2b(repr((__version__, stamp)).encode(), digest_size=12).hexdigest()
            today = Today(
                stamp, mark, revision, file, file.to_core(), services, self.find_mesh, versions, self.find_tariff
            )
            self._today = today
        return today


def read_scan(name: str, content: bytes, unit: Length) -> Scanned:
    """The shape of a mesh file. Raises BadInput."""
    return scanned(name, read_mesh(name, content), unit)


@lru_cache(maxsize=2)
def _shop_at(path: Path, inode: int) -> Desk:
    """The shop in a process beside the server; another file in its place is another shop."""
    return Desk(path)


def _on_shop(path: Path, function: Callable[..., Any], args: Any, kwargs: Any) -> Any:
    return function(_shop_at(path, path.stat().st_ino), *args, **kwargs)


def _load_rules() -> None:
    """Loads what is asked for most."""
    import scipy.optimize  # noqa: F401

    from fardo.api import arranged, bench, cutting, stepped  # noqa: F401


def _desk(request: Request) -> Desk:
    desk: Desk = request.app.state.desk
    return desk


OpenDesk = Annotated[Desk, Depends(_desk)]
