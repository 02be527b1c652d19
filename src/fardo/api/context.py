"""What every request works with: the store, and the shop and services as they now are, read once a revision; and the
processes beside the server that do what takes long.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import Future
from dataclasses import dataclass, replace
from functools import lru_cache, partial
from hashlib import blake2b
from pathlib import Path
from typing import Annotated, Any, Concatenate, Literal, ParamSpec, TypeVar

from fastapi import Depends, Request

from fardo import __version__
from fardo.api.reading import FileReader, Reads, ReadsHere
from fardo.arranging import Workers
from fardo.core.goods.shape import Scanned, scanned
from fardo.core.plan.box import LookedAt
from fardo.core.plan.job import Job
from fardo.core.plan.picture import Picture, draw_up, price_ways
from fardo.core.plan.price import Plan
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.core.tariff.carriers import Carriers
from fardo.files.job import JobFile
from fardo.files.mesh import read_mesh
from fardo.files.sending import StockTaken
from fardo.files.shapes import MeshFinder
from fardo.files.shop import ShopFile
from fardo.files.understood import understand
from fardo.processes import Crew, load_modules
from fardo.store.access import Access
from fardo.store.cuts import Cuts
from fardo.store.database import Database, Gone
from fardo.store.files import Files
from fardo.store.jobs import Jobs
from fardo.store.kinds import Kinds
from fardo.store.labels import Labels
from fardo.store.recipients import Recipients
from fardo.store.revisions import Revisions
from fardo.store.sending import NOTHING_TAKEN, Sendings, with_back
from fardo.store.settings import Settings
from fardo.store.ticks import Ticks

P = ParamSpec("P")
T = TypeVar("T")
MADE_UP_COOKIE = "fardo_made_up"
_RECKONERS = 2
_RECKON_NICE = 5


@dataclass(frozen=True, slots=True)
class Today:
    """The shop and its carriers as they stand.

    Args:
        mark: differs whenever the shop, a tariff or the program does.
    """

    stamp: tuple[object, ...]
    mark: str
    revision: int
    file: ShopFile
    shop: Shop
    carriers: Carriers
    find_mesh: MeshFinder
    settings: Settings

    def understand(self, job: JobFile) -> Job:
        """The job as this shop reads it; never raises for what a person may type."""
        return understand(job, self.shop, self.file.postcode, self.find_mesh)

    def carriers_for(self, job: Job) -> Carriers:
        """With the version of a tariff that the job keeps."""
        kept = (job.price.carrier, job.price.tariff) if job.price else None
        return self.settings.carriers_with(self.carriers, kept)

    def draw_up(self, job: JobFile, looked_at: str | None = None) -> Picture:
        """All that follows from the job here, as far as it can be read."""
        read = self.understand(job)
        seen = None if looked_at is None else LookedAt.read(looked_at)
        return draw_up(read, self.shop, self.carriers_for(read), seen)

    def with_back(self, taken: StockTaken) -> Today:
        """The shop as a job sees it that took this off the stock: on its shelf still."""
        if taken == NOTHING_TAKEN:
            return self
        file = with_back(self.file, taken)
        return replace(self, file=file, shop=file.to_core())

    def drew(self, picture: Picture) -> bool:
        """Whether it is of the shop and carriers as they stand."""
        return picture.shop is self.shop and picture.carriers.services is self.carriers.services

    def cheapest(self, job: JobFile) -> Plan | None:
        """Of every way to box the job and every service; None where none takes it."""
        read = self.understand(job)
        return price_ways(read, self.shop, self.carriers_for(read)).cheapest


class Crews:
    """The processes beside a server: they search, reckon and read files. Each is begun when first asked for.

    Args:
        loads: names of the modules whose functions are reckoned most.
    """

    def __init__(self, loads: Sequence[str] = ()) -> None:
        self.search = Workers()
        self.reckon = Crew(_RECKONERS, partial(load_modules, ("scipy.optimize", *loads)), nice=_RECKON_NICE)
        self.reader = FileReader()

    def close(self) -> None:
        self.search.close()
        self.reckon.close()
        self.reader.close()


class AppContext:
    """One open shop.

    Args:
        path: of its database.
        crews: the processes beside; None in one of them, which only reads the shop.
    """

    def __init__(self, path: Path, crews: Crews | None = None) -> None:
        self.path = path
        # Whether the made-up shop may be tried beside it, or this is the one that is tried.
        self.made_up: Literal["", "offered", "tried"] = ""
        self.database = Database(path, only_reads=crews is None)
        self.jobs = Jobs(self.database)
        self.settings = Settings(self.database)
        self.files = Files(self.database)
        self.kinds = Kinds(self.database)
        self.labels = Labels(self.database)
        self.ticks = Ticks(self.database)
        self.sendings = Sendings(self.database)
        self.recipients = Recipients(self.database)
        self.cuts = Cuts(self.database)
        self.revisions = Revisions(self.database)
        self.access = Access(self.database)
        self.crews = crews
        self.reader: Reads = crews.reader if crews else ReadsHere()
        # A mesh is read once, not at every stroke.
        self.find_mesh = lru_cache(maxsize=32)(self._find_mesh)
        self._today: Today | None = None

    def reckon(self, function: Callable[Concatenate[AppContext, P], T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        """The function's value on this shop, worked out beside the server; it must not write."""
        if self.crews is None:
            return function(self, *args, **kwargs)
        found: T = self.crews.reckon.run(_on_shop, self.path, function, args, kwargs)
        return found

    def look_for(self, function: Callable[Concatenate[AppContext, P], T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        """The same for what takes seconds: at the low priority of searches, so that whoever types goes first."""
        if self.crews is None:
            return function(self, *args, **kwargs)
        found: T = self.crews.search.crew().run(_on_shop, self.path, function, args, kwargs)
        return found

    def reckon_beside(
        self, function: Callable[Concatenate[AppContext, P], T], /, *args: P.args, **kwargs: P.kwargs
    ) -> Future[T]:
        """The same, not waited for."""
        assert self.crews is not None, "a process beside the server asks nobody else"
        return self.crews.reckon.submit(_on_shop, self.path, function, args, kwargs)

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
            mark = blake2b(repr((__version__, stamp)).encode(), digest_size=12).hexdigest()
            carriers = self.settings.carriers()
            today = Today(stamp, mark, revision, file, file.to_core(), carriers, self.find_mesh, self.settings)
            self._today = today
        return today

    def today_for(self, key: str | None) -> Today:
        """The shop as a saved job sees it, with what was taken off the stock for it; None for one not saved yet."""
        return self.today.with_back(self.sendings.of(key).taken) if key else self.today


def read_scan(name: str, content: bytes, unit: Length) -> Scanned:
    """The shape of a mesh file. Raises BadInput."""
    return scanned(name, read_mesh(name, content), unit)


@lru_cache(maxsize=2)
def _shop_at(path: Path, inode: int) -> AppContext:
    """The shop in a process beside the server; another file in its place is another shop."""
    return AppContext(path)


def _on_shop(path: Path, function: Callable[..., Any], args: Any, kwargs: Any) -> Any:
    return function(_shop_at(path, path.stat().st_ino), *args, **kwargs)


def asked_for(request: Request) -> Any:
    """What is open of the shop that a browser works on: the one that is served, or the made-up one that it tries."""
    state = request.app.state
    tried = state.made_up is not None and request.cookies.get(MADE_UP_COOKIE) is not None
    return (tried and state.made_up.opened) or state


async def _context(request: Request) -> AppContext:  # one that is not async is called in a thread, which takes longer
    context: AppContext = asked_for(request).context
    return context


Context = Annotated[AppContext, Depends(_context)]


async def _served(request: Request) -> AppContext:
    context: AppContext = request.app.state.context
    return context


# Who may open the shop is the served shop's alone, whichever one a browser is trying.
ServedContext = Annotated[AppContext, Depends(_served)]
