"""The table of starting values says what the code does: a slip in one of them is told here."""

from __future__ import annotations

from pathlib import Path

from tests.starting_values import TABLE, named_figures, written


def test_the_table_has_every_starting_value_as_the_code_has_it() -> None:
    assert TABLE.read_text("utf-8") == written()
    assert written().count("\n| ") > 50


def test_a_figure_is_found_by_its_comment_beside_or_above(tmp_path: Path) -> None:
    module = tmp_path / "module.py"
    lines = ("A = 3  # so many: starting value", "# Common practice,", "# of two lines.", "B, C = 4, 5",
             "D = 6  # a cap", "e = 7  # starting value")  # fmt: skip
    module.write_text("\n".join(lines))
    assert list(named_figures(module)) == [
        ("A", "3", "so many: starting value"), ("B, C", "(4, 5)", "Common practice, of two lines."),
    ]  # fmt: skip
