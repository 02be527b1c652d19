"""What the program answers and prints for jobs of all kinds, kept as a line each, so that no answer changes unnoticed.

A line says the figures that one would look at first, and a digest of everything else: every drawing, step, reason and
position on a page. It says that an answer changed, not that it was right; what is right is checked elsewhere. After a
change that is meant, ``python -m tests.kept_answers`` writes them anew, and the lines that differ are read one by one.
``python -m tests.kept_answers --show JOB CALL`` prints an answer whole, to compare two versions of the program by.
"""

from __future__ import annotations

import argparse
import io
import json
import re
import shutil
import sys
import tempfile
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from datetime import date
from functools import cache
from hashlib import blake2b
from pathlib import Path
from typing import Any
from unittest.mock import patch

from fastapi.testclient import TestClient
from pypdf import PdfReader

from fardo.demo import open_demo
from fardo.files.job import JobFile, read_job
from fardo.files.kind import shipped_kinds, start_job
from fardo.files.shop import starting_shop
from tests.api.test_recipients import ISOLDE
from tests.made_up import job
from tests.served import close_app, open_app

ROOT = Path(__file__).parent
KEPT = ROOT / "kept/answers.txt"
RARE = ROOT / "kept/jobs"  # jobs that ask for what the demo and the kinds seldom do
DAY = date(2026, 3, 2)
_PASSING = frozenset(("id", "saved_at", "revision", "key", "ticks", "seconds", "took_ms"))  # no part of an answer
_MOMENT = re.compile(r"\d{4}-\d\d-\d\dT[\d:.+]+")
_PRINTS = (
    "packing.pdf", "papers.pdf", "put-together.pdf", "bag-labels.pdf", "corner-guards.pdf", "inner-boxes.pdf",
    "label.pdf", "label.pdf?size=half", "papers.pdf?only=exhibit", "parts.csv", "file",
)  # fmt: skip
_SHEETS = ("pdf", "csv")


@cache
def jobs() -> dict[str, JobFile]:
    """The jobs whose answers are kept, by name; the demo's are on its bench."""
    kinds = {f"kind: {kind.code}": start_job(kind, "", starting_shop()) for kind in shipped_kinds()}
    sent = {name: one.model_copy(update={"ship": JobFile.model_validate(job()).ship}) for name, one in kinds.items()}
    rare = {f"rare: {path.name.split('.')[0]}": read_job(path.read_bytes()) for path in sorted(RARE.glob("*.job.json"))}
    return sent | rare


NAMES = (
    "shop",
    "demo: Concertina for Ostwick", "demo: Treadle wheel, taken apart", "demo: Flyer and three bobbins",
    "demo: Table loom, folded", "demo: Stock saddle, stirrups off", "demo: Two long paddles, sleeved",
    "demo: Drive wheel for a treadle", "demo: Reed hooks and shuttles", *jobs(),
)  # fmt: skip


def digest(content: str | bytes) -> str:
    return blake2b(content.encode() if isinstance(content, str) else content, digest_size=6).hexdigest()


def plain(value: Any) -> Any:
    """An answer without what differs from run to run; floats to nine figures, as machines differ beyond."""
    if isinstance(value, Mapping):
        return {name: plain(one) for name, one in value.items() if name not in _PASSING}
    if isinstance(value, list):
        return [plain(one) for one in value]
    if isinstance(value, str) and _MOMENT.fullmatch(value):
        return "then"
    return float(f"{value:.9g}") if isinstance(value, float) else value


def drawn_on(pdf: bytes) -> str:
    """Everything that a PDF's pages are drawn with."""
    return "\n\f\n".join(
        page.get_contents().get_data().decode("latin-1")
        for page in PdfReader(io.BytesIO(pdf)).pages  # type: ignore[union-attr]
    )


Answer = tuple[str, str]  # the figures one looks at first, and the whole


