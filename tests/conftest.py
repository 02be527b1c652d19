"""The made-up shop, made once; tests copy it."""

from __future__ import annotations

from datetime import date
from pathlib import Path

import pytest

from fardo.demo import open_demo


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("demo") / "demo.db"
    open_demo(path, date(2026, 3, 2))
    return path
