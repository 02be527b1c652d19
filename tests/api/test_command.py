"""The command: its JSON answers, exit codes and files."""

from __future__ import annotations

import io
import json
import subprocess
import sys
from collections import Counter
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from importlib.resources import files
from pathlib import Path
from types import SimpleNamespace

import pytest
import trimesh

from fardo.cli import main
from fardo.command import machine
from fardo.command.machine import lacking
from fardo.store.database import Database
from fardo.store.jobs import Jobs
from tests.made_up import EXAMPLES, box, job, part


@dataclass
class Done:
    stdout: str
    stderr: str


def fardo(*args: str, code: int = 0) -> Done:
    """The command, run in this process as the installed one runs it."""
    out, err = io.StringIO(), io.StringIO()
    with redirect_stdout(out), redirect_stderr(err), pytest.raises(SystemExit) as ended:
        main(list(args))
    assert (ended.value.code or 0) == code, out.getvalue() + err.getvalue()
    return Done(out.getvalue(), err.getvalue())


def answer(*args: str) -> dict:
    return json.loads(fardo(*args, "--json").stdout)


@pytest.fixture
def job_file(tmp_path: Path) -> Path:
    path = tmp_path / "concertina.job.json"
    path.write_text(json.dumps(job()))
    return path


def test_plan_answers_ranked_plans_that_add_up(job_file: Path) -> None:
    plans = answer("plan", str(job_file))["plans"]
    totals = [float(plan["total"]) for plan in plans]
    assert totals == sorted(totals)
    assert {plan["parcels"][0]["way"] for plan in plans} == {"tray", "slotted"}
    for plan in plans:
        assert round(sum(map(float, plan["costs"].values())), 2) == float(plan["total"])
        parcel = plan["parcels"][0]
        assert all(out > inner for out, inner in zip(parcel["outside_mm"], parcel["inside_mm"], strict=True))
        assert parcel["billed_weight_g"] >= parcel["weight_g"]
        at = parcel["placements"][0]["at_mm"]
        assert all(corner >= 50.8 for corner in at)


def test_the_same_file_seed_and_effort_give_the_same_plans(job_file: Path) -> None:
    first, second = (answer("plan", str(job_file), "--seed", "3", "--effort", "quick")["plans"] for _ in range(2))
    assert first == second


def test_blank_answers_sizes_and_lines_in_millimetres() -> None:
    made = answer(
        "blank", "--way", "tray", "--inside", "10.5x8.5x1.5in", "--board", "B", "--school", "thumb", "--thumb", "1/2in"
    )
    lid = next(blank for blank in made["blanks"] if blank["name"] == "lid")
    assert lid["size_mm"] == [355.6, 304.8]
    second = {tuple(line["from_mm"]) for line in lid["lines"] if line["kind"] == "second-score"}
    assert (41.275, 38.1) in second  # 1 5/8 in from the left edge
    case = answer("blank", "--way", "slotted", "--inside", "18x12x10in", "--board", "C")
    more = [out - inner for out, inner in zip(case["outside_mm"], case["inside_mm"], strict=True)]
    assert more == pytest.approx([7.9375, 7.9375, 15.875])
    assert {line["kind"] for line in case["blanks"][0]["lines"]} == {"cut", "score", "slot"}


def test_blank_writes_every_kind_of_drawing(tmp_path: Path) -> None:
    paths = [tmp_path / f"tray.{ending}" for ending in ("svg", "dxf", "pdf")]
    options = [text for path in paths for text in (f"--{path.suffix[1:]}", str(path))]
    said = fardo("blank", "--way", "tray", "--inside", "25 x 18 x 4 in", *options).stdout
    assert "score, inner face" in said
    assert (tmp_path / "tray-lid.svg").read_text().startswith("<svg")
    assert "SECTION" in paths[1].read_text()
    assert paths[2].read_bytes().startswith(b"%PDF")