def answers(client: TestClient, name: str) -> Iterator[tuple[str, Callable[[], Answer]]]:
    """Every call about a job, by its name, each asked when it is wanted."""
    if name.startswith("demo: "):
        rows = client.get("/api/jobs").json()["jobs"]
        key = next(row["id"] for row in rows if row["title"] == name.removeprefix("demo: "))
    else:
        file = jobs()[name].model_dump(mode="json", by_alias=True)
        key = client.post("/api/jobs", json=file).raise_for_status().json()["id"]
        client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": ISOLDE}).raise_for_status()
    kept = client.get(f"/api/jobs/{key}").json()["job"]
    picture = client.post("/api/work-out", json={"job": kept}).json()
    ways = [one["way"] for one in picture["ways"] if "why_not" not in one or not one["why_not"]]

    def asked(method: str, path: str, **body: Any) -> Callable[[], Answer]:
        return lambda: _read(client.request(method, path, json=body or None))

    def looked_at(way: str) -> Callable[[], Answer]:
        return lambda: _read_picture(client.post("/api/work-out", json={"job": kept, "in_hand": way}).json())

    yield "work-out", lambda: _read_picture(picture)
    yield "plans", asked("POST", "/api/plans", job=kept)
    yield "packing", asked("GET", f"/api/jobs/{key}/packing")
    yield "sending", asked("GET", f"/api/jobs/{key}/sending")
    if not name.startswith("kind: "):
        yield "parcels", asked("POST", "/api/parcels", job=kept)
    yield "prices.csv", asked("GET", f"/api/jobs/{key}/prices.csv?way={ways[0] if ways else 'slotted'}")
    for path in _PRINTS:
        yield path, asked("GET", f"/api/jobs/{key}/{path}")
    few = ways if not name.startswith("kind: ") else ways[:1]
    if (quote := picture["docket"].get("quote")) and not name.startswith("kind: "):
        which = {"carrier": quote["carrier"], "service": quote["service"], "programme": quote["programme"]}
        yield "steps", asked("POST", "/api/steps", job=kept, way=ways[0], **which)
    for way in few:
        yield way, looked_at(way)
        yield f"{way}, folded", asked("POST", "/api/fold", job=kept, way=way)
        for kind in _SHEETS:
            yield f"{way}.{kind}", asked("GET", f"/api/jobs/{key}/cut-sheet.{kind}?way={way}")


_LINES = (
    "30 x 20 x 8 in 24 lb to 73120 home", "12 x 9 x 4 in 3 lb to 73120", "60 x 8 x 30 in 41 lb to 97201 home",
    "25 x 20 x 1 in 2 lb to 84410", "108 x 4 x 4 in 12 lb to 21877", "wheel",
)  # fmt: skip


def answers_of_shop(client: TestClient) -> Iterator[tuple[str, Callable[[], Answer]]]:
    """Every call about no job in particular, and what is cut of three jobs at once."""

    def asked(path: str) -> Callable[[], Answer]:
        return lambda: _read(client.get(path))

    for path in ("shop", "tariffs", "tariffs/-/form", "kinds"):
        yield path, asked(f"/api/{path}")
    for row in client.get("/api/tariffs").json():
        yield f"tariff {row['carrier']}", asked(f"/api/tariffs/{row['carrier']}")
        yield f"tariff {row['carrier']}, file", asked(f"/api/tariffs/{row['carrier']}/file")
    for kind in shipped_kinds():
        yield f"kind {kind.code}", asked(f"/api/kinds/{kind.code}")
    for line in _LINES:
        yield f"line {line}", lambda line=line: _read(client.post("/api/line", json={"text": line}))  # type: ignore[misc]
    keys = []
    for title in ("Concertina for Ostwick", "Drive wheel for a treadle", "Stock saddle, stirrups off"):
        row = next(row for row in client.get("/api/jobs").json()["jobs"] if row["title"] == title)
        stored = client.get(f"/api/jobs/{row['id']}").json()
        table = client.post("/api/plans", json={"job": {**stored["job"], "ways": ["slotted", "tray"]}}).json()
        plan = {"job": {**stored["job"], "ways": ["slotted", "tray"]}, "plan": table["rows"][0]["key"]}
        chosen = client.post("/api/plans/chosen", json=plan).json()
        change = {"revision": stored["revision"], "job": {**plan["job"], "chosen": chosen}}
        client.put(f"/api/jobs/{row['id']}", json=change).raise_for_status()
        keys.append(row["id"])
    which = "&".join(f"jobs={key}" for key in keys)
    for tool in ("knife", "saw"):
        yield f"cutting by {tool}", asked(f"/api/cutting?{which}&tool={tool}&lay_out=true")
        yield f"cutting by {tool}.pdf", asked(f"/api/cutting.pdf?{which}&tool={tool}")
    packed = {"closed": {"weight": "12 lb", "sides": "20 x 16 x 12 in"}, "number": "OB-4471-20",
              "handed_over": {"on": DAY.isoformat(), "where": "counter in Pellmouth"}}  # fmt: skip
    client.put(f"/api/jobs/{keys[0]}/sending", json={"revision": 0, "sending": packed}).raise_for_status()
    yield "sent", asked(f"/api/jobs/{keys[0]}/sending")
    yield "hand-over.pdf", asked(f"/api/hand-over.pdf?day={DAY.isoformat()}")


