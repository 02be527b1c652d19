"""Job and tariff files against their JSON Schemas, by a general-purpose validator; and the shared example jobs."""

from __future__ import annotations

import json
from pathlib import Path

import jsonschema
import pytest

from fardo.demo import TARIFFS
from fardo.files.job import read_job, understand, write_job
from fardo.files.tariff import read_tariff
from fardo.schemas import documents, text
from tests.made_up import SHARED, job, shop

TREE = Path(__file__).resolve().parents[2]
EXAMPLES = sorted((SHARED / "examples").glob("*.job.json"))
DEMO_JOBS = sorted((TREE / "src/fardo/demo/jobs").glob("*.job.json"))


def schema(name: str) -> dict[str, object]:
    return json.loads((TREE / "docs/formats" / name).read_text("utf-8"))


def test_the_descriptions_in_the_tree_are_current() -> None:
    for name, document in documents().items():
        assert (TREE / name).read_text("utf-8") == text(document), f"{name} is out of date; run make schemas"


@pytest.mark.parametrize("path", [*EXAMPLES, *DEMO_JOBS], ids=lambda path: path.name)
def test_job_files_validate_and_keep_everything_when_written_again(path: Path) -> None:
    content = json.loads(path.read_text("utf-8"))
    jsonschema.Draft202012Validator(schema("fardo-job-1.schema.json")).validate(content)
    written = json.loads(write_job(read_job(path.read_bytes())))
    assert _within(content, written)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name)
def test_what_is_not_worked_out_yet_is_said_and_not_left_out(path: Path) -> None:
    assert "parts" in (understand(read_job(path.read_bytes()), shop()).beyond or "")


@pytest.mark.parametrize("path", sorted(TARIFFS.glob("*.json")), ids=lambda path: path.name)
def test_tariff_files_validate(path: Path) -> None:
    content = json.loads(path.read_text("utf-8"))
    jsonschema.Draft202012Validator(schema("fardo-tariff-1.schema.json")).validate(content)
    assert read_tariff(path.read_bytes()).to_core()


def test_the_validator_and_the_reader_refuse_the_same_slip() -> None:
    slip = job(extras=[{"name": "card", "wieght": "1 oz"}])
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.Draft202012Validator(schema("fardo-job-1.schema.json")).validate(slip)


def _within(part: object, whole: object) -> bool:
    """Whether all that `part` says is in `whole` too."""
    if isinstance(part, dict):
        return isinstance(whole, dict) and all(key in whole and _within(part[key], whole[key]) for key in part)
    if isinstance(part, list):
        return isinstance(whole, list) and len(part) == len(whole) and all(map(_within, part, whole))
    return part == whole
