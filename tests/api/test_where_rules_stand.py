"""Rules of the job stand in the core alone: what is outside neither reckons with quantities nor is called back to."""

from __future__ import annotations

import ast
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from types import FrameType
from typing import Any

import pytest
from fastapi.testclient import TestClient

import fardo
from fardo.api.picture import view_picture
from fardo.core.quantity import Length, Mass, Money
from fardo.files.job import JobFile
from tests.made_up import job

HOUSE = Path(fardo.__file__).parent
# What draws a page or reads a drawing lays strokes out in millimetres; it decides no measure of a box and no price.
OUTSIDE = sorted(path for path in HOUSE.rglob("*.py") if "core" not in path.relative_to(HOUSE).parts)
SUMS = ("__add__", "__sub__", "__mul__", "share", "to_step", "half")


@pytest.mark.parametrize("path", OUTSIDE, ids=lambda path: str(path.relative_to(HOUSE)))
def test_nothing_outside_the_core_takes_a_quantity_apart(path: Path) -> None:
    """Whole nanometres, nanograms and minor units are the core's own."""
    taken = [
        f"line {node.lineno}: .{node.attr}"
        for node in ast.walk(ast.parse(path.read_text("utf-8")))
        if isinstance(node, ast.Attribute) and node.attr in ("nm", "ng", "minor")
    ]
    assert taken == []


@pytest.fixture
def sums_from_outside(monkeypatch: pytest.MonkeyPatch) -> Iterator[set[str]]:
    """The modules outside the core that added, took off or multiplied a quantity."""
    found: set[str] = set()

    def watched(of: type, name: str, does: Callable[..., Any]) -> Callable[..., Any]:
        def sum_of(*given: Any) -> Any:
            caller = sys._getframe(1).f_globals.get("__name__", "")
            if caller.startswith("fardo.") and not caller.startswith("fardo.core."):
                found.add(f"{caller}: {of.__name__}.{name}")
            return does(*given)

        return sum_of

    for of in (Length, Mass, Money):
        for name in SUMS:
            if (does := getattr(of, name, None)) is not None:
                monkeypatch.setattr(of, name, watched(of, name, does))
    return found


def test_working_out_adds_nothing_up_outside_the_core(client: TestClient, sums_from_outside: set[str]) -> None:
    rows = client.get("/api/jobs").json()["jobs"]
    jobs = [client.get(f"/api/jobs/{row['id']}").json()["job"] for row in rows]
    asked = {"carrier": "Oddbarrow", "service": "Ground", "programme": "account"}
    for one in jobs:
        assert client.post("/api/work-out", json={"job": one, "in_hand": "tray"}).status_code == 200
        client.post("/api/steps", json={"job": one, "way": "tray", **asked})
        client.post("/api/fold", json={"job": one, "way": "tray"})
    assert sums_from_outside == set()


def test_a_keystroke_goes_down_and_never_back_up(client: TestClient) -> None:
    """Read, worked out, put into words: the core calls nothing outside it; once there are words no rule is asked."""
    climbs: set[str] = set()
    late: set[str] = set()
    worded = False

    def watch(frame: FrameType, event: str, _: object) -> None:
        nonlocal worded
        if event != "call" or frame.f_back is None:
            return
        here, caller = (one.f_globals.get("__name__", "") for one in (frame, frame.f_back))
        worded = worded or frame.f_code.co_name == "view_picture"
        if caller.startswith("fardo.core.") and here.startswith("fardo.") and not here.startswith("fardo.core."):
            climbs.add(f"{caller} -> {here}")
        ruled = here.startswith(("fardo.core.plan.price", "fardo.core.make.", "fardo.core.tariff.charges"))
        if worded and ruled and frame.f_code.co_name in ("make", "take", "price", "charge", "make_box", "compare"):
            late.add(f"{here}.{frame.f_code.co_name}")

    said = job()
    client.post("/api/work-out", json={"job": said})  # whatever is loaded once is loaded
    today, read = client.app.state.context.today, JobFile.model_validate(said)  # type: ignore[attr-defined]
    sys.setprofile(watch)
    try:
        view_picture(today.draw_up(read, "tray"), read.answers)
    finally:
        sys.setprofile(None)
    assert climbs == set()
    assert late == set()
