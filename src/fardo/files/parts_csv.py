"""Parts as a table: CSV in, from whatever a spreadsheet writes, and CSV out.

Columns are found by their names in any order: name, count, shape, weight, fragility, gap, wrap, and one for each
measure of a shape. A cell is read as a field on screen is, so that inch signs and centimetres are both taken; a unit in
a column's name stands for cells without one.
"""

from __future__ import annotations

import csv
import io
import re
import unicodedata
from collections.abc import Iterator

from fardo.core.goods.shape import MEASURED
from fardo.core.plan.shop import Shop
from fardo.core.protect.cushion import read_fragility
from fardo.core.quantity import Units
from fardo.core.refusal import BadInput
from fardo.files.gap import GapEntry, gap_of_text, text_of_gap
from fardo.files.job import JobFile, LayerEntry, PartEntry
from fardo.files.pasted import pasted_rows
from fardo.files.shapes import MODELS, MeasuredShape
from fardo.files.typed import BARE_MASS, Measure, to_length, to_mass

ENDINGS = (".csv", ".tsv", ".txt")
MOST_ROWS = 200
_LONGEST_NAME = 120
_MOST_LINES = MOST_ROWS * 20  # what a spreadsheet leaves empty below the last row with them
_MEASURES = tuple(dict.fromkeys(asked.name for shape in MEASURED.values() for asked in shape.ASKED))
COLUMNS = ("name", "count", "shape", *_MEASURES, "weight", "fragility", "gap", "wrap")
_UNIT_OF_COLUMN = re.compile(r"[\s,(\[]+(in|inch|inches|cm|mm|lb|lbs|kg|g|oz)[)\]]?$")
_SPELLED = {"inch": "in", "inches": "in", "lbs": "lb"}
_FORMULA = re.compile(r"(?:^|[;\t\r\n])\s*\"?[=+@-]|^[\t\r\n]")
_WRAP = re.compile(r"([a-z0-9-]+)(?:\s*[x×*]\s*(\d{1,2}))?")


def read_parts(name: str, content: bytes, shop: Shop) -> list[PartEntry]:
    """The parts of a table. Raises BadInput naming row and column of the first cell that cannot be used."""
    if content.count(b"\n") + content.count(b"\r") > _MOST_LINES:
        raise BadInput(
            "too many rows", read=f"more than {_MOST_LINES} lines", allowed=f"at most {MOST_ROWS}", field=name
        )
    text = _decoded(name, content)
    rows = pasted_rows(text, _MOST_LINES, name, "row 1")
    if not rows:
        raise BadInput("nothing in it", read=name, allowed="a row of column names, then a row a part", field="row 1")
    (_, heads), *body = rows
    columns = [_column(head) for head in heads]
    if not any(column and column[0] in _MEASURES for column in columns):
        raise BadInput(
            "no column of measures", read=", ".join(heads), field="row 1",
            allowed="columns named " + ", ".join(COLUMNS),
        )  # fmt: skip
    if len(body) > MOST_ROWS:
        raise BadInput("too many rows", read=f"{len(body)} of them", allowed=f"at most {MOST_ROWS}", field=name)
    return [_part(n, dict(_cells(columns, row)), shop) for n, row in body]


def write_parts(job: JobFile) -> str:
    """The parts of a job as a table, measures as they were typed. Shapes known by points have no measures here."""
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(COLUMNS)
    for part in job.parts:
        measures = part.shape.measures() if isinstance(part.shape, MeasuredShape) else {}
        wrap = " + ".join(f"{layer.material} x {layer.layers}" for layer in part.protect)
        cells: dict[str, object] = {
            "name": part.name, "count": part.count, "shape": part.shape.kind, "fragility": part.fragility, "wrap": wrap,
            "weight": _typed(part.weight, "g"), "gap": _typed_gap(part.gap),
            **{name: _typed(value, "mm") for name, value in measures.items()},
        }  # fmt: skip
        table.writerow([safe_cell(cells.get(column)) for column in COLUMNS])
    return out.getvalue()


def _decoded(name: str, content: bytes) -> str:
    marked = content.startswith((b"\xff\xfe", b"\xfe\xff"))
    # What is no UTF-8 comes from a spreadsheet on Windows, in its Western code page.
    for encoding in ("utf-16",) if marked else ("utf-8-sig", "cp1252"):
        try:
            text = content.decode(encoding)
        except UnicodeDecodeError:
            continue
        if "\x00" not in text:
            return text
    raise BadInput(
        "not text", read=name, allowed="a table saved as CSV, in UTF-8, UTF-16 or Windows' own", field="row 1"
    )


