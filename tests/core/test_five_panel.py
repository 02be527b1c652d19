"""The five-panel folder, its panels worked by hand."""

from __future__ import annotations

from fardo.core.make import make_box
from tests.made_up import allowances, inches, shop, sizes


def folder(inside: str = "40 x 6 x 4"):
    return make_box("five-panel", sizes(inside), shop().grade("B"), allowances())


def test_panels_across_the_blank_are_top_side_bottom_side_top() -> None:
    """On 1/8 in board: W + t/2, H + t, W + t, H + 2t, W + 3t/2; along it L + 2t between flaps of H + t."""
    made = folder()
    (blank,) = made.blanks
    marks = sorted({line.start[1] for line in blank.lines if line.kind == "score" and line.start[1] == line.end[1]})
    rows = [inches(text) for text in ("6 1/16", "4 1/8", "6 1/8", "4 1/4", "6 3/16")]
    assert marks == [rows[0], rows[0] + rows[1], rows[0] + rows[1] + rows[2], rows[0] + rows[1] + rows[2] + rows[3]]
    assert blank.size == (inches("40 1/4 + 2 x 4 1/8"), rows[0] + rows[1] + rows[2] + rows[3] + rows[4])


def test_outside_is_4_2_and_3_calipers_more() -> None:
    made = folder()
    assert made.inside == sizes("40 x 6 x 4")
    more = [out - inner for out, inner in zip(made.outside, made.inside, strict=True)]
    assert more == [inches("1/2"), inches("1/4"), inches("3/8")]


def test_the_longer_side_lies_along_it_and_its_height_stays_up() -> None:
    made = folder("6 x 40 x 4")
    assert made.inside == sizes("40 x 6 x 4")
    assert any("Turned" in note for note in made.notes)


def test_the_flaps_are_cut_apart_and_the_rows_of_dimensions_add_up() -> None:
    (blank,) = folder().blanks
    assert len([line for line in blank.lines if line.kind == "slot"]) == 4
    for chain, whole in (("above", "below"), ("right", "left")):
        panels, all_of_it = ([d.length.nm for d in blank.dimensions if d.side == side] for side in (chain, whole))
        assert [sum(panels)] == all_of_it


def test_for_something_long_it_takes_less_board_than_lid_and_tray() -> None:
    made, tray = folder(), make_box("tray", sizes("40 x 6 x 4"), shop().grade("B"), allowances())
    assert made.weight < tray.weight
