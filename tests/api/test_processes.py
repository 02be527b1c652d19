"""Processes beside the shop's: their limits hold, and none of them outlives the shop, however that ends."""

from __future__ import annotations

import os
import signal
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest

from fardo.api.reading import FileReader
from fardo.core.refusal import BadInput, NoAnswer
from fardo.processes import Crew, CrewEnded, TookTooLong, WorkFailed
from tests.hostile import tetrahedron
from tests.made_up import job, part
from tests.served import Served


@pytest.fixture
def crew() -> Iterator[Crew]:
    crew = Crew(1)
    yield crew
    crew.close()


def test_work_that_takes_too_long_or_too_much_is_ended_and_the_next_is_done(crew: Crew) -> None:
    first = crew.run(os.getpid)
    with pytest.raises(TookTooLong):
        crew.run_within(0.2, time.sleep, 60)
    second = crew.run(os.getpid)
    assert second not in (first, os.getpid())
    reader = FileReader()
    try:
        with pytest.raises(BadInput, match="too much memory") as refused:
            reader.read("large.bin", bytearray, 6_000_000_000)
        assert refused.value.field == "file"
        assert reader.read("small.bin", len, b"four") == 4
    finally:
        reader.close()


def test_what_work_raises_comes_back_as_it_is(crew: Crew) -> None:
    with pytest.raises(BadInput, match="not a number") as refused:
        crew.run(refuse)
    assert (refused.value.field, refused.value.allowed) == ("size", "a number")
    with pytest.raises(NoAnswer, match="nothing there"):
        crew.run(no_answer)
    with pytest.raises(WorkFailed, match="ZeroDivisionError"):
        crew.run(divmod, 1, 0)
    os.kill(crew.run(os.getpid), signal.SIGKILL)
    assert crew.run(len, "four") == 4


def refuse() -> None:
    raise BadInput("not a number", read="x", allowed="a number", field="size")


def no_answer() -> None:
    raise NoAnswer("nothing there")


def test_a_closed_crew_ends_what_it_has_in_hand(crew: Crew) -> None:
    waiting = crew.submit(time.sleep, 600)
    crew.close()
    with pytest.raises(CrewEnded):
        waiting.result()
    with pytest.raises(CrewEnded):
        crew.run(len, "four")


def descendants(pid: int) -> set[int]:
    """The processes that a process has begun, and theirs."""
    listed = subprocess.run(["ps", "-eo", "pid=,ppid="], capture_output=True, text=True, check=True).stdout
    parents = {int(line.split()[0]): int(line.split()[1]) for line in listed.splitlines()}
    found = {pid}
    while more := {child for child, parent in parents.items() if parent in found} - found:
        found |= more
    return found - {pid}


def alive(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] != "Z"
    except OSError:
        return False


@pytest.mark.skipif(not Path("/proc/self/stat").exists(), reason="processes are looked up under /proc")
@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGKILL])
def test_no_process_outlives_its_server(shop_file: Path, how: signal.Signals) -> None:
    with Served(shop_file) as served:
        at_work(served.url)
        children = descendants(served.pid)
        assert len(children) >= 5
        os.kill(served.pid, how)
        served.wait()
        ended = time.monotonic()
        while any(alive(child) for child in children):
            assert time.monotonic() < ended + 20, "processes are left"


def at_work(url: str) -> None:
    """Puts a shop to work with every kind of process it has: a search, a file read, a map of prices."""
    shape = {"kind": "ring", "outer_diameter": "22 in", "inner_diameter": "18 in", "thickness": "2 in"}
    wheels = job(parts=[part(name=f"wheel {n}", shape=shape) for n in range(9)])
    begun = httpx.post(f"{url}/api/arrange", json={"job": wheels, "effort": "long"}, timeout=60)
    assert begun.status_code == 202
    assert httpx.post(f"{url}/api/files", files={"files": ("a.glb", tetrahedron(1))}, timeout=60).json()[0]["mesh"]
    steps = {"job": job(), "way": "tray", "carrier": "Oddbarrow", "service": "Ground", "programme": "account"}
    assert httpx.post(f"{url}/api/steps", json=steps, timeout=60).status_code == 200
    with httpx.stream("GET", f"{url}/api/arrange/{begun.json()['run']}/stream", timeout=60) as told:
        next(told.iter_lines())
