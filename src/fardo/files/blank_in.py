"""A shop's own blank read in from SVG or DXF: straight lines, told apart by class, layer or dash as in our own files.

A score is a line whose class or layer says score, fold or crease, or that is dashed; all else that is drawn is cut.
Dimensions, notes and what is only filled are passed over. Nothing of a file is run or fetched, and one that is too
large, has curves, or measures beyond ten metres is refused before anything is made of it.
"""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Any

from fardo.core.cut.drawing import Blank, Kind, Line, Point, chain
from fardo.core.cut.fold import MOST_LINES
from fardo.core.quantity import ZERO, Length
from fardo.core.refusal import BadInput

LARGEST = 1_000_000
LONGEST_MM = 10_000.0
_SNAP_MM = 0.02  # ends that are so near are one
_ALLOWED_SVG = "an SVG of straight lines in real units"
_ALLOWED_DXF = "a DXF of straight lines"
_SCORE = re.compile(r"score|fold|crease", re.I)
_SECOND = re.compile(r"second", re.I)
_OLD = re.compile(r"\bold\b|\bold_", re.I)
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")
_MOST_NUMBERS = MOST_LINES * 8  # of all paths: four a line, written both ways
_MOST_TURNS = 12  # transforms of one element
_MOST_RECORDS = 4000  # of a DXF, its tables with them
_PASSED = re.compile(r"dimension|\bdim|note|text|thin|board\b|frame|register", re.I)


@dataclass(frozen=True, slots=True)
class _Stroke:
    kind: Kind
    start: tuple[float, float]
    end: tuple[float, float]


def read_blank(name: str, content: bytes) -> Blank:
    """The drawing as a blank, its lower left corner at 0. Raises BadInput for what is no drawing of one blank."""
    ending = name.lower().rpartition(".")[2]
    if ending not in ("svg", "dxf"):
        raise BadInput("not a drawing that is read", read=name[:80], allowed="an .svg or .dxf file", field="file")
    if len(content) > LARGEST:
        allowed = f"up to {LARGEST // 1000} kB; a box is a few dozen lines"
        raise BadInput("too large", read=f"{len(content)} bytes", allowed=allowed, field="file")
    strokes = list(_few(_of_svg(content) if ending == "svg" else _of_dxf(content), ending))
    if not strokes:
        raise BadInput("no lines in it", read=name[:80], allowed="cuts and scores", field="file")
    return blank_of(name.rpartition(".")[0][:60] or "blank", [_line(stroke) for stroke in strokes])


def _few(strokes: Iterable[_Stroke], ending: str) -> Iterator[_Stroke]:
    """Raises BadInput at the first line too many, or with an end that is nowhere on a bench."""
    for n, stroke in enumerate(strokes):
        if n >= MOST_LINES:
            raise BadInput("too many lines", read=f"more than {MOST_LINES}", allowed="one blank", field="file")
        for value in (*stroke.start, *stroke.end):
            if not math.isfinite(value) or abs(value) > LONGEST_MM:
                allowed = f"within {LONGEST_MM / 1000:g} m"
                raise BadInput("a line far out", read=f"{value:.4g} mm", allowed=allowed, field="file")
        if math.dist(stroke.start, stroke.end) > _SNAP_MM:
            yield stroke


def _line(stroke: _Stroke) -> Line:
    return Line(stroke.kind, _point(stroke.start), _point(stroke.end))


def _point(at: tuple[float, float]) -> Point:
    return Length.of_mm(round(float(at[0]), 6)), Length.of_mm(round(float(at[1]), 6))


def blank_of(name: str, lines: list[Line]) -> Blank:
    """A blank of lines anywhere: moved to 0, ends that nearly meet made one, its outline found. Raises BadInput."""
    from shapely import unary_union  # it takes a moment to load
    from shapely.geometry import LineString
    from shapely.ops import polygonize

    lines = _snapped(lines)
    drawn = [LineString([(x.mm, y.mm) for x, y in (line.start, line.end)]) for line in lines if line.kind != "old-fold"]
    whole = unary_union(list(polygonize(unary_union(drawn))))
    if whole.is_empty:
        raise BadInput("its lines enclose nothing", read=name, allowed="an outline that is closed", field="file")
    if whole.geom_type != "Polygon":
        read = f"{len(whole.geoms)} pieces that do not touch"
        raise BadInput("more than one blank", read=read, allowed="one blank a file", field="file")
    left, low, _, _ = whole.bounds
    by = Length.of_mm(round(left, 6)), Length.of_mm(round(low, 6))
    lines = [Line(one.kind, _moved(one.start, by), _moved(one.end, by), one.folds) for one in lines]
    corners = [_moved(_point((x, y)), by) for x, y in list(whole.exterior.simplify(1e-6).coords)[:-1]]
    size = max(x for x, _ in corners), max(y for _, y in corners)
    dimensions = (*chain((ZERO, size[0]), "below", ZERO), *chain((ZERO, size[1]), "left", ZERO))
    return Blank(name, size, tuple(corners), tuple(lines), dimensions, (), "across the blank")


