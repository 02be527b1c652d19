"""Whether the tests would notice: small mutations of the code, each with the tests that run it.

``pip install cosmic-ray coverage`` into the project's environment first; it is no part of what the project stands on.

``python -m benchmarks.mutations`` takes a seeded sample of all small mutations of ``core``, ``files``, ``store`` and
``api``, puts each into a copy of the last commit, runs tests of ``make test`` that reach its line until one fails, the
quick ones that reach little else first, and prints a table and the mutations that no test noticed. No more than a
minute of tests is run for one (``--seconds``), so that the share noticed is at least what is printed. The first run
asks which tests reach which line; that is kept for the next (``--reached``). Once tests are written for what survived:
``--out FILE --again --written TEST...`` tries those once more.
"""

from __future__ import annotations

import argparse
import ast
import json
import multiprocessing
import os
import queue
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
from collections import Counter, defaultdict
from collections.abc import Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from benchmarks.table import show

ROOT = Path(__file__).parents[1]
MUTATED = ("core", "files", "store", "api")
TESTS = ("src/fardo/core", "tests/core", "tests/outside", "tests/api")
OPTIONS = ("-p", "no:cacheprovider", "-p", "no:xdist")
# These read the code as text, or what its import made of it, so that no line is known to be reached by them.
READERS = {
    "src/fardo/core/": ("tests/core/test_starting_values.py",),
    "src/fardo/files/": (
        "tests/core/test_starting_values.py",
        "tests/outside/test_file_formats.py::test_the_descriptions_in_the_tree_are_current",
    ),
    "src/fardo/api/": ("tests/outside/test_file_formats.py::test_the_descriptions_in_the_tree_are_current",),
}  # fmt: skip
_NEAR = 0.02  # what a test of the same name counts against one of another
FIRST = 8  # tests that are run before the others are even read in
# What compiled loops do is seen by none who only watches lines: those who call them reach them.
CALLED_BY = {
    "src/fardo/core/arrange/compiled.py": ("tests/core/test_compiled_loops.py", "src/fardo/core/arrange/apart.py"),
    "src/fardo/core/arrange/compiled_blocks.py": (
        "tests/core/test_compiled_loops.py", "src/fardo/core/arrange/blocks.py",
    ),
}  # fmt: skip
# Options of a decorator or a call that check, spell or tune, and work nothing out: no test can tell them apart.
WORKS_NOTHING_OUT = frozenset(("strict", "frozen", "slots", "eq", "maxsize", "ensure_ascii", "daemon"))
MOST_SECONDS = 60.0  # of tests that are run for one mutation: what they do not notice counts as survived
# What the project stands on, imported once: each run of tests is forked from a process that has it.
FORKED = multiprocessing.get_context("forkserver")
FORKED.set_forkserver_preload([
    "pytest", "hypothesis", "schemathesis.pytest.plugin", "anyio.pytest_plugin", "numpy", "scipy.fft", "scipy.optimize",
    "scipy.ndimage", "scipy.spatial", "fastapi", "fastapi.testclient", "pydantic", "httpx", "shapely", "ezdxf",
    "reportlab.pdfgen.canvas", "typer", "rich", "tenacity", "argon2", "PIL.Image", "uvicorn",
])  # fmt: skip
NO_SUCH_TEST = 4  # pytest's answer, also to a conftest that cannot be imported
UNNOTICED = ("survived", "not reached")
LONGEST = 600.0  # of a run of them; what never ends was noticed