def test_price_answers_quotes_and_refusals() -> None:
    told = answer("price", "--size", "24x12x8in", "--weight", "9lb", "--from", "10440", "--to", "73120")
    amounts = [float(quote["amount"]) for quote in told["quotes"]]
    assert amounts == sorted(amounts)
    assert {"Wendlefirth Post", "Oddbarrow"} <= {quote["carrier"] for quote in told["quotes"]}
    for quote in told["quotes"]:
        charges = sum(float(charge["amount"]) for charge in quote["charges"])
        assert charges == pytest.approx(float(quote["amount"]))
    first = next(quote for quote in told["quotes"] if quote["carrier"] == "Wendlefirth Post")
    assert first["billed_weight_g"] == pytest.approx(14 * 453.59237)
    assert first["actual_weight_g"] == pytest.approx(9 * 453.59237)
    assert first["dimensional_weight_g"] == pytest.approx(2304 / 166 * 453.59237)
    assert sum(float(charge["amount"]) for charge in first["charges"]) == pytest.approx(float(first["amount"]))
    isles = answer("price", "--size", "24x12x8in", "--weight", "9lb", "--from", "10440", "--to", "91000")
    assert {no["carrier"] for no in isles["refused"] if "does not go" in no["why"]} >= {"Oddbarrow"}


def test_a_soft_pack_is_priced_by_its_flat_size() -> None:
    """18 + 13 is 31 in, a tier's end; an inch more, or a side over 18, and the service takes it not."""
    asked = ("price", "--size", "12x6x6in", "--weight", "4.4lb", "--from", "10440", "--to", "73120", "--form", "soft")

    def soft(*flat: str) -> list[str]:
        return [quote["service"] for quote in answer(*asked, *flat)["quotes"] if quote["service"] == "Soft Pack"]

    assert soft("--flat", "13x18in") == soft() == ["Soft Pack"]
    assert soft("--flat", "18 1/16 x 12 in") == []


@pytest.mark.parametrize(
    ("args", "says"),
    [
        (
            ["price", "--size", "9x9x9", "--weight", "9lb", "--from", "10440", "--to", "73120", "--flat", "9x9"],
            "flat: read '9x9'",
        ),
        (["price", "--size", "24x12", "--weight", "9lb", "--from", "10440", "--to", "73120"], "size: read '24x12'"),
        (["price", "--size", "24x12x8", "--weight", "nine", "--from", "10440", "--to", "73120"], "weight: read 'nine'"),
        (["price", "--size", "24x12x8", "--weight", "9", "--from", "?", "--to", "73120"], "from: read '?'"),
        (["blank", "--way", "bag", "--inside", "10x8x1in"], "way: read 'bag'"),
        (["blank", "--way", "tray", "--inside", "0x8x1in"], "nothing at all"),
        (["blank", "--way", "tray", "--inside", "10x8x1in", "--board", "Z"], "board: read 'Z'"),
        (["blank", "--way", "tray", "--inside", "10x8x1in", "--school", "luck"], "school: read 'luck'"),
        (["plan", "/nothing.json"], "job file: read '/nothing.json'"),
        (
            ["price", "--size", "1x1x1", "--weight", "1", "--from", "10440", "--to", "73120", "--tariffs", "/nothing"],
            "tariffs",
        ),
        (["check", "--db", "/nothing.db"], "/nothing.db is not there"),
    ],
)
def test_bad_input_is_exit_2_with_one_sentence(args: list[str], says: str) -> None:
    done = fardo(*args, code=2)
    assert says in done.stderr
    assert done.stderr.count("\n") == 1
    assert done.stdout == ""


@pytest.mark.parametrize(
    ("content", "code", "says"),
    [
        ("{", 2, "not JSON"),
        (json.dumps(job(parts=[part(weight="NaN")])), 2, "parts[0].weight: read 'NaN', not a number"),
        (json.dumps(job(parts=[part(shape=box(length=None))])), 2, "length"),
        (json.dumps(job(ship={})), 2, "ship.to"),
        (json.dumps(job(ways=[])), 1, "allows no box style"),
        (json.dumps(job(ways=["carrier"])), 1, "Carrier's own container: there is none"),
        (
            json.dumps(job(parts=[part(count=300)])),
            1,
            "300 things; up to 80 go in one parcel: divide it into 4",
        ),
        (json.dumps(job(parts=[part(shape={"kind": "ring", "outer_diameter": "22 in"})])), 2, "inside diameter"),
        (json.dumps(job(parts=[part(weight="2201 lb")])), 1, "weighs 220"),
    ],
)
def test_a_job_that_cannot_be_planned_says_why(tmp_path: Path, content: str, code: int, says: str) -> None:
    path = tmp_path / "bad.job.json"
    path.write_text(content)
    assert says in fardo("plan", str(path), code=code).stderr