def _moved(point: Point, by: Point) -> Point:
    return point[0] - by[0], point[1] - by[1]


def _snapped(lines: list[Line]) -> list[Line]:
    """Ends nearer to each other than can be drawn become one, so that what meets on paper meets."""
    near = Length.of_mm(_SNAP_MM)
    known: list[Point] = []

    def snap(point: Point) -> Point:
        for other in known:
            if abs(other[0] - point[0]) <= near and abs(other[1] - point[1]) <= near:
                return other
        known.append(point)
        return point

    return [Line(line.kind, snap(line.start), snap(line.end), line.folds) for line in lines]


def _kind(words: str, dashes: int) -> Kind | None:
    """By what class or layer say, else by the dash: none is cut, two lengths score, more a second score."""
    if _PASSED.search(words):
        return None
    if _SECOND.search(words):
        return "second-score"
    if _OLD.search(words):
        return "old-fold"
    if _SCORE.search(words):
        return "score"
    if "slot" in words.lower():
        return "slot"
    if "cut" in words.lower() or not dashes:
        return "cut"
    return "score" if dashes <= 2 else "second-score"


def _of_svg(content: bytes) -> Iterator[_Stroke]:
    from defusedxml import DefusedXmlException
    from defusedxml.ElementTree import ParseError, fromstring
    from svgelements import SVG, Group, Shape  # it takes a moment to load

    try:
        root = fromstring(content, forbid_dtd=True)
    except (DefusedXmlException, ParseError, ValueError, RecursionError) as fault:
        raise BadInput(
            "not an SVG that is read", read=type(fault).__name__, allowed=_ALLOWED_SVG, field="file"
        ) from fault
    if str(root.tag).rpartition("}")[2].lower() != "svg":
        raise BadInput("not an SVG", read=f"<{root.tag}>"[:80], allowed=_ALLOWED_SVG, field="file")
    numbers = 0
    for number, element in enumerate(root.iter(), 1):
        tag = str(element.tag).rpartition("}")[2].lower()
        if tag in ("script", "foreignobject", "image", "use", "style"):
            raise BadInput("more than a drawing", read=f"<{tag}>", allowed=_ALLOWED_SVG, field="file")
        if number > MOST_LINES * 8:
            raise BadInput("too many elements", read=f"more than {MOST_LINES * 8}", allowed=_ALLOWED_SVG, field="file")
        if element.get("transform", "").count("(") > _MOST_TURNS:
            read = f"more than {_MOST_TURNS} of one element"
            raise BadInput("too many transforms", read=read, allowed=_ALLOWED_SVG, field="file")
        numbers += sum(len(_NUMBER.findall(element.get(name, ""))) for name in ("d", "points", "stroke-dasharray"))
        if numbers > _MOST_NUMBERS:
            raise BadInput("too many lines", read=f"more than {MOST_LINES}", allowed="one blank", field="file")
    try:
        whole = SVG.parse(io.BytesIO(content), reify=True, ppi=25.4)
    except Exception as fault:  # the library raises what it meets
        raise BadInput("not an SVG that is read", read=str(fault)[:80], allowed=_ALLOWED_SVG, field="file") from fault
    for element in whole.elements():
        if not isinstance(element, Shape) or isinstance(element, Group):
            continue
        values = element.values or {}
        attributes = {**values.get("attributes", {}), **values}
        words = " ".join(str(attributes.get(name, "")) for name in ("class", "id", "layer"))
        # What its own element says; the library's own default is none too.
        if str(values.get("attributes", {}).get("stroke", "")).lower() == "none":
            continue
        dashes = len(re.findall(r"[\d.]+", str(attributes.get("stroke-dasharray", ""))))
        kind = _kind(words, dashes)
        if kind is not None:
            yield from _segments(element, kind)


