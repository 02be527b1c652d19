"""Blanks against general-purpose libraries: areas by shapely, DXF read back by ezdxf, PDF by pypdf."""

from __future__ import annotations

import io
import math
import re
import xml.etree.ElementTree as ET
from dataclasses import replace

import ezdxf
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from pypdf.generic import ContentStream
from shapely import Polygon, box, union_all
from shapely.geometry import LineString
from shapely.ops import polygonize

from fardo.core.cut.drawing import Blank
from fardo.core.make import WAYS, Made, make_box
from fardo.core.plan.cautions import CUTTING
from fardo.core.quantity import Length
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import exact_text, in_words, key_of
from fardo.files.dxf import dxf
from fardo.files.full_size import full_size
from fardo.files.page import Heading
from fardo.files.pdf import cut_sheet
from fardo.files.svg import svg
from tests.made_up import allowances, shop, sizes

HEADING = Heading("Table loom, folded", ("C flute",))


def made(way: str, size: str = "18 x 12 x 10", school: str = "exact") -> Made:
    return make_box(way, sizes(size), shop().grade("C"), allowances("1/16"), school)


def panels_of_tray(base: tuple[float, float], wall: float) -> float:
    """A tray from its five panels, put together by shapely."""
    x, y = base
    rectangles = [
        box(wall, wall, wall + x, wall + y), box(0, wall, wall, wall + y), box(wall + x, wall, 2 * wall + x, wall + y),
        box(wall, 0, wall + x, wall), box(wall, wall + y, wall + x, 2 * wall + y),
    ]  # fmt: skip
    return union_all(rectangles).area


CUT = [name for name, way in WAYS.items() if way.NEEDS == "sheet"]
WHATEVER_HIGH = [name for name in CUT if name != "folder"]  # it is for flat things

measure = st.integers(20_000_000, 700_000_000).map(Length)


@given(st.tuples(measure, measure, measure))
def test_areas_of_blanks_agree_with_shapelys(inside: tuple[Length, Length, Length]) -> None:
    for way in WHATEVER_HIGH:
        for blank in make_box(way, inside, shop().grade("C"), allowances()).blanks:
            outline = Polygon([(x.mm, y.mm) for x, y in blank.outline])
            assert outline.is_valid
            assert blank.area_nm2 / 10**12 == pytest.approx(outline.area, rel=1e-9)
            # The cut lines close to the same polygon, and every other line lies inside it.
            cuts = [LineString([(p[0].mm, p[1].mm) for p in (c.start, c.end)]) for c in blank.lines if c.kind == "cut"]
            assert union_all(list(polygonize(cuts))).area == pytest.approx(outline.area, rel=1e-9)
            for line in blank.lines:
                drawn = LineString([(p[0].mm, p[1].mm) for p in (line.start, line.end)])
                assert outline.buffer(1e-6).covers(drawn)


def test_a_tray_is_its_five_panels() -> None:
    """Exact on 1/8 in board, worked by hand: 18 x 12 x 4 has a base of 18 1/8 x 12 1/8 and walls of 4 1/16."""
    tray = make_box("tray", sizes("18 x 12 x 4"), shop().grade("B"), allowances()).blanks[0]
    assert tray.area_nm2 / 10**12 == pytest.approx(
        panels_of_tray((18.125 * 25.4, 12.125 * 25.4), 4.0625 * 25.4), rel=1e-12
    )


