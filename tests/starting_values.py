"""Every starting value of the core in one table: what a packer may ask about, and an engineer may change.

``python -m tests.starting_values`` writes docs/starting-values.md from the code: each named figure whose comment says
that it is a starting value or common practice.
"""

from __future__ import annotations

import ast
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
TABLE = ROOT / "docs/starting-values.md"
SAYS = ("starting value", "common practice")
HEAD = """# Starting values

Figures of the rules that come from practice or from us, as far as the code names them: what a box takes to make, how
far a used one is trusted, how near is near. None is from a standard; where a shop can change one, it is under Settings.
Written from the code by `make schemas`; a figure changed there and not here fails a test.

| where | name | value | what it is |
|---|---|---|---|
"""


def named_figures(path: Path) -> Iterator[tuple[str, str, str]]:
    """Name, value as it is written and comment of each named figure of a module that says what it is."""
    source = path.read_text("utf-8")
    lines = source.splitlines()
    for node in ast.parse(source).body:
        if not isinstance(node, ast.Assign | ast.AnnAssign) or node.value is None:
            continue
        target = node.targets[0] if isinstance(node, ast.Assign) else node.target
        name, line = ast.unparse(target).strip("()"), lines[node.lineno - 1]
        said = line.partition("  # ")[2]
        above = node.lineno - 2
        while above >= 0 and lines[above].startswith("# "):
            said = f"{lines[above][2:]} {said}"
            above -= 1
        if name.upper() == name and any(one in said.lower() for one in SAYS):
            yield name, ast.unparse(node.value), said.strip()


def written() -> str:
    """The table as the code has it."""
    rows = [
        f"| {path.relative_to(ROOT / 'src/fardo').with_suffix('')} | {name.strip('_')} | `{value}` | {said} |"
        for path in sorted((ROOT / "src/fardo/core").rglob("*.py"))
        for name, value, said in named_figures(path)
    ]
    return HEAD + "\n".join(row.replace(" | |", " |") for row in rows) + "\n"


if __name__ == "__main__":
    TABLE.write_text(written(), "utf-8")
