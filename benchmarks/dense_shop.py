"""A shop as full as one gets: for screens that must hold, and for what takes long.

``python -m benchmarks.dense_shop shop.db`` makes one to open with ``fardo serve``: 200 boxes, 27 carriers with 70
services, one of them with 150 rows by nine zones, a job of 40 parts with long names, words of other scripts, a kind of
40 steps, 20 jobs to cut, a job with thirteen faults.
"""

from __future__ import annotations

import sys
from datetime import date, timedelta
from pathlib import Path
from random import Random
from typing import Any

from fardo.demo import TARIFFS, open_demo
from fardo.files.job import JobFile
from fardo.files.kind import KindFile, shipped_kinds
from fardo.files.stock import BoxEntry
from fardo.files.tariff import TariffFile, read_tariffs
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from fardo.store.kinds import Kinds
from fardo.store.settings import Settings

BOXES, CARRIERS, SERVICES, TO_CUT, PARTS, STEPS = 200, 27, 70, 20, 40, 40
ROWS, ZONES = 150, 9
LONG = "distaff arm with its ratchet, spring and the long brass screw"  # 61 characters
SCRIPTS = ("ذراع النول", "織機の部品", "Ἀριάδνης ἱστός", "прядильная головка", "çark kolu")
MANY_PARTS = "Forty parts of the old floor loom from the chapel at Ostwick, with every reed, heddle and treadle it had"
WRONG = "Thirteen measures that cannot be read"
_BEGINS = ("Brack", "Dun", "Esk", "Fell", "Garth", "Holm", "Ing", "Kirk", "Lang", "Marl", "Nether", "Over", "Pike")
_ENDS = ("ford Parcels", "mere Carriage and Forwarding", "gate Express")


def fill(path: Path, today: date) -> dict[str, str]:
    """Makes it.

    Args:
        path: a database that is not there yet.
        today: the days of the jobs are counted from it.

    Returns:
        The jobs' ids by their titles.
    """
    open_demo(path, today)
    database = Database(path)
    settings, jobs, kinds = Settings(database), Jobs(database), Kinds(database)
    _more_carriers(settings)
    revision, shop = settings.shop()
    settings.change_shop(revision, shop.model_copy(update={"boxes": [*shop.boxes, *_boxes(BOXES - len(shop.boxes))]}))
    kinds.keep(_kind(), 0)
    to_cut = [_to_cut(n).model_copy(update={"day": today + timedelta(days=n // 2 - 3)}) for n in range(TO_CUT)]
    found = {job.title: jobs.add(job).id for job in (*to_cut, _many_parts(PARTS), _wrong())}
    database.close()
    return found


def _boxes(count: int) -> list[BoxEntry]:
    random = Random(3)
    boxes = []
    for n in range(count):
        sides = sorted((random.randint(4, 34) for _ in range(3)), reverse=True)
        name = f"{'used ' if n % 3 == 0 else ''}carton {n + 1} of the lot from the chandler's yard"[: 40 + n % 25]
        inside = f"{sides[0]} 1/2 x {sides[1]} 1/4 x {sides[2]} in"
        boxes.append(BoxEntry(name=f"{name} {n}", inside=inside, board="C", count=n % 7, used=n % 3 == 0, price="1.20"))
    return boxes


def _more_carriers(settings: Settings) -> None:
    """One service of the demo's under other names, until there are as many carriers and services as wanted."""
    shipped = read_tariffs(TARIFFS)
    names = [f"{begin}{end}" for end in _ENDS for begin in _BEGINS][: CARRIERS - len(shipped)]
    usual = next(one for one in shipped if one.carrier == "Quillmere Courier").services[0]
    left = SERVICES - sum(len(one.services) for one in shipped)
    for n, name in enumerate(names):
        count = left // len(names) + (n < left % len(names))
        services = [
            usual.model_copy(update={"name": f"{usual.name} {k + 1}, before noon"[: 40 + k]}) for k in range(count)
        ]
        settings.keep_tariff(TariffFile(carrier=name, currency="USD", units="in", services=services))
    settings.keep_tariff(_long_tariff(names[0]))


def _long_tariff(carrier: str) -> TariffFile:
    """Its first service by 150 rows of weight and nine zones."""
    zones = [str(zone) for zone in range(1, ZONES + 1)]
    rows = [[f"{n + 1} lb", *(f"{9 + 0.6 * n + zone:.2f}" for zone in range(ZONES))] for n in range(ROWS)]
    reach = [
        {"from": "", "to": [f"{zone}0-{zone}9"], "zone": str(zone), "days": [1, zone]} for zone in range(1, ZONES + 1)
    ]
    charges = [{"kind": "grid", "zones": zones, "rows": rows}]
    service: dict[str, Any] = {"name": "Nine zones", "zones": reach, "weight_step": "1 lb", "charges": charges}
    return TariffFile.model_validate(
        {"format": "fardo-tariff/1", "carrier": carrier, "currency": "USD", "units": "in", "services": [service]}
    )


def _part(n: int, name: str) -> dict[str, Any]:
    sides = (4 + n % 9, 3 + n % 5, 2 + n % 3)
    shape = {"kind": "box", **dict(zip(("length", "width", "height"), (f"{one} 3/8 in" for one in sides), strict=True))}
    return {"name": name, "weight": f"{1 + n % 3} lb {n % 16} oz", "gap": "1/2 in", "shape": shape}


def _many_parts(count: int) -> JobFile:
    names = [SCRIPTS[n // 8] if n % 8 == 7 else f"{LONG}, {n + 1}" for n in range(count)]
    parts = [_part(n, name) for n, name in enumerate(names)]
    job = {"format": "fardo-job/1", "title": MANY_PARTS, "ship": {"to": "73120", "residential": True}, "parts": parts}
    return JobFile.model_validate(job)


def _wrong() -> JobFile:
    """Thirteen fields that say nothing a tape says."""
    parts = [_part(n, f"part {n + 1}") for n in range(13)]
    for part in parts:
        part["shape"]["length"] = "abt 12"
    return JobFile.model_validate({"format": "fardo-job/1", "title": WRONG, "ship": {"to": "73120"}, "parts": parts})


def _to_cut(n: int) -> JobFile:
    sides = [14 + n % 9, 10 + n % 7, 5 + n % 5]
    chosen = {"way": "slotted", "school": "exact", "board": "C", "inside_mm": [25.4 * (side + 4) for side in sides]}
    shape = {"kind": "box", **dict(zip(("length", "width", "height"), (f"{one} in" for one in sides), strict=True))}
    part = {"name": f"{LONG} {n + 1}", "weight": "5 lb", "gap": "2 in", "shape": shape}
    job = {"format": "fardo-job/1", "title": f"{LONG[:20]} for the fair, {n + 1}", "parts": [part]}
    return JobFile.model_validate({**job, "ship": {"to": "84410"}, "chosen": {"box": chosen}})


def _kind() -> KindFile:
    like = next(kind for kind in shipped_kinds() if kind.steps)
    step = like.steps[0]
    steps = [
        step.model_copy(
            update={"id": f"step-{n}", "do": f"Undo the {LONG} and number it {n + 1}", "frees": [], "of": ""}
        )
        for n in range(STEPS)
    ]
    title = "Floor loom of forty steps, with a title as long as titles are allowed to be here"
    return like.model_copy(update={"code": "forty-steps", "title": title, "steps": steps})


if __name__ == "__main__":
    fill(Path(sys.argv[1]), date.today())