@pytest.mark.parametrize(("way", "school"), [*((way, "exact") for way in CUT), ("tray", "thumb")])
def test_dxf_reads_back_line_for_line_at_real_size(way: str, school: str) -> None:
    blanks = made(way, "18 x 12 x 5", school).blanks
    document = ezdxf.read(io.StringIO(dxf(blanks, "in")))
    assert document.units == ezdxf.units.MM
    assert not document.audit().has_errors
    layers = {"cut": "CUT", "score": "SCORE", "second-score": "SECOND_SCORE", "slot": "SLOT"}
    for kind, layer in layers.items():
        found = sorted(
            round((e.dxf.end - e.dxf.start).magnitude, 4)
            for e in document.modelspace().query(f'LINE[layer=="{layer}"]')
        )
        ours = sorted(
            round(math.dist((line.start[0].mm, line.start[1].mm), (line.end[0].mm, line.end[1].mm)), 4)
            for blank in blanks for line in blank.lines if line.kind == kind
        )  # fmt: skip
        assert found == pytest.approx(ours, abs=2e-4)
    told = {words.dxf.layer: set() for words in document.modelspace().query("TEXT")}
    for words in document.modelspace().query("TEXT"):
        told[words.dxf.layer].add(words.dxf.text)
    assert {note.text for blank in blanks for note in blank.notes} == told.get("NOTE", set())
    assert all(any(sign.isdigit() for sign in one) for one in told["DIMENSION"])
    assert {document.layers.get(layer).dxf.color for layer in layers.values()} == {7}
    assert document.layers.get("SCORE").dxf.linetype != document.layers.get("SECOND_SCORE").dxf.linetype


def strokes(page: object, reader: PdfReader) -> list[tuple[float, float, float, float]]:
    """Every straight line of a page, in points."""
    lines, at = [], (0.0, 0.0)
    for operands, operator in ContentStream(page.get_contents(), reader).operations:
        if operator == b"m":
            at = (float(operands[0]), float(operands[1]))
        elif operator == b"l":
            end = (float(operands[0]), float(operands[1]))
            lines.append((*at, *end))
            at = end
    return lines


def test_the_cut_sheet_prints_every_dimension_and_fence_setting() -> None:
    box = made("slotted")
    reader = PdfReader(io.BytesIO(cut_sheet(HEADING, box.blanks, box.fence, CUTTING, "in", "letter")))
    text = " ".join(page.extract_text() for page in reader.pages)
    # 18 + 5/32 goes up to 18 3/16, 12 + 5/32 to 12 3/16; the body is 10 5/16, a flap no more than half, 6 1/16.
    for figure in ("18 3/16", "12 3/16", "10 5/16", "6 1/16", "1 1/2"):
        assert figure in text
    assert "cut away from yourself" in text
    assert "flutes across the blank" in text  # upright in the case
    assert re.search(r"scale 1:\d+", text)


@pytest.mark.parametrize("way", CUT)
def test_the_cut_sheet_of_every_way_prints_its_sizes_every_setting_and_every_step(way: str) -> None:
    box = made(way, "18 x 12 x 5")
    steps = [step.told(in_words("in")) for step in box.steps]
    pages = PdfReader(io.BytesIO(cut_sheet(HEADING, box.blanks, box.fence, CUTTING, "in", "letter", steps))).pages
    text = " ".join(" ".join(page.extract_text() for page in pages).split())
    for blank in box.blanks:
        assert f"{blank.name[0].upper()}{blank.name[1:]}{f' x {blank.count}' if blank.count > 1 else ''}" in text
        assert blank.flutes == "either way" or f"flutes {blank.flutes}" in text
        for side in blank.size:
            assert exact_text(side, "in") in text
    for setting in box.fence:
        assert exact_text(setting.fence, "in") in text
        assert setting.do in text
    for step in steps:
        assert step in text


def test_the_cut_sheet_is_drawn_to_the_scale_it_says() -> None:
    box = made("slotted")
    reader = PdfReader(io.BytesIO(cut_sheet(HEADING, box.blanks, box.fence, (), "in", "a4")))
    page = reader.pages[0]
    scale = float(re.search(r"scale 1:([\d.]+)", page.extract_text())[1])
    width = box.blanks[0].outline[1][0].mm - box.blanks[0].outline[0][0].mm  # the lower cut edge, between its corners
    drawn = [abs(x2 - x1) * 25.4 / 72 * scale for x1, y1, x2, y2 in strokes(page, reader) if y1 == y2]
    assert any(length == pytest.approx(width, abs=0.02 * scale) for length in drawn)


