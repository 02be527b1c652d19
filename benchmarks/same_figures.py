"""The figures of many jobs, written to a file, and against an earlier file: whether a change of the code changed any.

python -m benchmarks.same_figures BEFORE.json              writes them
python -m benchmarks.same_figures AFTER.json BEFORE.json   writes them and tells what differs
"""

from __future__ import annotations

import contextlib
import io
import json
import sys
import tempfile
from collections import Counter
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from random import Random
from typing import Any

from fastapi.testclient import TestClient

from benchmarks.table import show
from fardo.api.app import create_app
from fardo.cli import main as fardo
from fardo.core.make import WAYS
from fardo.demo import open_demo
from fardo.files.kind import shipped_kinds

_RANDOM_JOBS = 200
_TOLD = 30

Figures = dict[str, Any]


def main() -> None:
    target, *earlier = (Path(name) for name in sys.argv[1:])
    with tempfile.TemporaryDirectory() as folder:
        found = dict(_all(Path(folder)))
    target.write_text(json.dumps(found, indent=0, sort_keys=True), "utf-8")
    print(f"{len(found)} answers in {target}")
    for one in earlier:
        _compare(json.loads(one.read_text("utf-8")), json.loads(target.read_text("utf-8")))


def _all(folder: Path) -> Iterator[tuple[str, Any]]:
    shop = folder / "shop.db"
    open_demo(shop, date(2026, 3, 2))
    draw = Random(15)
    with TestClient(create_app(shop), base_url="http://127.0.0.1:8740", raise_server_exceptions=False) as client:
        rows = client.get("/api/jobs", params={"size": 200}).json()["jobs"]
        jobs = {f"demo {row['title']}": client.get(f"/api/jobs/{row['id']}").json()["job"] for row in rows}
        for kind in shipped_kinds():
            begun = client.post("/api/jobs/begin", json={"kind": kind.code, "title": kind.title}).json()["job"]
            begun["ship"]["to"] = "73120"
            jobs[f"kind {kind.code}"] = begun
        for n in range(_RANDOM_JOBS):
            jobs[f"random {n}"] = _random_job(draw, client.get("/api/shop").json()["shop"])
        for name, job in jobs.items():
            yield from _of_job(client, name, job, draw)
        for tool in ("saw", "knife"):
            yield f"cutting by {tool}", client.get("/api/cutting", params={"tool": tool}).json()
    for name, job in jobs.items():
        yield f"{name}, plan", _planned(folder, shop, job)


def _of_job(client: TestClient, name: str, job: Figures, draw: Random) -> Iterator[tuple[str, Any]]:
    """As it is looked at, each way drawn once, then with a box and a service chosen and something changed after."""
    first = client.post("/api/work-out", json={"job": job}).json()
    yield name, first
    ways = [way["way"] for way in first.get("ways", ())]
    for way in ways if not name.startswith("random") else draw.sample(ways, min(2, len(ways))):
        yield f"{name}, {way}", client.post("/api/work-out", json={"job": job, "in_hand": way}).json()
        yield f"{name}, {way} folded", client.post("/api/fold", json={"job": job, "way": way}).json()
    priced = [(way, quote) for way in first.get("ways", ()) for quote in (*way["quotes"], *way["others"])]
    if not priced:
        return
    way, quote = draw.choice(priced)
    asked = {"way": way["way"], **{key: quote[key] for key in ("carrier", "service", "programme")}}
    yield f"{name}, steps", client.post("/api/steps", json={"job": job, **asked}).json()
    chosen = {
        "box": {
            "way": way["way"], "school": way["school"], "board": way["board"], "inside_mm": way["needed_mm"],
            "cut_by": way["cut_by"],
        },
        "price": {
            **{key: quote[key] for key in ("carrier", "service", "programme", "amount", "currency")},
            "billed_weight_g": quote["billed_weight_g"], "tariff": quote["tariff"],
        },
    }  # fmt: skip
    yield f"{name}, chosen", client.post("/api/work-out", json={"job": {**job, "chosen": chosen}}).json()
    changed = json.loads(json.dumps({**job, "chosen": chosen}))
    changed["value"] = "900.00"
    changed["extras"] = [*changed.get("extras", ()), {"name": "spare", "size": "5 x 4 x 1 in", "weight": "9 oz"}]
    if (cut_by := chosen["box"]["cut_by"]) is not None:
        changed["chosen"]["box"]["cut_by"] = {
            **cut_by,
            "allowances_mm": {**cut_by["allowances_mm"], "slip": 3.0, "thumb": 9.0},
            "caliper_mm": 4.5,
        }
    yield f"{name}, changed since", client.post("/api/work-out", json={"job": changed}).json()


def _planned(folder: Path, shop: Path, job: Figures) -> Any:
    file = folder / "job.json"
    file.write_text(json.dumps(job), "utf-8")
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err), contextlib.suppress(SystemExit):
        fardo(["plan", str(file), "--json", "--effort", "quick", "--db", str(shop)])
    try:
        answer = json.loads(out.getvalue())
    except ValueError:
        return err.getvalue()
    answer.pop("elapsed_s")
    return answer