#: Of all that could be put in a place, what a slip of the hand would put there.
OPERATORS = (
    *(f"ReplaceBinaryOperator_{one}" for one in ("Add_Sub", "Sub_Add", "Mul_FloorDiv", "Div_Mul", "FloorDiv_Mul")),
    *(f"ReplaceBinaryOperator_{one}" for one in ("Mod_Mul", "Pow_Mul", "BitOr_BitAnd", "BitAnd_BitOr")),
    *(f"ReplaceComparisonOperator_{one}" for one in ("Eq_NotEq", "NotEq_Eq", "Is_IsNot", "IsNot_Is")),
    *(f"ReplaceComparisonOperator_{one}" for one in ("Lt_LtE", "LtE_Lt", "Gt_GtE", "GtE_Gt", "Lt_GtE", "Gt_LtE")),
    *(f"ReplaceUnaryOperator_{one}" for one in ("Delete_USub", "Delete_Not")),
    *("AddNot", "ReplaceTrueWithFalse", "ReplaceFalseWithTrue", "ReplaceAndWithOr", "ReplaceOrWithAnd"),
    *("ReplaceBreakWithContinue", "ReplaceContinueWithBreak", "NumberReplacer", "ZeroIterationForLoop"),
)


@dataclass(frozen=True)
class Mutation:
    """One change of one place.

    Args:
        path: the file, from the root of the checkout.
        line: where it is, from 1.
        operator: what changes it.
        occurrence: which of the operator's places in the file.
        was: the line as it is.
        now: the line as it becomes.
    """

    path: str
    line: int
    operator: str
    occurrence: int
    was: str
    now: str


@dataclass(frozen=True)
class Reached:
    """Which tests reach which line.

    Args:
        tests: of each file and line, the tests as pytest names them.
        seconds: how long each takes.
    """

    tests: Mapping[str, Mapping[int, Sequence[str]]]
    seconds: Mapping[str, float]

    @cached_property
    def breadth(self) -> Mapping[str, int]:
        """Of each test how many lines it reaches."""
        return Counter(one for lines in self.tests.values() for tests in lines.values() for one in tests)

    def of(self, path: str, line: int) -> list[str]:
        """The tests that reach a line, those first that are quick and reach little else, or are called as its file is;
        all of its file's where none is, or of who calls it.
        """
        found = set(self.tests.get(path, {}).get(line, ())) or self._of_file(path)
        for caller in CALLED_BY.get(path, ()):
            found |= {one for one in self.seconds if one.startswith(caller)} or self._of_file(caller)
        words = words_of(path)

        def how_far(test: str) -> tuple[float, str]:
            near = _NEAR if words & words_of(test.split("::")[0]) else 1.0
            return self.seconds.get(test, 1.0) * self.breadth[test] * near, test

        return sorted(found, key=how_far)

    def with_more(self, other: Reached) -> Reached:
        """With what other tests reach, or these tests reach now."""
        tests = {path: dict(lines) for path, lines in self.tests.items()}
        for path, lines in other.tests.items():
            for line, found in lines.items():
                known = tests.setdefault(path, {})
                known[line] = sorted({*known.get(line, ()), *found})
        return Reached(tests, {**self.seconds, **other.seconds})

    def _of_file(self, path: str) -> set[str]:
        return {one for tests in self.tests.get(path, {}).values() for one in tests}


def words_of(path: str) -> set[str]:
    """Of the name of a file, without an s at their end."""
    return {word.removesuffix("s") for word in Path(path).stem.split("_")} - {"test", "and", "of", "in"}


def passed_over(tree: ast.Module) -> set[int]:
    """Lines that run for a checker of types only."""
    lines: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.If) and "TYPE_CHECKING" in ast.dump(node.test):
            lines |= set(range(node.lineno, (node.end_lineno or node.lineno) + 1))
    return lines


def within_options(tree: ast.Module) -> set[tuple[int, int]]:
    """Where options stand that work nothing out, as line and column."""
    return {
        (one.value.lineno, column)
        for node in ast.walk(tree)
        if isinstance(node, ast.Call)
        for one in node.keywords
        if one.arg in WORKS_NOTHING_OUT and one.value.end_col_offset is not None
        for column in range(one.value.col_offset, one.value.end_col_offset)
    }


def within_annotations(tree: ast.Module) -> set[tuple[int, int]]:
    """Where annotations stand, as line and column."""
    found: list[ast.expr] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef) and node.returns:
            found.append(node.returns)
        elif isinstance(node, ast.arg | ast.AnnAssign) and node.annotation:
            found.append(node.annotation)
    return {
        (one.lineno, column)
        for one in found
        if one.lineno == one.end_lineno
        for column in range(one.col_offset, one.end_col_offset or one.col_offset)
    }


