"""Job and tariff files against their JSON Schemas, by a general-purpose validator; and the shared example jobs."""

from __future__ import annotations

import json
from datetime import date
from pathlib import Path

import jsonschema
import pytest

from fardo.api.context import AppContext
from fardo.demo import open_demo
from fardo.files.job import read_job, write_job
from fardo.files.understood import understand
from fardo.schemas import documents, text
from tests.made_up import EXAMPLES, job, shop

TREE = Path(__file__).resolve().parents[2]
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
def test_the_shared_examples_are_understood_to_the_last_part(path: Path) -> None:
    job = read_job(path.read_bytes())
    said = understand(job, shop())
    assert (said.missing, said.problems, said.beyond) == ((), (), None)
    assert said.load is not None
    assert len(said.load.units) == sum(part.count for part in job.parts)


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


def test_the_made_up_shop_shows_every_state_of_a_knot_but_loose(tmp_path: Path) -> None:
    """Its chosen boxes and prices are what is worked out today; a change of the starting values must renew them."""
    path = tmp_path / "demo.db"
    open_demo(path, date(2026, 3, 2))
    context = AppContext(path)
    states = {
        line.title: [knot.state for knot in context.today.draw_up(line.read().job).knots]
        for line in context.jobs.page().jobs
    }
    context.database.close()
    assert states["Flyer and three bobbins"] == ["tied"] * 5
    assert states["Table loom, folded"] == ["tied", "tied", "tied", "tied", "open"]
    assert states["Reed hooks and shuttles"] == ["open"] * 5
    assert next(iter(states)) == "Concertina for Ostwick"
