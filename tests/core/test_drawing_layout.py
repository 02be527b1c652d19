"""The layout of a drawing: figures that do not run into each other, whatever the proportions."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from reportlab.pdfbase.pdfmetrics import stringWidth

from fardo.core.cut.drawing import Blank, Note, chain, cut_along
from fardo.core.make import make_box
from fardo.core.quantity import ZERO, Length
from fardo.files.drawn import ON_SCREEN, Drawn, Words, draw, exact_text, words_height_for
from fardo.files.lettering import width_of
from fardo.files.svg import svg
from tests.made_up import allowances, inches, shop, sizes

measure = st.integers(40_000_000, 900_000_000).map(Length)


def blanks(inside: tuple[Length, Length, Length]) -> list[Blank]:
    made = [
        make_box("tray", inside, shop().grade("C"), allowances("1/16"), "exact"),
        make_box("tray", inside, shop().grade("C"), allowances("1/16"), "thumb"),
        make_box("slotted", inside, shop().grade("C"), allowances("1/16")),
    ]
    return [blank for box in made for blank in box.blanks]


def area(words: Words, height: float) -> tuple[float, float, float, float]:
    """The rectangle that words take: figures are about six tenths as wide as high."""
    half = (len(words.text) * 0.55 * height / 2, height * 0.4)
    across, up = half if words.angle == 0 else half[::-1]
    return words.x - across, words.y - up, words.x + across, words.y + up


def overlap(one: tuple[float, float, float, float], other: tuple[float, float, float, float]) -> bool:
    return one[0] < other[2] and other[0] < one[2] and one[1] < other[3] and other[1] < one[3]


@given(st.tuples(measure, measure, measure))
def test_figures_never_run_into_each_other(inside: tuple[Length, Length, Length]) -> None:
    for blank in blanks(inside):
        drawn = draw(blank, "in", words_height_for(blank, "in"))
        figures = [words for words in drawn.words if words.role == "dimension"]
        for one, other in combinations(figures, 2):
            # A panel narrower than a figure is high cannot keep its figure to itself on any drawing.
            if min(d.length.mm for d in blank.dimensions) > 1.2 * drawn.height:
                assert not overlap(area(one, drawn.height), area(other, drawn.height)), (one, other)


@given(st.tuples(measure, measure, measure))
def test_everything_drawn_is_within_the_drawings_bounds(inside: tuple[Length, Length, Length]) -> None:
    for blank in blanks(inside):
        drawn = draw(blank, "in", words_height_for(blank, "in"))
        for words in drawn.words:
            left, bottom, right, top = area(words, drawn.height)
            if words.role == "dimension":
                assert drawn.left <= left
                assert right <= drawn.right
                assert drawn.bottom <= bottom
                assert top <= drawn.top
        for stroke in drawn.strokes:
            assert drawn.left <= min(stroke.x1, stroke.x2) <= max(stroke.x1, stroke.x2) <= drawn.right
            assert drawn.bottom <= min(stroke.y1, stroke.y2) <= max(stroke.y1, stroke.y2) <= drawn.top


def seen_words(drawn: Drawn) -> float:
    """How high the words are on the screen, in pixels, once the drawing is fitted."""
    scale = min(ON_SCREEN.width / (drawn.right - drawn.left), ON_SCREEN.height / (drawn.top - drawn.bottom))
    return drawn.height * scale


@pytest.mark.parametrize("inside", ["72 x 9 x 4 1/2", "25 x 25 x 5", "14 x 12 x 30", "3 x 2 x 1", "40 x 30 x 20"])
def test_figures_are_read_alike_on_screen_whatever_is_drawn(inside: str) -> None:
    for blank in blanks(sizes(inside)):
        drawn = draw(blank, "in", words_height_for(blank, "in"))
        assert 10 <= seen_words(drawn) <= 16


def test_a_dimension_line_is_as_long_as_what_it_says() -> None:
    (case,) = make_box("slotted", sizes("18 x 12 x 10"), shop().grade("C"), allowances("1/16")).blanks
    drawn = draw(case, "in", 10)
    whole = next(d for d in case.dimensions if d.side == "below")
    row = [s for s in drawn.strokes if s.kind == "thin" and s.y1 == s.y2 and s.y1 < 0]
    assert max(s.x2 for s in row) - min(s.x1 for s in row) == pytest.approx(whole.length.mm)


@pytest.mark.parametrize(
    ("length", "in_inches", "in_cm"),
    [("10 1/2", "10 1/2", "26.7"), ("13 11/64", "13 3/16", "33.5"), ("1 41/64", "1 5/8", "4.2"), ("12", "12", "30.5")],
)
def test_no_figure_of_a_cut_sheet_is_finer_than_the_tape(length: str, in_inches: str, in_cm: str) -> None:
    assert exact_text(inches(length), "in") == in_inches
    assert exact_text(inches(length), "cm") == in_cm


def test_a_metric_drawing_has_metric_figures() -> None:
    made = make_box("tray", sizes("40 x 30 x 10 cm"), shop().grade("C"), allowances("1 mm"))
    words = svg(made.blanks[0], "cm")
    # 400 + 3.97 goes up to 404 mm, 100 + 1.98 to 102 mm: 608 in all.
    assert ">40.4<" in words
    assert ">10.2<" in words
    assert ">60.8<" in words


def test_hatching_stays_within_what_is_left_over_and_off_its_words() -> None:
    size = (Length.of_mm(1000), Length.of_mm(600))
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    half = (Length.of_mm(500), ZERO)
    note = Note((Length.of_mm(750), Length.of_mm(300)), "off-cut, keep\n500 x 600", (Length.of_mm(500), size[1]))
    blank = Blank("sheet", size, outline, (), (), (note,), "either way", hatched=((half, size),))
    drawn = draw(blank, "cm", 20)
    assert [one.text for one in drawn.words] == ["off-cut, keep", "500 x 600"]
    assert drawn.words[0].y > drawn.words[1].y
    lines = [one for one in drawn.strokes if one.kind == "thin"]
    assert len(lines) > 10
    for line in lines:
        assert 500 - 1e-6 <= line.x1 < line.x2 <= 1000 + 1e-6
        assert -1e-6 <= line.y1 < line.y2 <= 600 + 1e-6
        assert line.x2 - line.x1 == pytest.approx(line.y2 - line.y1)  # aslant by half a right angle
        for k in range(21):
            x, y = line.x1 + (line.x2 - line.x1) * k / 20, line.y1 + (line.y2 - line.y1) * k / 20
            for word in drawn.words:
                wide = len(word.text) * 0.6 * 20 / 2
                assert not (abs(x - word.x) < wide - 1e-6 and abs(y - word.y) < 10 - 1e-6)


def test_words_that_do_not_go_into_their_room_are_cut_short_or_left_out() -> None:
    size = (Length.of_mm(400), Length.of_mm(300))
    outline = ((ZERO, ZERO), (size[0], ZERO), size, (ZERO, size[1]))
    for wide, high, told in ((400, 300, ["Table loom, folded", "tray"]), (140, 300, ["Table loo…", "tray"]),
                             (400, 30, ["Table loom, folded"]), (50, 300, [])):  # fmt: skip
        note = Note(
            (size[0].half(), size[1].half()), "Table loom, folded\ntray", (Length.of_mm(wide), Length.of_mm(high))
        )
        assert [
            one.text
            for one in draw(Blank("s", size, outline, cut_along(outline), (), (note,), "either way"), "cm", 20).words
        ] == told


def notes_of(text: str, wide: str) -> list[str]:
    note = Note((inches("1"), inches("1.5")), text, (inches(wide), inches("3")))
    blank = replace(blanks(sizes("12 x 8 x 6"))[0], notes=(note,), dimensions=())
    return [one.text for one in draw(blank, "in", 6.0).words if one.role == "note"]


def test_a_size_that_is_wider_than_its_room_is_broken_and_not_cut_short() -> None:
    told = notes_of("off-cut\n29 13/16 x 34 7/16 in\na name much too long for it", "2")
    assert told == ["off-cut", "29 13/16 x", "34 7/16 in", "a name much…"]
    assert notes_of("29 13/16 x 34 7/16 in", "1.4") == ["29 13/1…"]
    assert notes_of("29 13/16 x 34 7/16 in", "6") == ["29 13/16 x 34 7/16 in"]


def test_a_note_wider_than_its_panel_begins_on_the_board_and_ends_on_it() -> None:
    """Words of a narrow panel at the edge would begin before the board; they are moved along, not made smaller."""
    wide, high = inches("60"), inches("20")
    ends = [Note((inches("2"), high.half()), "inside face up"), Note((inches("58"), high.half()), "inside face up")]
    corners = ((ZERO, ZERO), (wide, ZERO), (wide, high), (ZERO, high))
    blank = Blank("case", (wide, high), corners, (), (), tuple(ends), "either way")
    drawn = draw(blank, "in", 60.0)
    first, last = (area(words, drawn.height) for words in drawn.words)
    assert first[0] > 0
    assert last[2] < wide.mm
    assert {words.y for words in drawn.words} == {high.half().mm}
    middle = replace(blank, notes=(Note((wide.half(), high.half()), "inside face up"),))
    assert [words.x for words in draw(middle, "in", 60.0).words] == [wide.half().mm]


def test_words_are_as_wide_as_their_font_sets_them() -> None:
    assert width_of("Fence or mark", 10) == stringWidth("Fence or mark", "Helvetica", 10)
    assert width_of("Fence or mark", 10, bold=True) == stringWidth("Fence or mark", "Helvetica-Bold", 10)


def test_a_figure_that_has_room_stands_in_its_line_and_along_it() -> None:
    wide, high = inches("60"), inches("30")
    corners = ((ZERO, ZERO), (wide, ZERO), (wide, high), (ZERO, high))
    dimensions = (*chain((ZERO, wide), "below", ZERO), *chain((ZERO, high), "left", ZERO))
    drawn = draw(Blank("pad", (wide, high), corners, (), dimensions, (), "either way"), "in", 20.0)
    assert {words.text: words.angle for words in drawn.words} == {"60": 0, "30": 90}
    for words in drawn.words:
        level = [one for one in drawn.strokes if (one.y1 == one.y2 == words.y if words.angle == 0
                                                  else one.x1 == one.x2 == words.x)]  # fmt: skip
        assert len(level) == 2  # the line on both sides of its figure


@pytest.mark.parametrize(("high", "in_flap"), [("3", True), ("14", False)])
def test_which_face_is_up_stands_in_the_flap_of_a_low_case(high: str, in_flap: bool) -> None:
    """A case 26 x 26: its flaps are 13 in, so that a wall of 3 in has no room for its letter and the face too."""
    (blank,) = make_box("slotted", sizes(f"26 x 26 x {high}"), shop().grade("C"), allowances("1/16"), "exact").blanks
    (face,) = [one for one in blank.notes if one.text == "inside face up"]
    letter = next(one for one in blank.notes if one.text == "L")
    assert (face.at[1] < inches("13"), face.at[1] < letter.at[1]) == (in_flap, in_flap)
