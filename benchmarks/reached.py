"""For pytest (``-p benchmarks.reached``): notes which test reaches which line, and how long each takes."""

from __future__ import annotations

import json
import os
import time
from collections import Counter
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from coverage import Coverage  # type: ignore[import-not-found]

seconds: Counter[str] = Counter()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_protocol(item: pytest.Item) -> Iterator[None]:
    name = item.nodeid.split("[")[0]
    Coverage.current().switch_context(name)
    begun = time.perf_counter()
    try:
        return (yield)
    finally:
        seconds[name] += time.perf_counter() - begun
        Coverage.current().switch_context("")


def pytest_sessionfinish() -> None:
    Path(os.environ["FARDO_TEST_TIMES"]).write_text(json.dumps(seconds))


def pytest_configure() -> None:
    """What runs in a process beside the server runs in it here, so that it is seen which test reached it."""
    from fardo.api.context import AppContext

    def here(self: AppContext, function: Callable[..., Any], /, *args: Any, **kwargs: Any) -> Any:
        return function(self, *args, **kwargs)

    AppContext.reckon = AppContext.look_for = here  # type: ignore[method-assign]
