"""What very many work-outs leave behind in the server's memory, each of another size."""

from __future__ import annotations

import gc
from collections.abc import Iterator
from pathlib import Path
from random import Random

from tests.made_up import box, job, part

from fardo.api.context import AppContext, Crews
from fardo.api.picture import view_picture
from fardo.files.job import JobFile

_ROWS = 8


def attack(shop: Path, number: int) -> Iterator[tuple[str, str]]:
    """How many there were, and how much more memory is taken than after the first hundred."""
    context, draw = AppContext(shop, Crews()), Random(1)

    def work_out() -> None:
        sides = (f"{draw.randrange(256, 1920)}/64 in" for _ in range(3))
        shape = box(**dict(zip(("length", "width", "height"), sides, strict=True)))
        content = job(parts=[part(shape=shape, weight=f"{draw.randrange(10, 400)} oz")], ways=["tray", "slotted"])
        read = JobFile.model_validate(content)
        view_picture(context.today.draw_up(read, "tray"), read.answers)

    for _ in range(100):
        work_out()
    gc.collect()
    before = _resident()
    for row in range(_ROWS):
        for _ in range(number // _ROWS):
            work_out()
        gc.collect()
        yield str((row + 1) * (number // _ROWS)), f"{(_resident() - before) / 1000:.1f}"
    context.database.close()


def _resident() -> int:
    """In kB."""
    status = Path("/proc/self/status").read_text()
    return int(status.partition("VmRSS:")[2].split()[0])