def _segments(shape: Any, kind: Kind) -> Iterator[_Stroke]:
    from svgelements import Close, Move, Path
    from svgelements import Line as Straight

    for segment in Path(shape):
        if isinstance(segment, Move):
            continue
        if not isinstance(segment, Straight | Close):
            what = type(segment).__name__
            raise BadInput("a curve in it", read=what, allowed="straight lines only", field="file")
        if segment.start is not None and segment.end is not None:
            # Downwards on a page is up on the bench.
            yield _Stroke(kind, (segment.start.x, -segment.start.y), (segment.end.x, -segment.end.y))


def _of_dxf(content: bytes) -> Iterator[_Stroke]:
    import ezdxf  # it takes most of a second to load
    from ezdxf import units as dxf_units
    from ezdxf.lldxf.const import DXFError

    _count_records(content)
    try:
        text = content.decode("utf-8")
        document = ezdxf.read(io.StringIO(text))  # type: ignore[attr-defined]
        unit: Any = document.header.get("$INSUNITS", 4) or 4
        millimetres: Any = dxf_units.MM
        scale = float(dxf_units.conversion_factor(unit, millimetres))
    except (DXFError, UnicodeDecodeError, ArithmeticError, ValueError, LookupError, TypeError, AttributeError) as fault:
        raise BadInput("not a DXF that is read", read=str(fault)[:80], allowed=_ALLOWED_DXF, field="file") from fault
    for entity in document.modelspace():
        kind = _kind(f"{entity.dxf.layer}", _dxf_dashes(document, entity))
        if kind is None or entity.dxftype() in ("TEXT", "MTEXT", "DIMENSION", "POINT", "HATCH"):
            continue
        for start, end in _dxf_lines(entity):
            yield _Stroke(kind, (start[0] * scale, start[1] * scale), (end[0] * scale, end[1] * scale))


def _count_records(content: bytes) -> None:
    """Raises BadInput where there are far more things than a blank has, before any is made of them."""
    if b"\0" in content:
        allowed = f"{_ALLOWED_DXF}, saved as text"
        raise BadInput("not a DXF that is read, but a binary file", read="a byte of 0", allowed=allowed, field="file")
    # A line with a code and a line with its value, in turn: 0 begins a thing, 10 is a point of one.
    codes = [line.strip() for line in content.split(b"\n")[::2]]
    if codes.count(b"0") > _MOST_RECORDS or codes.count(b"10") > _MOST_RECORDS:
        raise BadInput("too many lines", read=f"more than {_MOST_RECORDS}", allowed="one blank", field="file")


def _dxf_dashes(document: Any, entity: Any) -> int:
    """How many lengths its line type's dash has; nothing for one that goes on."""
    name = entity.dxf.get("linetype", "BYLAYER")
    if name.upper() == "BYLAYER" and entity.dxf.layer in document.layers:
        name = document.layers.get(entity.dxf.layer).dxf.get("linetype", "CONTINUOUS")
    name = name.upper()
    return 4 if "DOT" in name else 0 if name in ("CONTINUOUS", "BYLAYER", "BYBLOCK") else 2


def _dxf_lines(entity: Any) -> Iterator[tuple[tuple[float, float], tuple[float, float]]]:
    what = entity.dxftype()
    if what == "LINE":
        yield (entity.dxf.start.x, entity.dxf.start.y), (entity.dxf.end.x, entity.dxf.end.y)
        return
    if what == "LWPOLYLINE":
        if entity.has_arc:
            raise BadInput("a curve in it", read=what, allowed="straight lines only", field="file")
        points = [(x, y) for x, y, *_ in entity.get_points()]
        closed = bool(entity.closed)
    elif what == "POLYLINE":
        points = [(vertex.dxf.location.x, vertex.dxf.location.y) for vertex in entity.vertices]
        closed = bool(entity.is_closed)
    else:
        raise BadInput("more than straight lines", read=what[:40], allowed=_ALLOWED_DXF, field="file")
    pairs = list(pairwise(points))
    yield from [*pairs, (points[-1], points[0])] if closed and len(points) > 2 else pairs
