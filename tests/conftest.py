"""The made-up shop, made once; tests copy it."""

from __future__ import annotations

import os
from datetime import date
from pathlib import Path

import pytest
from hypothesis import settings

from fardo.api.bench import entry_of_text
from fardo.api.context import AppContext, Crews
from fardo.demo import open_demo

# Where a change is judged, the same change gives the same verdict; at the bench new cases are tried every time. How
# many cases a property is tried on is said here alone: HYPOTHESIS_PROFILE=thorough before something is called done.
settings.register_profile("judged", derandomize=True, deadline=None, max_examples=25)
settings.register_profile("bench", deadline=None, max_examples=25)
settings.register_profile("thorough", deadline=None, max_examples=400)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE") or ("judged" if os.environ.get("CI") else "bench"))

LONG = [one for one in (Path(__file__).parent / "long.txt").read_text("utf-8").splitlines() if one[:1] != "#"]


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Marks the tests that take longest."""
    for item in items:
        if item.nodeid in LONG or item.nodeid.split("[")[0] in LONG:
            item.add_marker(pytest.mark.long)


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("demo") / "demo.db"
    open_demo(path, date(2026, 3, 2))
    # What its bench shows is kept with it, so that no test has it worked out again.
    context = AppContext(path, Crews())
    entries = [
        (line, entry_of_text(line.content, context.today).model_dump_json()) for line in context.jobs.page().jobs
    ]
    context.jobs.keep_bench(entries, context.today.mark)
    context.database.close()
    return path
