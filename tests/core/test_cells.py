"""Cells that spreadsheets would take for formulas are written so that they do not, and are read back as they were."""

from __future__ import annotations

import csv
import io

import pytest

from fardo.files.job import JobFile
from fardo.files.parts_csv import read_parts, safe_cell, write_parts
from tests.made_up import job, part, shop


@pytest.mark.parametrize("sign", ["=", "+", "-", "@", "\t", "\r", "\n"])
def test_a_cell_that_begins_like_a_formula_is_quoted_and_comes_back(sign: str) -> None:
    assert safe_cell(f"{sign}1+1") == f"'{sign}1+1"
    written = write_parts(JobFile.model_validate(job(parts=[part(name=f"{sign}cmd|x")])))
    ((name, *_),) = list(csv.reader(io.StringIO(written, newline="")))[1:]
    assert name.startswith("'")
    (back,) = read_parts("parts.csv", written.encode(), shop())
    assert back.name.strip() == f"{sign}cmd|x".strip()


def test_any_other_cell_is_as_it_was() -> None:
    assert [safe_cell(cell) for cell in ("reed", "10 1/2 in", 7, None, "'quoted")] == [
        "reed",
        "10 1/2 in",
        "7",
        "",
        "'quoted",
    ]


@pytest.mark.parametrize("cell", ["reed; =1+1", 'reed;"=1+1"', "reed\t@x", "＝1+1", "＋1", "＠x", "reed\n-1"])
def test_a_cell_that_another_spreadsheet_parts_into_a_formula_is_quoted(cell: str) -> None:
    """Some part cells at semicolons; some take signs of full width for the plain ones."""
    assert safe_cell(cell) == f"'{cell}"


def test_a_quoted_name_with_a_semicolon_comes_back() -> None:
    written = write_parts(JobFile.model_validate(job(parts=[part(name="reed; =1+1")])))
    (back,) = read_parts("parts.csv", written.encode(), shop())
    assert back.name == "reed; =1+1"
