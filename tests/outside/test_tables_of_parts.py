"""Tables of parts against the standard library's own CSV reader, over random parts and random tables."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.goods.shape import MEASURED
from fardo.core.refusal import BadInput
from fardo.files.job import JobFile
from fardo.files.parts_csv import COLUMNS, read_parts, write_parts
from fardo.files.understood import understand
from tests.made_up import job, shop

SHOP = shop()
measure = st.one_of(
    st.integers(1, 640).map(lambda n: f"{n // 16} {n % 16 or 1}/16 in"),
    st.integers(1, 900).map(lambda n: f"{n / 10} cm"),
    st.integers(1, 900).map(float),
)
words = st.text(st.characters(codec="cp1252", exclude_categories=["Cc", "Zl", "Zp"]), max_size=30).map(str.strip)


@st.composite
def parts(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from([kind for kind in MEASURED if kind != "ring"]))
    return {
        "name": draw(words.filter(lambda text: not text.startswith("'"))),
        "count": draw(st.integers(1, 999)),
        "weight": draw(st.one_of(st.none(), st.just("4 lb 6 oz"), st.floats(1, 5000))),
        "fragility": draw(st.sampled_from([None, "delicate", "60 G"])),
        "gap": draw(st.one_of(st.none(), measure)),
        "shape": {"kind": kind, **{asked.name: draw(measure) for asked in MEASURED[kind].ASKED}},
        "protect": [{"material": "bubble-small", "layers": draw(st.integers(1, 9))}] if draw(st.booleans()) else [],
    }


@given(st.lists(parts(), min_size=1, max_size=6), st.sampled_from(["utf-8", "utf-8-sig", "utf-16", "cp1252"]))
def test_what_is_written_is_a_table_and_reads_back_to_the_same_goods(given_parts, encoding: str) -> None:
    before = JobFile.model_validate(job(parts=given_parts))
    text = write_parts(before)
    rows = list(csv.DictReader(io.StringIO(text)))
    assert tuple(rows[0]) == COLUMNS
    assert len(rows) == len(given_parts)
    # No cell is taken for a formula by whoever opens it.
    assert not any(cell[:1] in {"=", "+", "-", "@"} for row in rows for cell in row.values())
    after = before.model_copy(update={"parts": read_parts("parts.csv", text.encode(encoding), SHOP)})
    one, other = ([part.units for part in understand(said, SHOP).parts] for said in (before, after))
    for was, now in zip(before.parts, after.parts, strict=True):
        assert now.name == was.name
        assert now.count == was.count
    for was, now in zip(one, other, strict=True):
        # Grams are written to six figures.
        assert [unit.shape for unit in now] == [unit.shape for unit in was]
        assert [unit.sizes for unit in now] == [unit.sizes for unit in was]
        for a, b in zip(was, now, strict=True):
            assert b.goods_weight.grams == pytest.approx(a.goods_weight.grams, rel=1e-5)


@given(st.binary(max_size=300))
def test_any_bytes_are_a_table_or_refused_with_a_place(content: bytes) -> None:
    field = "parts.csv"
    try:
        read_parts("parts.csv", content, SHOP)
    except BadInput as refusal:
        field = refusal.field
    assert "row" in field or field == "parts.csv"


@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
def test_rows_end_as_they_end_on_any_system(end: str) -> None:
    found = read_parts(
        "parts.csv", end.join(["name,length,width,height", "reed,1,2,3", "beam,4,5,6", ""]).encode(), SHOP
    )
    assert [part.name for part in found] == ["reed", "beam"]


@pytest.mark.parametrize(
    "heads",
    [
        "Name,Length,Width,Height,Weight",
        "PART;LENGTH (IN);WIDTH, IN;Height;weight [oz]",
        "weight\theight\twidth\tlength\tpart",
    ],
)
def test_columns_are_found_by_name_in_any_order_and_manner(heads: str) -> None:
    sign = next(sign for sign in ("\t", ";", ",") if sign in heads)
    values = {"name": "reed", "part": "reed", "length": "24", "width": "4", "height": "1", "weight": "8"}
    cells = [next(value for name, value in values.items() if name in head.lower()) for head in heads.split(sign)]
    (found,) = read_parts("parts.csv", f"{heads}\n{sign.join(cells)}\n".encode(), SHOP)
    assert found.name == "reed"
    assert (found.shape.length, found.shape.width, found.shape.height) == ("24 in", "4 in", "1 in")
    assert found.weight == ("8 oz" if "oz" in heads else "8 lb")


def test_a_column_that_is_not_known_is_passed_over_and_an_empty_row_is_none() -> None:
    found = read_parts("parts.csv", b"colour,length,width,height\nred,1,2,3\n,,,\nblue,4,5,6\n", SHOP)
    assert [part.shape.length for part in found] == ["1 in", "4 in"]
