"""What is too long or too many is refused in a sentence; nothing is left out in silence."""

from __future__ import annotations

import csv
import io

import pytest
from fastapi.testclient import TestClient
from pydantic import ValidationError

from fardo.core.quantity import Length, show_length
from fardo.core.refusal import BadInput
from fardo.files.address import part_address
from fardo.files.job import JobFile
from fardo.files.kind import kind_of_job, shipped_kinds, start_job
from fardo.files.parts_csv import read_parts
from fardo.files.shop import starting_shop
from tests.made_up import job

CHECKS = [f"bobbin {n} is in its rack" for n in range(43)]


def test_checks_beyond_what_a_job_takes_are_refused_and_named(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    refused = client.put(f"/api/jobs/{key}", json={"revision": 1, "job": job(checklist=CHECKS)})
    assert (refused.status_code, "checklist" in refused.json()["field"]) == (422, True)
    assert "43 of them" in refused.json()["detail"]
    assert client.put(f"/api/jobs/{key}", json={"revision": 1, "job": job(checklist=CHECKS[:40])}).status_code == 200


def test_a_kind_keeps_every_check_of_its_job_and_gives_them_back() -> None:
    kind = kind_of_job(JobFile.model_validate(job(checklist=CHECKS[:40])), "bobbins", "Bobbins", None)
    assert kind.checks == CHECKS[:40]
    long = "the reel is tied " * 20
    assert start_job(kind.model_copy(update={"checks": [long]}), "", starting_shop()).checklist == [long]
    for shipped in shipped_kinds():
        assert start_job(shipped, "", starting_shop()).checklist == shipped.checks


def test_a_fifth_line_of_an_address_is_refused_and_a_pasted_one_is_kept(client: TestClient) -> None:
    key = client.post("/api/jobs", json=job()).json()["id"]
    lines = [f"line {n}" for n in range(5)]
    recipient = {"address": {"name": "Isolde Marran", "lines": lines}}
    refused = client.put(f"/api/jobs/{key}/recipient", json={"revision": 0, "recipient": recipient})
    assert (refused.status_code, "lines" in refused.json()["field"]) == (422, True)
    parted = part_address("\n".join(["Isolde Marran", *lines, "73120 Ostwick"]))
    assert ", ".join(parted.lines) == ", ".join(lines)
    with pytest.raises(BadInput, match="too long"):
        part_address("Isolde Marran\n" + "x" * 130 + "\n73120 Ostwick")


def test_a_long_name_in_a_table_of_parts_is_refused() -> None:
    written = io.StringIO()
    csv.writer(written).writerows([["name", "shape", "length", "width", "height"], ["x" * 121, "box", "9", "6", "4"]])
    with pytest.raises(BadInput, match="name: read 'x"):
        read_parts("parts.csv", written.getvalue().encode(), starting_shop().to_core())


def test_less_than_nothing_reads_as_people_write_it() -> None:
    """A wall that presses a sixteenth into the goods read -1 15/16 in."""
    assert show_length(Length.of_inches("-0.0625"), "in", "nearest").text == "-1/16 in"
    assert show_length(Length.of_inches("-1.5"), "in", "nearest").text == "-1 1/2 in"
    assert show_length(Length.of_mm(-15), "cm", "nearest").text == "-1.5 cm"


def test_the_models_refuse_what_the_page_no_longer_cuts() -> None:
    with pytest.raises(ValidationError):
        JobFile.model_validate(job(checklist=CHECKS))
