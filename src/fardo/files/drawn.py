"""A blank laid out for a page: strokes and words, from which screen, paper and print are all drawn.

Everything is in millimetres of the real blank, y upwards. Only the size of the words depends on how large the drawing
will be seen, and with it how far the dimension lines stand off.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from fardo.core.cut.drawing import Blank, Dimension, Kind, Note
from fardo.core.quantity import Length, Units, show_length

StrokeKind = Kind | Literal["thin"]

# Dash lengths in units of the words' height: drawing-office practice tells kinds by dash, never by colour.
DASHES: dict[StrokeKind, tuple[float, ...]] = {
    "cut": (), "slot": (), "score": (1.1, 0.45), "second-score": (1.1, 0.3, 0.2, 0.3), "thin": (),
    "old-fold": (0.25, 0.45), "liner-cut": (1.8, 0.3, 0.5, 0.3), "edge": (),
}  # fmt: skip
WIDTHS: dict[StrokeKind, float] = {
    "cut": 0.16,
    "slot": 0.16,
    "score": 0.1,
    "second-score": 0.1,
    "thin": 0.05,
    "old-fold": 0.06,
    "liner-cut": 0.16,
    "edge": 0.06,
}
MEANINGS: tuple[tuple[StrokeKind, str], ...] = (
    ("cut", "cut"), ("score", "score, inner face"), ("second-score", "second score"),
    ("slot", "slit right through"), ("liner-cut", "cut the outer liner only"), ("old-fold", "crease it has"),
    ("edge", "edge or slit it has"),
)  # fmt: skip

_CUT_OR_SLIT = "cut or slit right through"

_GLYPH = 0.6  # width of a figure against its height
_SETTLED = 0.01  # words that would change less than that in height stay
_LINE = 1.35  # from line to line of a note, in heights
_SHORTEST = 4  # letters that a line is worth while for
_HATCH = 2.2  # between the lines of a hatching, in heights
_ROW = 2.3  # distance between rows of dimension lines, in heights


@dataclass(frozen=True, slots=True)
class Stroke:
    kind: StrokeKind
    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class Words:
    """Text centred at a point, turned `angle` degrees against the clock; `role` is dimension or note."""

    x: float
    y: float
    text: str
    angle: int
    role: Literal["dimension", "note"]


@dataclass(frozen=True, slots=True)
class Drawn:
    """A drawing with its legend and captions.

    Args:
        height: of the words.
        left, bottom, right, top: of everything drawn.
        outline: of the blank, for a fill.
    """

    height: float
    left: float
    bottom: float
    right: float
    top: float
    outline: tuple[tuple[float, float], ...]
    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]


def draw(blank: Blank, units: Units, words_height: float) -> Drawn:
    """Lays a blank out with words `words_height` mm high, measured on the blank.

    Dimensions are shown as the tape shows them.
    """
    h = words_height
    strokes = [
        Stroke(line.kind, line.start[0].mm, line.start[1].mm, line.end[0].mm, line.end[1].mm) for line in blank.lines
    ]
    words = [_kept_within(one, blank, h) for note in blank.notes for one in _lines_of(note, h)]
    for near, far in blank.hatched:
        strokes += _hatching((near[0].mm, near[1].mm), (far[0].mm, far[1].mm), words, h)
    taken: dict[tuple[str, int], float] = {}  # how far along a row words already stand outside its line
    for dimension in blank.dimensions:
        thin, text = _dimension(dimension, blank, units, h, taken)
        strokes += thin
        words.append(text)
    xs = [x for s in strokes for x in (s.x1, s.x2)] + [w.x + way * _reach(w, h)[0] for w in words for way in (-1, 1)]
    ys = [y for s in strokes for y in (s.y1, s.y2)] + [w.y + way * _reach(w, h)[1] for w in words for way in (-1, 1)]
    edge = 0.4 * h
    return Drawn(
        h, min(xs) - edge, min(ys) - edge, max(xs) + edge, max(ys) + edge,
        tuple((a.mm, b.mm) for a, b in blank.outline), tuple(strokes), tuple(words),
    )  # fmt: skip


def _lines_of(note: Note, h: float) -> Iterator[Words]:
    """A note line by line around its point; what does not go into its room is cut short, or left out."""
    texts = note.text.split("\n")
    if note.room is not None:
        wide, high = (side.mm for side in note.room)
        most = int((wide - h) / (_GLYPH * h))
        texts = [line for text in texts if most >= _SHORTEST for line in _broken(text, most)]
        texts = texts[: int(high / (_LINE * h))]
    for n, text in enumerate(texts):
        yield Words(note.at[0].mm, note.at[1].mm + ((len(texts) - 1) / 2 - n) * _LINE * h, text, 0, "note")


def _kept_within(words: Words, blank: Blank, h: float) -> Words:
    """Moved so far along that it does not begin before the blank or end beyond it, where it is not longer than that."""
    half, most = _reach(words, h)[0] + 0.3 * h, blank.size[0].mm
    return replace(words, x=min(max(words.x, half), most - half)) if 2 * half < most else words


def _broken(text: str, most: int) -> list[str]:
    """In lines of so many letters: sides of a size one below the other, as a measure is never cut short."""
    if len(text) <= most:
        return [text]
    first, times, rest = text.partition(" x ")
    if times and max(len(first) + 2, len(rest)) <= most:
        return [f"{first} x", rest]
    return [f"{text[: most - 1]}…"]


def _hatching(
    near: tuple[float, float], far: tuple[float, float], words: Sequence[Words], h: float
) -> Iterator[Stroke]:
    """Thin lines aslant over a rectangle, which leave its words clear."""
    (x1, y1), (x2, y2) = near, far
    clear = [
        (one.x - _reach(one, h)[0], one.x + _reach(one, h)[0])
        for one in words
        if x1 < one.x < x2 and y1 < one.y < y2 and one.role == "note"
    ]
    heights = [one.y for one in words if x1 < one.x < x2 and y1 < one.y < y2]
    left, right = min((a for a, _ in clear), default=x2), max((b for _, b in clear), default=x1)
    low, high = min(heights, default=y2) - h, max(heights, default=y1) + h
    step = _HATCH * h
    for n in range(1, int((x2 - x1 + y2 - y1) / step) + 1):
        # y - y1 = x - x1 + c, from where it comes into the rectangle to where it leaves it
        c = n * step - (x2 - x1)
        start, end = x1 + max(0.0, -c), min(x2, x1 + (y2 - y1) - c)
        over = [max(start, left, x1 + low - y1 - c), min(end, right, x1 + high - y1 - c)]
        spans = [(start, over[0]), (over[1], end)] if over[0] < over[1] else [(start, end)]
        for a, b in spans:
            if b > a:
                yield Stroke("thin", a, y1 + a - x1 + c, b, y1 + b - x1 + c)


def key_of(blank: Blank) -> tuple[tuple[StrokeKind, str], ...]:
    """What each dash in its drawing means; cuts and slits are drawn alike."""
    kinds = {line.kind for line in blank.lines}
    if {"cut", "slot"} <= kinds:
        return tuple((kind, _CUT_OR_SLIT if kind == "cut" else meaning) for kind, meaning in MEANINGS
                     if kind in kinds and kind != "slot")  # fmt: skip
    return tuple((kind, meaning) for kind, meaning in MEANINGS if kind in kinds)


@dataclass(frozen=True, slots=True)
class Seen:
    """How a drawing will be seen: the room it is fitted into, and how high its words should be there, in pixels."""

    width: int
    height: int
    words: int


ON_SCREEN = Seen(570, 330, 14)


def words_height_for(blank: Blank, units: Units, seen: Seen = ON_SCREEN) -> float:
    """The height of words on the blank, in mm, that reads as asked once the drawing with its dimensions is fitted."""
    x, y = blank.size[0].mm, blank.size[1].mm
    height = max(x / seen.width, y / seen.height) * seen.words
    # The room that dimensions take grows with the words, so the answer is come by in a few rounds.
    for _ in range(4):
        drawn = draw(blank, units, height)
        beside, above = (drawn.right - drawn.left - x) / height, (drawn.top - drawn.bottom - y) / height
        # However much the words take, the blank keeps a third of the room.
        before, height = (
            height,
            max(
                seen.words * x / max(seen.width - seen.words * beside, seen.width / 3),
                seen.words * y / max(seen.height - seen.words * above, seen.height / 3),
            ),
        )
        if abs(height - before) < _SETTLED * height:
            break
    return height


@lru_cache(maxsize=4096)  # a drawing is laid out several times until its words fit
def exact_text(length: Length, units: Units) -> str:
    """A figure of a cut sheet, without its unit: as the tape shows it, never finer.

    What is cut goes to that step where it is worked out; what is rounded here is at most half a step off.
    """
    return show_length(length, units, "nearest").text.removesuffix(f" {units}")


def _reach(words: Words, h: float) -> tuple[float, float]:
    """Half the width and half the height that words take."""
    along, across = len(words.text) * _GLYPH * h / 2, h / 2
    return (across, along) if words.angle else (along, across)


def _dimension(
    d: Dimension, blank: Blank, units: Units, h: float, taken: dict[tuple[str, int], float]
) -> tuple[list[Stroke], Words]:
    """The lines and the figure of a dimension. A figure stands in a gap of its line; one wider than what it measures
    stands outside the line, turned where it would run into its neighbour.
    """
    along_x = d.side in ("above", "below")
    sign = 1 if d.side in ("above", "right") else -1
    edge = {"above": blank.size[1].mm, "below": 0.0, "right": blank.size[0].mm, "left": 0.0}[d.side]
    at = edge + sign * d.row * _ROW * h
    axis = 0 if along_x else 1
    a, b = sorted((d.start[axis].mm, d.end[axis].mm))
    text, middle = exact_text(d.length, units), (a + b) / 2
    half = len(text) * _GLYPH * h / 2
    fits = b - a > 2 * half + 0.8 * h
    gap = half + 0.4 * h
    spans = [(a, middle - gap), (middle + gap, b)] if fits else [(a, b)]
    strokes = [_across(along_x, start, at, end, at) for start, end in spans]
    strokes += [_across(along_x, end, edge + sign * 0.35 * h, end, at + sign * 0.45 * h) for end in (a, b)]
    if fits:
        beside, along_line = at, True
    else:
        row = (d.side, d.row)
        reached = taken.get(row, float("-inf"))
        along_line = along_x and middle - half > reached
        # A turned figure begins beyond the words beside it where they reach under it.
        clear = 1.8 * h if along_x and middle - h / 2 < reached else 0.7 * h
        beside = at + sign * (0.95 * h if along_line else half + clear)
        taken[row] = max(reached, middle + (half if along_line else h / 2) + 0.3 * h)
    angle = 0 if along_line == along_x else 90
    x, y = (middle, beside) if along_x else (beside, middle)
    return strokes, Words(x, y, text, angle, "dimension")


def _across(along_x: bool, u1: float, v1: float, u2: float, v2: float) -> Stroke:
    return Stroke("thin", u1, v1, u2, v2) if along_x else Stroke("thin", v1, u1, v2, u2)


def in_words(units: Units) -> Callable[[Length], str]:
    """What writes a measure into a sentence, its unit with it."""
    return lambda length: f"{exact_text(length, units)} {units}"