Place = tuple[str, int, str, int]  # the file, the line, the operator, which of its places in the file


def places_of(path: Path) -> Iterator[Place]:
    """Where a file can be changed by a slip of the hand."""
    from cosmic_ray.ast import ast_nodes, get_ast  # type: ignore[import-not-found]
    from cosmic_ray.plugins import get_operator  # type: ignore[import-not-found]

    source = path.read_text()
    tree = ast.parse(source)
    skip, annotated = passed_over(tree), within_annotations(tree) | within_options(tree)
    nodes = list(ast_nodes(get_ast(source)))
    for name in OPERATORS:
        operator = get_operator(f"core/{name}")()
        places = [start for node in nodes for start, _ in operator.mutation_positions(node)]
        for occurrence, (line, column) in enumerate(places):
            if line not in skip and (line, column) not in annotated:
                yield str(path.relative_to(ROOT)), line, name, occurrence


def changed(path: Path, operator: str, occurrence: int) -> str | None:
    """A file with one place changed, or nothing where that leaves it as it is."""
    from cosmic_ray.mutating import mutate_code  # type: ignore[import-not-found]
    from cosmic_ray.plugins import get_operator

    source = path.read_text()
    found: str | None = mutate_code(source, get_operator(f"core/{operator}")(), occurrence)
    try:
        return None if found is None or ast.dump(ast.parse(found)) == ast.dump(ast.parse(source)) else found
    except SyntaxError:  # ** of keywords is no power
        return None


def sampled(size: int, seed: int) -> list[Mutation]:
    """So many lines, each changed in one way; a file counts by how many such lines it has. A line is drawn by its text,
    so that a change elsewhere leaves the sample as it is.
    """
    by_line: dict[tuple[str, str, int], list[Place]] = defaultdict(list)
    for room in MUTATED:
        for path in sorted((ROOT / "src/fardo" / room).rglob("*.py")):
            lines, alike = path.read_text().splitlines(), Counter[str]()
            nth = [(line.strip(), alike.update([line.strip()]) or alike[line.strip()]) for line in lines]
            for place in places_of(path):
                by_line[place[0], *nth[place[1] - 1]].append(place)
    drawn = {at: random.Random(f"{seed} {at}") for at in by_line}
    found: list[Mutation] = []
    for at in sorted(by_line, key=lambda at: drawn[at].random()):
        name, line, operator, occurrence = drawn[at].choice(by_line[at])
        becomes = changed(ROOT / name, operator, occurrence)
        if becomes is not None:
            was = (ROOT / name).read_text().splitlines()[line - 1].strip()
            found.append(Mutation(name, line, operator, occurrence, was, becomes.splitlines()[line - 1].strip()))
        if len(found) == size:
            break
    return found


def told_in(out: Path) -> dict[tuple[str, str, str, str], str]:
    """What earlier runs printed of each mutation: file, operator, the line as it was and as it became, and the result
    of the last.
    """
    lines = out.read_text().splitlines()
    found: dict[tuple[str, str, str, str], str] = {}
    for told, change in zip(lines[::2], lines[1::2], strict=False):
        result, place, operator = told.split("\t")
        _, was, now = change.split("\t")
        found[place.rpartition(":")[0], operator, was, now] = result
    return found


def copied(to: Path) -> Path:
    """A copy of the last commit with the built pages, beside what the tests read."""
    tree = to / "tree"
    subprocess.run(["git", "clone", "--quiet", str(ROOT), str(tree)], check=True)
    static = ROOT / "src/fardo/static"
    if static.exists():
        shutil.copytree(static, tree / "src/fardo/static")
    if (ROOT.parent / "shared").exists():
        (to / "shared").symlink_to(ROOT.parent / "shared")
    return tree


def environment_of(tree: Path) -> dict[str, str]:
    """What a process needs to run a copy."""
    paths = [str(tree / "src"), str(tree), *filter(None, [os.environ.get("PYTHONPATH", "")])]
    return {**os.environ, "PYTHONPATH": os.pathsep.join(paths), "PYTHONDONTWRITEBYTECODE": ""}