def test_the_installed_command_answers_with_the_same_codes() -> None:
    command = Path(sys.executable).with_name("fardo")
    good = subprocess.run([command, "blank", "--way", "tray", "--inside", "10x8x2in", "--json"], capture_output=True)
    assert good.returncode == 0
    assert json.loads(good.stdout)["blanks"]
    bad = subprocess.run([command, "blank", "--way", "tray", "--inside", "10x8in"], capture_output=True, text=True)
    assert bad.returncode == 2
    assert bad.stderr.startswith("fardo: inside: read '10x8in', 2 sides where three are needed. Allowed: ")


def test_the_examples_are_planned_with_every_part_in_its_place() -> None:
    assert EXAMPLES
    for path in EXAMPLES:
        wanted = {part["name"]: part["count"] for part in json.loads(path.read_text("utf-8"))["parts"]}
        for plan in json.loads(fardo("plan", str(path), "--effort", "quick", "--json").stdout)["plans"]:
            lying = Counter(placed["part"] for parcel in plan["parcels"] for placed in parcel["placements"])
            assert lying == wanted
            assert float(plan["costs"]["wrap"]) > 0


def test_a_job_file_finds_its_mesh_in_its_own_folder(tmp_path: Path) -> None:
    trimesh.creation.box((4, 3, 2)).export(tmp_path / "horn.stl")
    content = job(parts=[part(shape={"kind": "mesh", "file": "horn.stl", "unit": "1 in"})])
    (tmp_path / "horn.job.json").write_text(json.dumps(content))
    plan = json.loads(fardo("plan", str(tmp_path / "horn.job.json"), "--json").stdout)["plans"][0]
    assert plan["parcels"][0]["placements"][0]["part"] == "concertina in its case"
    content["parts"][0]["shape"]["file"] = "../../etc/hosts.stl"
    (tmp_path / "horn.job.json").write_text(json.dumps(content))
    assert "No such file" in fardo("plan", str(tmp_path / "horn.job.json"), code=2).stderr


def test_backup_restore_and_check(shop_file: Path, tmp_path: Path) -> None:
    copy = tmp_path / "backup.db"
    assert "checked" in fardo("backup", str(copy), "--db", str(shop_file)).stdout
    database = Database(shop_file)
    first = Jobs(database).page().jobs[0]
    Jobs(database).archive(first.id)
    database.close()
    assert "8 jobs, 15 services" in fardo("check", "--db", str(shop_file)).stdout
    assert "What it was before is in" in fardo("restore", str(copy), "--db", str(shop_file)).stdout
    database = Database(shop_file)
    assert Jobs(database).get(first.id).archived_at is None
    database.close()
    kept = next(tmp_path.glob("shop.db.before-restore-*"))
    older = Database(kept)
    assert Jobs(older).get(first.id).archived_at is not None
    older.close()
    fardo("restore", str(tmp_path / "nothing"), "--db", str(shop_file), code=2)


def test_a_used_box_is_made_over_from_the_shell() -> None:
    told = answer("recut", "--box", "18.5x12x21in", "--inside", "24x6.5x21in")
    assert told["possible"] is True
    assert told["results"][0]["inside_mm"] == [609.6, 165.1, 533.4]
    assert told["results"][0]["flaps_meet"] is True
    assert told["results"][0]["after_folds_mm"] == [609.6, 158.75, 533.4]
    assert any("a hair over 3 5/16 in from either fold" in step for step in told["results"][0]["steps"])
    words = fardo("recut", "--box", "18.5x12x21in", "--inside", "24x6.25x21in", "--folds", "bench").stdout
    assert "24 x 6 1/2 x 21 in by the tape, 24 x 6 1/4 x 21 in after the folds" in words
    assert "1. Take the box" in words


