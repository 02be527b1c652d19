"""What a wheel holds: every file that the package reads while it runs, and nothing without a lower bound."""

from __future__ import annotations

import re
import tomllib
from fnmatch import fnmatch
from pathlib import Path

from fardo import __version__

ROOT = Path(__file__).parents[2]
PROJECT = tomllib.loads((ROOT / "pyproject.toml").read_text("utf-8"))


def test_every_file_of_the_package_is_in_the_wheel() -> None:
    globs = PROJECT["tool"]["setuptools"]["package-data"]["fardo"]
    package = ROOT / "src/fardo"
    files = [
        path.relative_to(package).as_posix() for path in package.rglob("*")
        if path.is_file() and path.suffix not in (".py", ".pyc", ".nbi", ".nbc")
    ]  # fmt: skip
    assert len(files) > 40
    assert [file for file in files if not any(fnmatch(file, one.replace("**", "*")) for one in globs)] == []


def test_every_dependency_has_a_lower_bound_that_the_lock_meets() -> None:
    lock = (ROOT / "requirements.lock").read_text("utf-8")
    for said in PROJECT["project"]["dependencies"]:
        found = re.fullmatch(r"([A-Za-z0-9-]+)>=([\d.]+)", said)
        assert found, said
        locked = re.findall(rf"^{found[1].lower()}==([\d.]+)", lock, re.MULTILINE)
        assert locked, said
        least = tuple(int(one) for one in found[2].split("."))
        assert all(tuple(int(part) for part in one.split(".") if part)[: len(least)] >= least for one in locked), said


def test_the_version_is_said_the_same_everywhere() -> None:
    assert PROJECT["project"].get("version", __version__) == __version__
    assert f'"version": "{__version__}"' in (ROOT / "web/package.json").read_text("utf-8")
