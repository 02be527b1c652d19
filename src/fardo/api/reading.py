"""Files from outside are read in a process beside the shop's, within limits of time and memory.

What a file holds is somebody else's: a drawing of a thousand nested turns or a mesh of a hundred thousand copies must
not hold up whoever types. What is read there is counted first, by the modules in `files/`; these limits are for the
rest.
"""

from __future__ import annotations

import logging
from collections.abc import Callable
from typing import ParamSpec, Protocol, TypeVar

from fardo.core.refusal import BadInput
from fardo.processes import Crew, TookTooLong, TookTooMuch, WorkFailed

P = ParamSpec("P")
T = TypeVar("T")
LONGEST_S = 2.0
ARCHIVE_S = 600.0  # a whole shop, with its photographs
MOST_MEMORY = 1_000_000_000  # bytes beyond what the process has when it begins


_TETRAHEDRON = b"v 0 0 0\nv 9 0 0\nv 0 9 0\nv 0 0 9\nf 1 3 2\nf 1 2 4\nf 1 4 3\nf 2 3 4\n"


class Reads(Protocol):
    """Whatever reads files: beside the shop's process, or in a process that is beside it already."""

    def read(self, name: str, function: Callable[P, T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        """What the function makes of the file of that name. Raises BadInput."""


class FileReader:
    """Reads files in processes of their own; while one is begun anew, as a file took too long, the other reads."""

    def __init__(self) -> None:
        self._crew = Crew(2, _ready, nice=5, memory=MOST_MEMORY)
        self._archives = Crew(1, nice=10, memory=MOST_MEMORY)

    def read(self, name: str, function: Callable[P, T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        return self._read(self._crew, LONGEST_S, name, function, *args, **kwargs)

    def read_archive(self, name: str, function: Callable[P, T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        """The same for a whole shop, which may take minutes; nothing else waits for it. Raises BadInput."""
        return self._read(self._archives, ARCHIVE_S, name, function, *args, **kwargs)

    def _read(
        self, crew: Crew, longest_s: float, name: str, function: Callable[P, T], /, *args: P.args, **kwargs: P.kwargs
    ) -> T:
        try:
            return crew.run_within(longest_s, function, *args, **kwargs)
        except TookTooLong as fault:
            why = f"it takes longer than {longest_s:g} seconds to read"
            raise BadInput(why, read=name, allowed="a simpler file", field="file") from fault
        except WorkFailed as fault:
            logging.getLogger("fardo").info("a file could not be read: %s", fault)
            raise BadInput("it cannot be read", read=name, allowed="a whole file of its kind", field="file") from fault
        except TookTooMuch as fault:
            raise BadInput(
                "it takes too much memory to read", read=name, allowed="a simpler file", field="file"
            ) from fault

    def close(self) -> None:
        self._crew.close()
        self._archives.close()


class ReadsHere:
    """Reads files where it is asked."""

    def read(self, name: str, function: Callable[P, T], /, *args: P.args, **kwargs: P.kwargs) -> T:
        return function(*args, **kwargs)


def _ready() -> None:
    """Loads what files are read with, so that the time for a file is the file's own."""
    import defusedxml.ElementTree
    import ezdxf
    import PIL.Image
    import shapely.ops
    import svgelements
    import trimesh  # noqa: F401

    from fardo.core.goods.shape import scanned
    from fardo.core.quantity import Length
    from fardo.files import blank_in, bundle, parts_csv, photo  # noqa: F401
    from fardo.files.mesh import read_mesh

    PIL.Image.init()
    # A mesh loads more than its library does: what is loaded under a limit of memory may wait for ever.
    scanned("ready", read_mesh("ready.obj", _TETRAHEDRON), Length.of_mm(1))
    del defusedxml, ezdxf, PIL, shapely, svgelements