def _column(head: str) -> tuple[str, str] | None:
    """What a column holds, and the unit its name gives; None for a column that is not known, which is left out."""
    words = " ".join(head.strip().lower().replace("_", " ").split())
    unit = ""
    if found := _UNIT_OF_COLUMN.search(words):
        unit = _SPELLED.get(found[1], found[1])
        words = words[: found.start()].strip()
    name = words.replace(" ", "_")
    known = {"part": "name", "qty": "count", "quantity": "count", "number": "count", "kind": "shape"}
    name = known.get(name, name)
    return (name, unit) if name in COLUMNS else None


def _cells(columns: list[tuple[str, str] | None], row: list[str]) -> Iterator[tuple[str, tuple[str, str]]]:
    for column, cell in zip(columns, row, strict=False):
        if column and cell.strip():
            yield column[0], (_unquoted(cell.strip()), column[1])


def _part(n: int, cells: dict[str, tuple[str, str]], shop: Shop) -> PartEntry:
    def fault(column: str, why: str, allowed: str) -> BadInput:
        return BadInput(why, read=cells[column][0], allowed=allowed, field=f"row {n}, {column}")

    kind = cells.get("shape", ("box", ""))[0].lower()
    if kind not in MODELS:
        raise fault("shape", "not a shape that is known by its measures", ", ".join(MODELS))
    asked = [a.name for a in MEASURED[kind].ASKED]
    for column in cells:
        if column in _MEASURES and column not in asked:
            raise fault(column, f"a {kind} has no such measure", ", ".join(asked))
    count = cells.get("count", ("1", ""))[0]
    if not re.fullmatch(r"0*[1-9][0-9]{0,2}", count[:40]):
        raise fault("count", "not a count", "1 to 999")
    if "fragility" in cells:
        read_fragility(cells["fragility"][0], f"row {n}, fragility")
    name = cells.get("name", ("", ""))[0]
    if len(name) > _LONGEST_NAME:
        raise fault("name", "too long", f"at most {_LONGEST_NAME} signs")
    measures = {one: _measure(cells, one, n, shop.units) for one in asked}
    return PartEntry(
        name=name,
        count=int(count),
        weight=_measure(cells, "weight", n, shop.units),
        fragility=cells.get("fragility", (None, ""))[0],
        shape=MODELS[kind](kind=kind, **measures),
        gap=_gap(cells, n, shop.units),
        protect=_wraps(cells, n, shop),
    )


def _measure(cells: dict[str, tuple[str, str]], column: str, n: int, units: Units) -> str | None:
    """A cell as it is kept: as it was typed, with the column's unit behind it where it names none of its own."""
    if column not in cells:
        return None
    text, unit = cells[column]
    field = f"row {n}, {column}"
    if re.fullmatch(r"[\d\s./,½¼¾⅛⅜⅝⅞-]+", text):
        text = f"{text} {unit or (BARE_MASS[units] if column == 'weight' else units)}"
    if column == "weight":
        to_mass(text, units, field)
    else:
        to_length(text, units, field, zero=column == "gap")
    return text


def _typed_gap(gap: Measure | GapEntry | None) -> str | None:
    return text_of_gap(gap) if isinstance(gap, GapEntry) else _typed(gap, "mm")


def _gap(cells: dict[str, tuple[str, str]], n: int, units: Units) -> str | GapEntry | None:
    text, _ = cells.get("gap", ("", ""))
    if text[:1].isalpha():
        return gap_of_text(text, units, f"row {n}, gap")
    return _measure(cells, "gap", n, units)


def _wraps(cells: dict[str, tuple[str, str]], n: int, shop: Shop) -> list[LayerEntry]:
    layers = []
    for said in re.split(r"[;+]", cells["wrap"][0]) if "wrap" in cells else []:
        found = _WRAP.fullmatch(said.strip().lower())
        if not found or found[1] not in shop.materials or int(found[2] or 1) < 1:
            raise BadInput(
                "not a wrap", read=said.strip(), field=f"row {n}, wrap",
                allowed="materials such as 'tissue + bubble-small x 2', of " + ", ".join(shop.materials),
            )  # fmt: skip
        layers.append(LayerEntry(material=found[1], layers=int(found[2] or 1)))
    return layers


def _typed(value: Measure | None, unit: str) -> str:
    if value is None:
        return ""
    return f"{value:g} {unit}" if not isinstance(value, str) else value


def safe_cell(cell: object) -> str:
    """A cell that no spreadsheet takes for a formula: with such a sign first, or with what spreadsheets pass over.

    A spreadsheet that parts cells at semicolons or tabs makes cells of what stands behind one; signs of full width
    count as the plain ones.
    """
    text = "" if cell is None else str(cell)
    return f"'{text}" if _looks_like_formula(text) else text


def _unquoted(cell: str) -> str:
    """A cell without the sign that keeps it from being a formula."""
    return cell[1:] if cell.startswith("'") and _looks_like_formula(cell[1:]) else cell


def _looks_like_formula(text: str) -> bool:
    return _FORMULA.search(unicodedata.normalize("NFKC", text)) is not None