def run_tests(tree: Path, arguments: Sequence[str]) -> int | None:
    """Runs pytest in a copy; its answer, or nothing where it did not end.

    Raises:
        RuntimeError: where a test that is asked for is not there, so that nothing was tried.
    """
    said = tree.parent / "said.txt"
    run = FORKED.Process(target=_be_pytest, args=(tree, [*arguments], said))
    run.start()
    run.join(LONGEST)
    ended = run.exitcode
    with suppress(ProcessLookupError):
        os.killpg(run.pid or 0, signal.SIGKILL)  # with what it left running
    run.join()
    if ended == NO_SUCH_TEST and "not found: " in (words := said.read_text()):
        raise RuntimeError(words)
    return ended


def _be_pytest(tree: Path, arguments: list[str], said: Path) -> None:
    """In a process that has imported all but the project: pytest on a copy."""
    os.setsid()
    os.chdir(tree)
    os.environ.update(environment_of(tree))
    sys.path[:0] = [str(tree / "src"), str(tree)]
    sys.dont_write_bytecode = False
    with said.open("w") as told:
        os.dup2(told.fileno(), 1)
        os.dup2(told.fileno(), 2)
        import pytest

        os._exit(int(pytest.main(["-q", "-x", *OPTIONS, "--doctest-modules", *arguments])))


def asked_what_reaches(tests: Sequence[str]) -> Reached:
    """Runs tests once, and notes which reach which line.

    Args:
        tests: folders, files or tests; none in a browser.
    """
    from coverage import CoverageData  # type: ignore[import-not-found]

    with tempfile.TemporaryDirectory() as folder:
        tree = copied(Path(folder))
        data, times = tree / "reached.data", tree / "times.json"
        command = ["-m", "coverage", "run", "--source=src/fardo", f"--data-file={data}", "-m", "pytest", "-q"]
        rest = ["-m", "not long", *OPTIONS, "-p", "benchmarks.reached", "--doctest-modules", *tests]
        environment = {**environment_of(tree), "FARDO_TEST_TIMES": str(times)}
        # A test may fail where what runs in processes of its own runs inline; what it reaches counts all the same.
        answer = subprocess.run([sys.executable, *command, *rest], cwd=tree, env=environment).returncode
        if answer not in (0, 1):
            raise RuntimeError(f"the tests ended with {answer}")
        read = CoverageData(str(data))
        read.read()
        return reached_from(read, tree, json.loads(times.read_text()))


def reached_from(read: object, tree: Path, seconds: Mapping[str, float]) -> Reached:
    """What a run with its contexts noted says."""
    tests: dict[str, dict[int, list[str]]] = {}
    for file in read.measured_files():  # type: ignore[attr-defined]
        by_line = read.contexts_by_lineno(file)  # type: ignore[attr-defined]
        tests[str(Path(file).relative_to(tree))] = {
            line: sorted({one for one in contexts if one}) for line, contexts in by_line.items()
        }
    return Reached(tests, seconds)


def noticed(mutation: Mutation, tree: Path, reached: Reached, most_seconds: float) -> str:
    """Puts a mutation into a copy and runs what reaches it.

    Args:
        mutation: what is changed.
        tree: the copy.
        reached: which tests reach which line.
        most_seconds: of tests, as long as they take without a mutation.

    Returns:
        ``killed``, ``never ends``, ``not reached`` or ``survived``.
    """
    tests = reached.of(mutation.path, mutation.line)
    if not tests:
        return "not reached"
    path = tree / mutation.path
    source = path.read_text()
    try:
        path.write_text(changed(path, mutation.operator, mutation.occurrence) or source)
        others = [one for folder, readers in READERS.items() if mutation.path.startswith(folder) for one in readers]
        spent = sum(reached.seconds.get(test, 1.0) for test in tests[:FIRST])
        for test in tests[FIRST:]:
            spent += reached.seconds.get(test, 1.0)
            if spent > most_seconds:
                break
            others.append(test)
        for some in (tests[:FIRST], others):
            listed = tree / "tests.txt"
            listed.write_text("\n".join(some))
            answer = run_tests(tree, [f"@{listed}"]) if some else 0
            if answer != 0:
                return "killed" if answer is not None else "never ends"
        return "survived"
    finally:
        path.write_text(source)