def test_every_line_of_the_legend_is_level_and_within_the_page_however_many_kinds_there_are() -> None:
    box = made("tray", "18 x 12 x 3", "thumb")
    (first, *_) = box.blanks
    kinds = ("cut", "score", "second-score", "slot", "liner-cut", "old-fold", "edge")
    each = tuple(replace(first.lines[0], kind=kind) for kind in kinds)
    blank = replace(first, lines=(*first.lines, *each))
    reader = PdfReader(io.BytesIO(cut_sheet(HEADING, [blank], box.fence, CUTTING, "in", "letter")))
    (page, *_) = reader.pages
    lines = strokes(page, reader)
    assert all(x1 == x2 or y1 == y2 for x1, y1, x2, y2 in lines)
    legend = [one for one in lines if abs(one[2] - one[0]) == pytest.approx(14 * 72 / 25.4, abs=0.01)]
    assert len(legend) == len(key_of(blank)) > 4
    assert max(x for _, _, x, _ in legend) < 612 - 12 * 72 / 25.4
    assert len({y for _, y, _, _ in legend}) > 1  # on more than one row


def test_at_full_size_the_pages_laid_together_are_the_blank() -> None:
    """Every page is clipped to its own window of the blank; what is drawn under it keeps its real length."""
    box = made("tray", "10 1/2 x 8 1/2 x 1 1/2")
    reader = PdfReader(io.BytesIO(full_size(HEADING, box.blanks, "in", "letter")))
    lengths = set()
    for page in reader.pages:
        lengths |= {round(abs(x2 - x1) * 25.4 / 72, 2) for x1, y1, x2, y2 in strokes(page, reader) if y1 == y2}
    for blank in box.blanks:
        base = next(line for line in blank.lines if line.kind == "score")
        assert any(length == pytest.approx(base.end[0].mm - base.start[0].mm, abs=0.02) for length in lengths)
    assert any(length == pytest.approx(101.6, abs=0.02) for length in lengths)  # the ruler of 4 in
    text = reader.pages[0].extract_text()
    assert "row 1 of" in text
    heights: list[float] = []
    for page in reader.pages:
        page.extract_text(
            visitor_text=lambda said, _, at, *__: heights.append(at[5]) if "at full size" in said else None
        )
    # What the page is stands above its window, which ends 12 mm below the top of the paper, and on the paper.
    assert all(792 - 12 * 72 / 25.4 < height < 792 - 12 for height in heights)
    assert len(heights) >= len(reader.pages)
    assert "must measure 4 in" in text
    # A letter page shows 7.555 x 10.055 in, of which 0.394 in is shown again on the next: 13 7/8 x 11 7/8 takes 2 x 2.
    assert sum("tray at full size" in page.extract_text() for page in reader.pages) == 4


def test_neighbouring_pages_carry_the_same_register_marks() -> None:
    """A mark at the right of one page is at the same point of the blank as the mark at the left of the next."""
    box = made("tray", "10 1/2 x 8 1/2 x 1 1/2")
    reader = PdfReader(io.BytesIO(full_size(HEADING, box.blanks[:1], "in", "letter")))
    margin, overlap = 12 * 72 / 25.4, 10 * 72 / 25.4
    step = 612 - 2 * margin - overlap
    arm = 8 * 72 / 25.4

    def marks(page: int) -> list[float]:
        found = {round((x1 + x2) / 2, 1) for x1, y1, x2, y2 in strokes(reader.pages[page], reader)
                 if y1 == y2 and abs(abs(x2 - x1) - arm) < 0.05}  # fmt: skip
        return sorted(found)

    left_page, right_page = marks(0), marks(1)
    assert max(left_page) == pytest.approx(margin + step + overlap / 2, abs=0.2)
    assert min(right_page) == pytest.approx(max(left_page) - step, abs=0.2)


def test_the_marks_of_a_single_row_of_pages_are_all_on_the_paper() -> None:
    strip = made("tray", "40 x 3 x 1").blanks[0]
    reader = PdfReader(io.BytesIO(full_size(HEADING, [strip], "in", "letter")))
    margin, arm = 12 * 72 / 25.4, 8 * 72 / 25.4
    assert len(reader.pages) > 2
    for page in reader.pages:
        marks = [y1 for x1, y1, x2, y2 in strokes(page, reader) if y1 == y2 and abs(abs(x2 - x1) - arm) < 0.05]
        assert len(set(marks)) == 2
        assert all(margin < y < 792 - margin for y in marks)


