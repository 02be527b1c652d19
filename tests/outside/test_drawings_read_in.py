"""Drawings of a shop's own read in, from our exports, from ezdxf and from XML written by hand; hostile ones refused."""

from __future__ import annotations

import contextlib
import io
import math

import ezdxf
import pytest
from ezdxf.document import Drawing
from hypothesis import given
from hypothesis import strategies as st

from fardo.core.cut.drawing import Blank
from fardo.core.cut.fold import fold_panels, spans
from fardo.core.make import WAYS, make_box
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.files.blank_in import LARGEST, read_blank
from fardo.files.dxf import dxf
from fardo.files.svg import svg
from tests.made_up import allowances, shop

measure = st.integers(60_000_000, 145_000_000).map(Length)
CUT = [name for name, way in WAYS.items() if way.NEEDS == "sheet" and name != "triangle"]


def lengths(blank: Blank) -> dict[str, list[float]]:
    found: dict[str, list[float]] = {}
    for line in blank.lines:
        if line.kind != "second-score":
            length = math.dist([c.mm for c in line.start], [c.mm for c in line.end])
            found.setdefault(line.kind, []).append(round(length, 2))
    return {kind: sorted(of) for kind, of in found.items()}


@given(st.tuples(measure, measure, measure), st.sampled_from(CUT), st.sampled_from(["svg", "dxf"]))
def test_what_was_exported_reads_back_with_the_same_lines_and_folds_to_the_same_box(inside, way, ending) -> None:
    blank = make_box(way, inside, shop().grade("C"), allowances()).blanks[0]
    content = svg(blank, "in") if ending == "svg" else dxf([blank], "in")
    read = read_blank(f"mine.{ending}", content.encode())
    assert [side.mm for side in read.size] == pytest.approx([side.mm for side in blank.size], abs=2e-3)
    was, now = lengths(blank), lengths(read)
    assert set(now) == set(was)
    for kind, of in was.items():
        assert now[kind] == pytest.approx(of, abs=0.02)
    (low, high), (read_low, read_high) = spans(fold_panels(blank)), spans(fold_panels(read))
    assert sorted(read_high - read_low) == pytest.approx(sorted(high - low), abs=0.05)


def drawn_by_ezdxf(unit: int, score: str, size: float = 4.0) -> bytes:
    """A cross of five squares, its folds on a layer of that name."""
    document = Drawing.new("R2010")
    document.header["$INSUNITS"] = unit
    space = document.modelspace()
    a = size
    corners = [(a, 0), (2 * a, 0), (2 * a, a), (3 * a, a), (3 * a, 2 * a), (2 * a, 2 * a), (2 * a, 3 * a), (a, 3 * a),
               (a, 2 * a), (0, 2 * a), (0, a), (a, a)]  # fmt: skip
    space.add_lwpolyline(corners, close=True)
    for start, end in (((a, a), (2 * a, a)), ((2 * a, a), (2 * a, 2 * a)), ((a, 2 * a), (2 * a, 2 * a)),
                       ((a, a), (a, 2 * a))):  # fmt: skip
        space.add_line(start, end, dxfattribs={"layer": score})
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


@pytest.mark.parametrize(("unit", "mm"), [(1, 25.4), (4, 1.0), (5, 10.0)])
@pytest.mark.parametrize("layer", ["SCORE", "fold lines", "Crease"])
def test_a_drawing_of_another_hand_comes_in_at_its_real_size_by_its_layers(unit: int, mm: float, layer: str) -> None:
    blank = read_blank("open box.dxf", drawn_by_ezdxf(unit, layer))
    assert [side.mm for side in blank.size] == pytest.approx([12 * mm, 12 * mm])
    assert [line.kind for line in blank.lines].count("score") == 4
    low, high = spans(fold_panels(blank))
    assert list(high - low) == pytest.approx([4 * mm] * 3)