def _random_job(draw: Random, shop: Figures) -> Figures:
    parts = [_random_part(draw, shop, n) for n in range(draw.choice((1, 1, 1, 2, 3, 4)))]
    job: Figures = {
        "format": "fardo-job/1", "title": "made up", "ship": {"to": draw.choice(("73120", "10440", "88001"))},
        "parts": parts, "ways": draw.sample(sorted(WAYS), draw.choice((3, 6, len(WAYS)))),
    }  # fmt: skip
    job["ship"]["residential"] = draw.random() < 0.5
    if draw.random() < 0.5:
        job["value"] = f"{draw.randint(0, 4000)}.{draw.randint(0, 99):02d}"
    if draw.random() < 0.4:
        job["board"] = draw.choice([board["code"] for board in shop["boards"]])
    if draw.random() < 0.3:
        job["school"] = "thumb"
    if draw.random() < 0.4:
        job["extras"] = [{"name": "card", "size": _sizes(draw, 7), "weight": "2 oz"}]
    if draw.random() < 0.2:
        job["liner"] = {"material": next((m["code"] for m in shop["materials"] if m["form"] == "liner"), "")}
    if draw.random() < 0.2:
        job["inserts"] = [{"kind": draw.choice(("pad", "liner", "divider"))}]
    if draw.random() < 0.15:
        job["beside"] = [{"name": "second", "size": _sizes(draw, 14), "weight": f"{draw.randint(1, 30)} lb"}]
    job["hand_holes"] = draw.random() < 0.1
    return job


def _random_part(draw: Random, shop: Figures, n: int) -> Figures:
    length, width, height = (draw.randint(16, 16 * draw.choice((6, 12, 12, 18, 30))) for _ in range(3))
    shape = draw.choice((
        {"kind": "box", "length": _inches(length), "width": _inches(width), "height": _inches(height)},
        {"kind": "cylinder", "diameter": _inches(min(length, width)), "length": _inches(height)},
        {"kind": "disc", "diameter": f"{length / 10:.1f} cm", "thickness": _inches(min(height, 60))},
        {"kind": "ellipsoid", "length": _inches(length), "width": _inches(width), "height": _inches(height)},
    ))  # fmt: skip
    part: Figures = {"name": f"thing {n + 1}", "weight": f"{draw.randint(4, 400)} oz", "shape": shape}
    if draw.random() < 0.3:
        part["count"] = draw.randint(1, 4)
    if draw.random() < 0.5:
        part["fragility"] = draw.choice(("delicate", "60 G", "rugged", "20 G"))
    if draw.random() < 0.5:
        part["gap"] = draw.choice(("2 in", "1 1/2 in", "0", "3 cm"))
    part["rules"] = {name: draw.random() < 0.15 for name in ("this_side_up", "keep_flat", "no_load_on_top")}
    wraps = [one["code"] for one in shop["materials"] if one["form"] in ("wrap", "boxed")]
    if wraps and draw.random() < 0.5:
        part["protect"] = [{"material": draw.choice(wraps), "layers": draw.randint(1, 3)}]
    return part


def _sizes(draw: Random, most: int) -> str:
    return " x ".join(str(draw.randint(1, most)) for _ in range(3)) + " in"


def _inches(sixteenths: int) -> str:
    return f"{sixteenths // 16} {sixteenths % 16}/16 in"


def _plain(value: Any) -> Any:
    """Without the keys that are drawn by lot, lists of ways by their names, so that their order tells nothing."""
    if isinstance(value, dict):
        return {key: _plain(one) for key, one in value.items() if key != "id"}
    if isinstance(value, list) and value and all(isinstance(one, dict) and "way" in one for one in value):
        return {one["way"]: _plain(one) for one in value}
    return [_plain(one) for one in value] if isinstance(value, list) else value


def _compare(before: Figures, after: Figures) -> None:
    before, after = _plain(before), _plain(after)
    differ = [(name, *_first(before.get(name), after.get(name), "")) for name in sorted({*before, *after})
              if before.get(name) != after.get(name)]  # fmt: skip
    where: Counter[str] = Counter()
    for name in sorted({*before, *after}):
        where.update(set(_all_differing(before.get(name), after.get(name), "")))
    show("What differs first", ("answer", "at", "before", "after"), differ[:_TOLD])
    show("Where", ("at", "answers"), [(at, str(count)) for at, count in where.most_common(_TOLD)])
    print(f"{len(before)} answers before, {len(after)} after, {len(differ)} differ")


def _first(one: Any, other: Any, path: str) -> tuple[str, str, str]:
    if isinstance(one, dict) and isinstance(other, dict):
        key = next(key for key in [*one, *other] if one.get(key) != other.get(key))
        return _first(one.get(key), other.get(key), f"{path}.{key}")
    if isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        n = next(n for n in range(len(one)) if one[n] != other[n])
        return _first(one[n], other[n], f"{path}[{n}]")
    return path, str(one)[:60], str(other)[:60]


def _all_differing(one: Any, other: Any, path: str) -> Iterator[str]:
    if one == other:
        return
    if isinstance(one, dict) and isinstance(other, dict):
        for key in {*one, *other}:
            yield from _all_differing(one.get(key), other.get(key), f"{path}.{key}")
    elif isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        for a, b in zip(one, other, strict=True):
            yield from _all_differing(a, b, f"{path}[]")
    else:
        yield path


if __name__ == "__main__":
    main()