def _read(answer: Any) -> Answer:
    media = answer.headers.get("content-type", "")
    if answer.status_code >= 400:
        return f"{answer.status_code}: {answer.json().get('detail', '')[:90]}", answer.text
    if media.startswith("application/pdf"):
        drawn = drawn_on(answer.content)
        return f"{drawn.count(chr(12)) + 1} pages", drawn
    if "json" in media:
        told = plain(answer.json())
        return _first_of(told), json.dumps(told, indent=1, sort_keys=True, ensure_ascii=False)
    return f"{len(answer.text.splitlines())} lines", answer.text


def _first_of(told: Any) -> str:
    """How many there are of what it lists; of plans the total of the first."""
    if not isinstance(told, dict):
        return ""
    listed = ", ".join(f"{len(one)} {name}" for name, one in told.items() if isinstance(one, list))
    rows = told.get("rows")
    return (f"{listed}, first {rows[0].get('total', '')}" if rows else listed)[:90]


def _read_picture(told: dict[str, Any]) -> Answer:
    docket = told["docket"]
    outside = docket["outside"]["figure"]["text"] if docket["outside"] else ""
    first = f"{docket['basis']}, {outside}, {docket['total']}"
    return first, json.dumps(plain(told), indent=1, sort_keys=True, ensure_ascii=False)


def _calls(client: TestClient, name: str) -> Iterator[tuple[str, Callable[[], Answer]]]:
    while client.get("/api/jobs").json()["renewing"]:
        pass
    return answers_of_shop(client) if name == "shop" else answers(client, name)


def lines_of(client: TestClient, name: str) -> list[str]:
    """What is kept of a job."""
    found = []
    for call, ask in _calls(client, name):
        first, whole = ask()
        found.append(f"{name} | {call} | {first} | {digest(whole)}".replace("\n", " "))
    return found


@contextmanager
def that_day() -> Iterator[None]:
    """Prints say the day they are printed; here it is always the same."""

    class ThatDay(date):
        @classmethod
        def today(cls) -> ThatDay:
            return cls(DAY.year, DAY.month, DAY.day)

    with patch("fardo.api.downloads.date", ThatDay):
        yield


def _main() -> None:
    asks = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asks.add_argument("--show", nargs=2, metavar=("JOB", "CALL"), help="prints that answer whole and writes nothing")
    wanted = asks.parse_args().show
    with tempfile.TemporaryDirectory() as folder, that_day():
        made = Path(folder) / "demo.db"
        open_demo(made, DAY)
        if wanted:
            with _shop_of(made) as client:
                sys.stdout.write(dict(_calls(client, wanted[0]))[wanted[1]]()[1])
            return
        kept = []
        for name in NAMES:
            with _shop_of(made) as client:
                kept += lines_of(client, name)
        KEPT.write_text("".join(f"{line}\n" for line in kept), "utf-8")


@contextmanager
def _shop_of(made: Path) -> Iterator[TestClient]:
    """A copy of the demo, as each test has one."""
    path = made.with_name("copy.db")
    shutil.copy(made, path)
    app = open_app(path)
    with TestClient(app, base_url="http://127.0.0.1:8740") as client:
        yield client
    close_app(app)
    for ending in ("", "-wal", "-shm"):
        path.with_name(path.name + ending).unlink(missing_ok=True)


if __name__ == "__main__":
    _main()