def test_an_svg_in_inches_with_a_group_moved_and_dashes_for_folds() -> None:
    page = b"""<svg xmlns="http://www.w3.org/2000/svg" width="12in" height="12in" viewBox="0 0 120 120">
      <g transform="translate(10 10) scale(0.5)"><path stroke="black" fill="none"
      d="M40 0H80V40H120V80H80V120H40V80H0V40H40Z"/>
      <polyline stroke="black" fill="none" stroke-dasharray="3 2" points="40,40 80,40 80,80 40,80 40,40"/></g>
      <text x="3" y="3">made by hand</text></svg>"""
    blank = read_blank("mine.svg", page)
    assert [float(side.inches) for side in blank.size] == pytest.approx([6, 6], abs=1e-4)
    assert [line.kind for line in blank.lines].count("score") == 4


NS = b'<svg xmlns="http://www.w3.org/2000/svg">'
BILLION = b"""<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>
<svg xmlns="http://www.w3.org/2000/svg"><text>&b;</text></svg>"""


@pytest.mark.parametrize(
    ("name", "content", "says"),
    [
        ("a.svg", BILLION, "not an SVG that is read"),
        ("a.svg", b'<!DOCTYPE svg SYSTEM "file:///etc/passwd"><svg/>', "not an SVG that is read"),
        ("a.svg", NS + b'<script>alert(1)</script></svg>', "more than a drawing"),
        ("a.svg", NS + b'<image href="x.png"/></svg>', "more than a drawing"),
        ("a.svg", NS + b'<line x1="0" y1="0" x2="1e300" y2="9"/></svg>', "far out"),
        ("a.svg", NS + b'<path d="M0 0C1 1 2 2 3 3Z"/></svg>', "a curve"),
        ("a.svg", NS + b'<circle r="20"/></svg>', "a curve"),
        ("a.svg", b"<svg", "not an SVG that is read"),
        ("a.svg", b"\x00\xff\xfe" * 40, "not an SVG that is read"),
        ("a.svg", b'<svg xmlns="http://www.w3.org/2000/svg"/>', "no lines"),
        ("a.svg", NS + b'<path d="M0 0H9V9"/></svg>', "enclose nothing"),
        ("a.svg", NS + b'<path d="M0 0H9V9H0Z M20 0H29V9H20Z"/></svg>', "more than one"),
        ("a.svg", NS + b"<g/>" * 4000 + b"</svg>", "too many elements"),
        ("a.svg", NS + b'<path d="M0 0' + b"L1 9L9 1" * 900 + b'Z"/></svg>', "too many"),
        ("a.svg", b"<svg>" + b" " * LARGEST + b"</svg>", "too large"),
        ("a.dxf", b"0\nSECTION\n2\nENTITIES\n" + b"0\nLINE\n8\n0\n10\n0\n20\n0\n11\n9\n21\n9\n" * 900, "DXF|too many"),
        ("a.dxf", b"not a dxf at all", "not a DXF"),
        ("a.dxf", b"\xff\xfe\x00" * 30, "not a DXF"),
        ("a.pdf", b"%PDF-1.4", "not a drawing that is read"),
        ("", b"", "not a drawing that is read"),
    ],
)  # fmt: skip
def test_a_hostile_or_broken_drawing_is_refused_with_a_sentence(name: str, content: bytes, says: str) -> None:
    with pytest.raises(BadInput, match=says) as refused:
        read_blank(name, content)
    assert refused.value.field == "file"


@given(st.binary(max_size=400), st.sampled_from(["a.svg", "a.dxf"]))
def test_any_bytes_are_read_or_refused(content: bytes, name: str) -> None:
    for whole in (content, NS + content + b"</svg>"):
        with contextlib.suppress(BadInput):
            assert read_blank(name, whole).lines


def test_ezdxf_finds_no_fault_with_what_we_write() -> None:
    for way in CUT:
        blanks = make_box(way, tuple(Length.of_mm(n) for n in (200, 150, 90)), shop().grade("C"), allowances()).blanks
        document = ezdxf.read(io.StringIO(dxf(blanks, "in")))
        assert document.audit().errors == []
        scores = document.modelspace().query('LINE[layer=="SCORE"]')
        drawn = sum(line.kind == "score" for blank in blanks for line in blank.lines)
        assert len(scores) == drawn
