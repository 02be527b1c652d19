"""Tariffs, tables and wire messages as other libraries read them: JSON Schema by jsonschema, CSV by Python's csv."""

from __future__ import annotations

import copy
import csv
import io
import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.refusal import BadInput
from fardo.demo import TARIFFS
from fardo.files.charges import GridEntry, TailEntry
from fardo.files.grid_csv import grid_csv, in_the_table, read_grid
from fardo.files.tariff import TariffFile, read_tariff
from fardo.wire.messages import QuotesAsked, QuotesSaid

SCHEMA = json.loads((Path(__file__).parents[2] / "docs/formats/fardo-tariff-1.schema.json").read_text())
FILES = sorted(TARIFFS.glob("*.tariff.json"))


@pytest.mark.parametrize("path", FILES, ids=lambda path: path.name.partition(".")[0])
def test_every_tariff_that_ships_is_what_its_schema_says_also_written_out_again(path: Path) -> None:
    content = json.loads(path.read_text())
    jsonschema.validate(content, SCHEMA)
    again = read_tariff(path.read_bytes()).model_dump(mode="json", by_alias=True, exclude_none=True)
    jsonschema.validate(again, SCHEMA)
    assert read_tariff(json.dumps(again)) == read_tariff(path.read_bytes())


@pytest.mark.parametrize(
    "spoil",
    [
        lambda t: t["services"][0].pop("zones"),
        lambda t: t["services"][0].update(charges=[]),
        lambda t: t["services"][0]["charges"][0].update(kind="toll"),
        lambda t: t["services"][0].update(toll=1),
        lambda t: t.update(services=[]),
        lambda t: t.update(format="fardo-tariff/2"),
    ],
)
def test_what_the_schema_refuses_is_refused_here_too(spoil: Any) -> None:
    content = json.loads(FILES[0].read_text())
    spoil(content)
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(content, SCHEMA)
    with pytest.raises(BadInput):
        read_tariff(json.dumps(content))


names = st.text(st.characters(codec="utf-8", exclude_characters="\x00\r\n"), min_size=1, max_size=8).map(str.strip)
zones = st.lists(names.filter(lambda name: name and name[0] not in "=+-@\t'" and name != "all zones"),
                 min_size=1, max_size=6, unique=True)  # fmt: skip
price = st.integers(0, 99_999).map(lambda minor: f"{minor // 100}.{minor % 100:02d}")


@given(zones, st.integers(1, 40), st.booleans(), st.data())
def test_a_table_written_as_csv_is_that_table_to_any_reader_and_reads_back(zones, rows, tailed, data) -> None:
    def prices() -> list[str]:
        return data.draw(st.lists(price, min_size=len(zones), max_size=len(zones)))

    tail = TailEntry(step="1 lb", prices=prices()) if tailed else None
    table = GridEntry(kind="grid", zones=zones, rows=[[f"{n + 1} lb", *prices()] for n in range(rows)], tail=tail)
    text = grid_csv(table)
    read = list(csv.reader(io.StringIO(text)))
    assert read[0] == ["up to", *zones]
    assert read[1 : rows + 1] == table.rows
    assert (len(read) == rows + 2) == tailed
    delimiters = {delimiter for delimiter in ";\t" if text.splitlines()[0].count(delimiter) > len(zones)}
    if not delimiters:  # a zone full of semicolons reads as another kind of table: nobody names one so
        assert read_grid(text.encode(), table) == table


@given(st.integers(0, 30), st.integers(0, 4))
def test_the_cell_that_is_wrong_is_the_cell_that_is_named(row: int, column: int) -> None:
    """Row and column as any spreadsheet counts them, the line of zones being row 1."""
    rows = [["up to", "2", "3", "4", "5"], *([f"{n + 1} lb", "1.00", "2.00", "3.00", "4.00"] for n in range(31))]
    rows[row + 1][column] = "?"
    out = io.StringIO()
    csv.writer(out).writerows(rows)
    content = copy.deepcopy(json.loads(FILES[0].read_text()))
    content["services"][0]["charges"][0] = {"kind": "grid", "zones": ["2", "3", "4", "5"], "rows": [["1 lb"]]}
    tariff = TariffFile.model_validate(content)
    entry = tariff.services[0].charges[0]
    assert isinstance(entry, GridEntry)
    tariff.services[0].charges[0] = read_grid(out.getvalue().encode(), entry)  # type: ignore[call-overload]
    with pytest.raises(BadInput) as refused:
        tariff.to_core()
    assert in_the_table(refused.value).field == f"row {row + 2}, column {column + 1}"


def test_messages_over_the_wire_are_what_their_schemas_say() -> None:
    asked = QuotesAsked.model_validate(
        {"from": "10440", "to": "73120", "currency": "USD", "parcels": [{"sides_mm": [300, 200, 100], "weight_g": 900}]}
    )
    jsonschema.validate(json.loads(asked.model_dump_json(by_alias=True)), QuotesAsked.model_json_schema(by_alias=True))
    said = {"quotes": [{"id": "a", "service": "Ground", "amount": "9.10", "currency": "USD", "days": [1, 2]}]}
    jsonschema.validate(said, QuotesSaid.model_json_schema())
    assert QuotesSaid.model_validate(said).quotes[0].charges == []
    for broken in ({"amount": "9,10"}, {"currency": "dollars"}, {"days": [1]}, {"amount": 9.1}, {"id": ""}):
        wrong = {"quotes": [{**said["quotes"][0], **broken}]}
        with pytest.raises(jsonschema.ValidationError):
            jsonschema.validate(wrong, QuotesSaid.model_json_schema())
        with pytest.raises(ValueError, match="quotes"):
            QuotesSaid.model_validate(wrong)


@pytest.mark.parametrize("head", ["up to,2,,4", "up to,2,2,4", "up to"])
def test_a_line_of_zones_names_each_once(head: str) -> None:
    table = GridEntry(kind="grid", zones=["2", "3", "4"], rows=[["1 lb", "1.00", "2.00", "3.00"]])
    with pytest.raises(BadInput, match="not a line of zones"):
        read_grid(f"{head}\n1 lb,1.00,2.00,3.00\n".encode(), table)
