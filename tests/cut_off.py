"""Work that is cut off at one of its steps, as a kill would: every step in turn, until it comes to its end."""

from __future__ import annotations

import os
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

# What changes something outside the process, as the interpreter tells it (PEP 578).
_STEPS = ("open", "os.", "sqlite3.connect", "shutil.")
_CUT_OFF, _DONE, _FAILED = 9, 0, 1


def cut_off_at_every_step(folder: Path, begin: Callable[[], Callable[[], object]]) -> Iterator[int]:
    """Runs the work in processes that end at its first step, its second, and so on, without a last word.

    Args:
        folder: where its steps count.
        begin: makes everything ready for one run and gives the work.

    Yields:
        After each run that was cut off, the number of the step; ends once the work was done whole.
    """
    for step in range(1, 2000):
        work = begin()
        child = os.fork()
        if child == 0:
            _run(work, step, str(folder))
        _, status = os.waitpid(child, 0)
        code = os.waitstatus_to_exitcode(status)
        assert code != _FAILED, f"it failed at step {step}"
        if code == _DONE:
            assert step > 5, "there was hardly a step to cut it off at"
            return
        yield step
    raise AssertionError("it never came to an end")


def _run(work: Callable[[], object], step: int, folder: str) -> None:
    count = 0

    def hook(event: str, told: tuple[object, ...]) -> None:
        nonlocal count
        if event.startswith(_STEPS) and any(folder in str(one) for one in told):
            count += 1
            if count == step:
                os._exit(_CUT_OFF)

    code = _FAILED
    try:
        sys.addaudithook(hook)
        work()
        code = _DONE
    finally:
        os._exit(code)