def main() -> None:
    asks = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    asks.add_argument("--sample", type=int, default=300)
    asks.add_argument("--seed", type=int, default=1)
    asks.add_argument("--workers", type=int, default=2)
    asks.add_argument("--reached", type=Path, default=ROOT / "build/reached.json", help="which tests reach which line")
    asks.add_argument("--seconds", type=float, default=MOST_SECONDS, help="of tests at most, for one mutation")
    asks.add_argument("--out", type=Path, help="takes what is known of each mutation; one in it is not run again")
    asks.add_argument("--again", action="store_true", help="what nobody noticed in --out is tried once more")
    asks.add_argument("--written", nargs="*", default=[], help="tests written since: what they reach is asked first")
    asks.add_argument("--only", nargs="*", default=[], help="of the sample those in files whose path holds this")
    given = asks.parse_args()
    if given.reached.exists():
        kept = json.loads(given.reached.read_text())
        tests = {path: {int(line): found for line, found in lines.items()} for path, lines in kept["tests"].items()}
        reached = Reached(tests, kept["seconds"])
        if given.written:
            reached = reached.with_more(asked_what_reaches(given.written))
    else:
        reached = asked_what_reaches(TESTS)
    if given.written or not given.reached.exists():
        given.reached.parent.mkdir(parents=True, exist_ok=True)
        given.reached.write_text(json.dumps({"tests": reached.tests, "seconds": reached.seconds}))
    drawn = sampled(given.sample, given.seed)
    known = told_in(given.out) if given.out and given.out.exists() else {}
    waiting: queue.Queue[Mutation] = queue.Queue()
    results: dict[Mutation, str] = {}
    for mutation in drawn:
        told = known.get((mutation.path, mutation.operator, mutation.was, mutation.now))
        if told is not None and not (given.again and told in UNNOTICED):
            results[mutation] = told
        elif not given.only or any(one in mutation.path for one in given.only):
            waiting.put(mutation)
    out = given.out.open("a") if given.out else None

    def work() -> None:
        with tempfile.TemporaryDirectory() as folder:
            tree = copied(Path(folder))
            while True:
                try:
                    mutation = waiting.get_nowait()
                except queue.Empty:
                    return
                results[mutation] = noticed(mutation, tree, reached, given.seconds)
                if out:
                    print(results[mutation], f"{mutation.path}:{mutation.line}", mutation.operator, sep="\t", file=out)
                    print("", mutation.was, mutation.now, sep="\t", file=out, flush=True)

    workers = [threading.Thread(target=work) for _ in range(given.workers)]
    for worker in workers:
        worker.start()
    for worker in workers:
        worker.join()

    rooms = {room: Counter[str]() for room in MUTATED}
    for mutation, result in results.items():
        rooms[mutation.path.split("/")[2]][result] += 1
    total = sum(rooms.values(), Counter[str]())
    kinds = ("killed", "never ends", "survived", "not reached")
    rows = [(room, *(str(counts[kind]) for kind in kinds), share(counts)) for room, counts in rooms.items()]
    rows.append(("all", *(str(total[kind]) for kind in kinds), share(total)))
    show(f"Mutations noticed, seed {given.seed}", ("room", *kinds, "noticed"), rows)
    for mutation, result in sorted(results.items(), key=lambda one: (one[0].path, one[0].line)):
        if result in UNNOTICED:
            print(f"{result}  {mutation.path}:{mutation.line}  {mutation.operator}")
            print(f"    {mutation.was}\n    {mutation.now}")


def share(counts: Counter[str]) -> str:
    """How many of them were noticed, per cent."""
    return f"{100 * (counts['killed'] + counts['never ends']) / max(1, sum(counts.values())):.0f} %"


if __name__ == "__main__":
    main()