def test_one_that_cannot_be_says_why_and_ends_with_1() -> None:
    done = fardo("recut", "--box", "10x10x10in", "--inside", "24x6.5x21in", "--json", code=1)
    told = json.loads(done.stdout)
    assert told["possible"] is False
    assert told["results"] == []
    assert "too" in told["why"]
    assert told["why"] in done.stderr
    assert "field" not in fardo("recut", "--box", "10x10", "--inside", "24x6.5x21in", code=2).stdout


def test_a_stack_is_worked_out_from_the_shell() -> None:
    told = answer("stack", "--box", "14x14x12in", "--goods", "13x13x35in")
    assert told["boxes"] == 3
    assert told["inside_height_mm"] == [pytest.approx(36 * 25.4), pytest.approx(46 * 25.4)]
    assert len(told["steps"]) > 4
    assert fardo("stack", "--box", "14x14x12in", "--goods", "13x13x29in").stdout.startswith("2 boxes, from 24 in to 29")
    assert "thicker" in fardo("stack", "--box", "10x10x12in", "--goods", "13x13x29in", code=1).stderr


def test_several_parcels_are_priced_together_and_other_ways_stand_apart() -> None:
    sent = ["--size", "24x12x8in", "--weight", "9lb", "--size", "10x10x10in", "--weight", "5lb"]
    told = answer("price", *sent, "--from", "10440", "--to", "73120", "--distance", "40mi")
    for quote in (*told["quotes"], *told["others"]):
        assert sum(Decimal(charge["amount"]) for charge in quote["charges"]) == Decimal(quote["amount"])
        assert len(quote["beside_billed_weight_g"]) == 1
    assert {quote["carrier"] for quote in told["others"]} >= {"Passenger's luggage", "The workshop's own van"}
    assert not {quote["carrier"] for quote in told["others"]} & {quote["carrier"] for quote in told["quotes"]}
    wrong = fardo("price", *sent, "--size", "9x9x9in", "--from", "10440", "--to", "73120", code=2)
    assert "one for each size" in wrong.stderr


def test_a_plan_with_parcels_beside_it_adds_up(tmp_path: Path) -> None:
    beside = [{"name": "stand", "size": "20 x 14 x 9 in", "weight": "21 lb"}]
    file = tmp_path / "both.job.json"
    file.write_text(json.dumps(job(beside=beside, ways=["tray"])))
    for plan in answer("plan", str(file))["plans"]:
        (parcel,) = plan["parcels"]
        assert len(parcel["beside_billed_weight_g"]) == 1
        asked = sum(Decimal(charge["amount"]) for charge in parcel["charges"])
        assert asked == sum(Decimal(plan["costs"][name]) for name in ("postage", "surcharges", "cover"))
        assert {1, 2} & {charge.get("parcel") for charge in parcel["charges"]} or plan["label"].endswith("Pallet line")


def test_what_a_machine_lacks_is_said_with_what_to_do(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    shop, today = tmp_path / "shop.db", date(2026, 12, 1)
    built = Path(str(files("fardo").joinpath("static", "index.html"))).is_file()
    before = list(lacking(shop, today))
    assert before == ([] if built else ["The screens are not built: run make setup, or install the wheel."])
    monkeypatch.setattr(machine.shutil, "disk_usage", lambda _: SimpleNamespace(free=120_000_000))
    assert list(lacking(shop, today))[-1] == (
        f"Only 120 MB are free in {tmp_path}: a copy is made each day the shop is served."
    )
    monkeypatch.setattr(machine.os, "access", lambda *_: False)
    said = list(lacking(shop, date(1970, 1, 1)))[-3:]
    assert said[0] == f"{tmp_path} cannot be written to by this user: nothing can be saved there."
    assert said[1].startswith("Compiled loops can be kept nowhere")
    assert said[2].startswith("The clock of this machine says 1970-01-01")