def test_a_drawing_of_too_many_pages_is_refused() -> None:
    huge = make_box("slotted", sizes("300 x 200 x 100"), shop().grade("C"), allowances())
    with pytest.raises(NoAnswer, match="at most 300"):
        full_size(HEADING, huge.blanks, "in", "letter")


def test_svg_has_real_millimetres_and_tells_lines_apart_by_dash() -> None:
    blank = made("tray", school="thumb").blanks[1]
    root = ET.fromstring(svg(blank, "in"))
    assert root.attrib["width"].endswith("mm")
    _, _, width, _ = (float(n) for n in root.attrib["viewBox"].split())
    assert float(root.attrib["width"].removesuffix("mm")) == pytest.approx(width)
    lines = [e for e in root.iter() if e.tag.endswith("line")]
    dashes = {e.attrib["class"]: e.attrib.get("stroke-dasharray", "") for e in lines}
    assert dashes["cut"] == ""
    assert len({dashes["cut"], dashes["score"], dashes["second-score"]}) == 3
    assert {e.attrib["stroke"] for e in lines} == {"currentColor"}
    bottom = max(
        (e for e in lines if e.attrib["class"] == "cut"),
        key=lambda e: abs(float(e.attrib["x2"]) - float(e.attrib["x1"])),
    )
    base = blank.size[0].mm - 2 * blank.outline[0][0].mm
    assert abs(float(bottom.attrib["x2"]) - float(bottom.attrib["x1"])) == pytest.approx(base, abs=1e-3)


def test_words_in_a_drawing_are_escaped() -> None:
    assert "<script" not in svg(made("tray").blanks[0], "in").lower()


def test_a_blank_that_is_alone_on_its_sheet_is_drawn_larger() -> None:
    tall = make_box("slotted", sizes("6 x 6 x 40"), shop().grade("C"), allowances()).blanks[0]

    def scale(*blanks: Blank) -> int:
        pages = PdfReader(io.BytesIO(cut_sheet(HEADING, blanks, (), (), "in", "letter"))).pages
        found = re.search(r"1\s*:\s*(\d+)", " ".join(page.extract_text() for page in pages))
        assert found is not None
        return int(found[1])

    assert scale(tall) < scale(tall, tall)


@pytest.mark.parametrize("way", CUT)
def test_every_setting_of_a_score_is_where_a_score_is_drawn_and_every_note_on_the_board(way: str) -> None:
    """From the edge that runs along the fence: from one side of a blank or from the other, across it or along it."""
    box = made(way, "18 x 12 x 5")
    drawn = set()
    for blank in box.blanks:
        for line in blank.lines:
            for axis in (0, 1):
                if line.start[axis] == line.end[axis]:
                    drawn |= {line.start[axis], blank.size[axis] - line.start[axis]}
        for note in blank.notes:
            assert all(side.nm * 0 < at.nm < side.nm for at, side in zip(note.at, blank.size, strict=True)), note
    scores = [one for one in box.fence if one.blade.startswith(("score", "second"))]
    assert scores or not box.fence
    assert {one.fence for one in scores} <= drawn


def test_no_step_runs_over_the_foot_of_a_page() -> None:
    box = made("tray")
    step = "Fold it once over and lay it by, as long a sentence as any that is said of a box that is made here. " * 4
    for count in range(9, 14):  # so that the foot comes at another line of a step each time
        pages = PdfReader(
            io.BytesIO(cut_sheet(HEADING, box.blanks, box.fence, CUTTING, "in", "letter", [step] * count))
        )
        heights: list[float] = []

        def seen(said: str, _: object, at: list[float], *__: object, heights: list[float] = heights) -> None:
            if "box" in said or "sentence" in said:
                heights.append(at[5])

        for page in pages.pages:
            page.extract_text(visitor_text=seen)
        assert len(heights) > 2 * count
        assert min(heights) >= 12 * 72 / 25.4 - 0.01
