"""Files sent in: meshes, photographs and tables; a bad one is told in words, a good one beside it still comes in."""

from __future__ import annotations

import io
import json
import re
import zipfile
from typing import Any

import numpy as np
import pytest
import trimesh
from fastapi.testclient import TestClient
from PIL import Image
from pypdf import PdfReader

from fardo.api.uploads import LARGEST_FILE
from tests.made_up import job, part

WINDOWS_CSV = (
    'Part;Qty;Shape;Length (in);Width;Height;Weight\r\n'
    'Rähmchen “small”;2;box;10 1/2";8 1/2";1½;4 lb 6 oz\r\n'
    "beater;1;box;5' 3\";26,7 cm;2;1,2 kg\r\n"
).encode("cp1252")  # fmt: skip


def send(client: TestClient, *files: tuple[str, bytes]) -> list[dict[str, Any]]:
    answer = client.post("/api/files", files=[("files", file) for file in files])
    assert answer.status_code == 200, answer.text
    return answer.json()


def picture(width: int = 300, height: int = 200, kind: str = "PNG", **options: Any) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (width, height), (120, 90, 60)).save(out, kind, **options)
    return out.getvalue()


def horn(kind: str = "stl", *, holes: int = 0, height: float = 4) -> bytes:
    mesh = trimesh.creation.cylinder(radius=1, height=height, sections=24)
    if holes:
        mesh = trimesh.Trimesh(mesh.vertices, mesh.faces[:-holes])
    content = mesh.export(file_type=kind)
    return content.encode() if isinstance(content, str) else content


@pytest.mark.parametrize("kind", ["stl", "obj", "ply", "glb"])
def test_each_kind_of_mesh_comes_in_with_its_sizes_in_its_own_steps(client: TestClient, kind: str) -> None:
    (taken,) = send(client, (f"horn.{kind}", horn(kind)))
    assert taken["problem"] is None
    assert sorted(taken["steps"]) == pytest.approx([2, 2, 4], rel=1e-3)
    assert taken["triangles"] == 24 * 4
    shape = {"kind": "mesh", "file": taken["mesh"], "unit": "1 in"}
    told = client.post("/api/work-out", json={"job": job(parts=[part(shape=shape)])}).json()
    assert sorted(told["parts"][0]["bare"]["sides"]) == ["2", "2", "4"]
    look = client.post("/api/shape", json={"part": {"shape": shape}}).json()
    assert np.ptp(np.reshape(look["vertices_mm"], (-1, 3)), axis=0) == pytest.approx(
        [25.4 * s for s in taken["steps"]], rel=1e-4
    )


def test_a_mesh_wants_its_unit(client: TestClient) -> None:
    (taken,) = send(client, ("horn.stl", horn()))
    shape = {"kind": "mesh", "file": taken["mesh"]}
    told = client.post("/api/work-out", json={"job": job(parts=[part(shape=shape)])}).json()
    assert told["missing"] == ["unit of the mesh"]


def test_bad_files_are_told_in_words_and_a_good_one_beside_them_comes_in(client: TestClient) -> None:
    taken = send(
        client,
        ("open.stl", horn(holes=2)),
        ("huge.stl", bytes(LARGEST_FILE + 1)),
        ("face.jpg", b"MZ this is a program"),
        ("parts.csv", b"name,length,width,height\nreed,24,4 lb,1/2\n"),
        ("letter.docx", b"PK"),
        ("empty.png", b""),
        ("good.png", picture()),
        ("good.csv", WINDOWS_CSV),
    )
    problems = {one["called"]: one["problem"] for one in taken}
    assert "the mesh is not closed" in problems["open.stl"]
    assert "measure it as a box of" in problems["open.stl"]
    assert "too large" in problems["huge.stl"]
    assert "at most 25 MB each" in problems["huge.stl"]
    assert "not a picture, whatever its name says" in problems["face.jpg"]
    assert "row 2, width" in problems["parts.csv"]
    assert "a weight, where a length is wanted" in problems["parts.csv"]
    assert "not a kind of file that is taken" in problems["letter.docx"]
    assert "nothing in it" in problems["empty.png"]
    assert problems["good.png"] is None
    assert problems["good.csv"] is None
    assert client.get(f"/api/files/{taken[6]['photo']}").headers["content-type"] == "image/jpeg"
    assert all(one["photo"] is None and one["mesh"] is None and one["parts"] is None for one in taken[:6])


def test_a_mesh_of_300_mb_is_dropped_as_it_comes_and_the_next_file_comes_in(client: TestClient) -> None:
    """The body is made while it is sent; the server holds no more of it than its limit."""
    edge = "----edge"
    head = '--{}\r\nContent-Disposition: form-data; name="files"; filename="{}"\r\n\r\n'

    def body():
        yield head.format(edge, "scan.stl").encode()
        for _ in range(300):
            yield bytes(1_000_000)
        yield b"\r\n" + head.format(edge, "good.png").encode() + picture() + f"\r\n--{edge}--\r\n".encode()

    answer = client.post(
        "/api/files", content=body(), headers={"Content-Type": f"multipart/form-data; boundary={edge}"}
    )
    large, good = answer.json()
    assert "read 'scan.stl, 300 MB', too large" in large["problem"]
    assert good["photo"]


@pytest.mark.parametrize(
    ("name", "content", "says"),
    [
        ("a.stl", b"solid nothing\nendsolid", "not a mesh|no triangles|no surface"),
        ("a.stl", b"\x00" * 84, "not a mesh|no triangles|no surface"),
        ("a.stl", b"\x00" * 80 + (10**9).to_bytes(4, "little"), "not a mesh|no triangles|no surface"),
        ("a.obj", b"v 0 0 0\n" + b"f 1 1 1\n" * 400_001, "too many triangles"),
        ("a.ply", b"ply\nformat ascii 1.0\nelement face 900000000\nend_header\n", "too many triangles"),
        ("a.glb", b"glTF\x02\x00\x00\x00\xff\xff\xff\x7f", "not a mesh"),
        ("a.obj", b"mtllib /etc/passwd\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n", "not closed"),
        ("a.png", b"\x89PNG\r\n\x1a\n" + b"\x00" * 40, "not a picture"),
        ("a.webp", b"RIFF\x00\x00\x00\x00WEBPVP8 ", "not a picture"),
        ("a.csv", b"\xff\xfe\x00", "not text|no column|nothing in it"),
        ("a.csv", b"\x00\x01\x02", "not text"),
        ("a.csv", b"colour,smell\nred,tar\n", "no column of measures"),
        ("a.csv", b"\n\n", "nothing in it"),
        ("a.csv", b"length,width,height\n" + b"1,1,1\n" * 201, "too many rows"),
        ("a.csv", b"shape,length\nblob,1\n", "row 2, shape"),
        ("a.csv", b"shape,diameter,width\ndisc,1,2\n", "row 2, width"),
        ("a.csv", b"count,length\n0,1\n", "row 2, count"),
        ("a.csv", b"length,wrap\n1,moss x 2\n", "row 2, wrap"),
        ("a.csv", b"length,fragility\n1,quite\n", "row 2, fragility"),
        ("a.csv", b"name,length\nreed,NaN\n", "row 2, length"),
    ],
)  # fmt: skip
def test_a_broken_file_is_refused_in_words(client: TestClient, name: str, content: bytes, says: str) -> None:
    (taken,) = send(client, (name, content))
    assert re.search(says, taken["problem"]), taken["problem"]


def test_a_table_from_a_spreadsheet_on_windows_is_read_with_inches_in_its_cells(client: TestClient) -> None:
    (taken,) = send(client, ("parts.csv", WINDOWS_CSV))
    first = taken["parts"][0]
    assert first["name"] == "Rähmchen “small”"
    assert first["count"] == 2
    told = client.post("/api/work-out", json={"job": job(parts=taken["parts"])}).json()
    assert told["problems"] == []
    assert list(told["parts"][0]["bare"]["sides"]) == ["10 1/2", "8 1/2", "1 1/2"]
    assert told["parts"][1]["bare"]["mm"] == pytest.approx([63 * 25.4, 267, 50.8])


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
@pytest.mark.parametrize("sign", [",", ";", "\t"])
def test_tables_come_in_from_any_usual_encoding_and_separator(client: TestClient, encoding: str, sign: str) -> None:
    rows = [
        ["name", "diameter (cm)", "thickness", "shape", "wrap"],
        ["Töpfchen", "12.5", "2 in", "disc", "tissue + film x 2"],
    ]
    content = "\r\n".join(sign.join(row) for row in rows).encode(encoding)
    (taken,) = send(client, ("parts.csv", content))
    (found,) = taken["parts"]
    assert found["name"] == "Töpfchen"
    assert found["shape"] == {"kind": "disc", "diameter": "12.5 cm", "thickness": "2 in"}
    assert [(layer["material"], layer["layers"]) for layer in found["protect"]] == [("tissue", 1), ("film", 2)]


def test_parts_written_as_a_table_come_in_again_as_they_were(client: TestClient) -> None:
    parts = [
        part(name="=reed, long", protect=[{"material": "tissue"}, {"material": "bubble-small", "layers": 2}]),
        part(name="wheel", count=3, fragility="delicate", weight=450,
             shape={"kind": "ring", "outer_diameter": "22 in", "inner_diameter": "18 in", "thickness": 57.15}),
    ]  # fmt: skip
    key = client.post("/api/jobs", json=job(parts=parts)).json()["id"]
    table = client.get(f"/api/jobs/{key}/parts.csv")
    assert table.headers["content-type"].startswith("text/csv")
    assert "\n=reed" not in table.text
    (taken,) = send(client, ("parts.csv", table.content))
    work = [
        client.post("/api/work-out", json={"job": job(parts=some)}).json()["parts"] for some in (parts, taken["parts"])
    ]
    assert work[0] == work[1]


def test_a_photograph_is_turned_upright_and_says_nothing_of_where_it_was_taken(client: TestClient) -> None:
    exif = Image.Exif()
    exif[0x0112] = 6  # lies on its side
    exif[0x010F] = "made by nobody"
    (taken,) = send(client, ("side.jpg", picture(3000, 2000, "JPEG", exif=exif)))
    kept = Image.open(io.BytesIO(client.get(f"/api/files/{taken['photo']}").content))
    assert kept.size == (1333, 2000)
    assert dict(kept.getexif()) == {}


def test_a_picture_of_too_many_pixels_is_refused_before_it_is_unpacked(client: TestClient) -> None:
    (taken,) = send(client, ("wide.png", picture(8000, 8000)))
    assert "too many pixels" in taken["problem"]
    assert "at most 24 million" in taken["problem"]


@pytest.mark.parametrize(
    ("body", "kind"),
    [
        (b"", "multipart/form-data; boundary=x"),
        (b"--x\r\n", "multipart/form-data; boundary=x"),
        (b"{}", "application/json"),
        (b"--x\r\n" + b"a" * 9000, "multipart/form-data; boundary=x"),
        (b"x", "multipart/form-data"),
    ],
)
def test_a_body_that_holds_no_files_is_refused_in_words(client: TestClient, body: bytes, kind: str) -> None:
    answer = client.post("/api/files", content=body, headers={"Content-Type": kind})
    assert answer.status_code == 422
    assert answer.json()["field"] == "files"


def test_a_job_goes_out_with_its_files_and_comes_in_again(client: TestClient) -> None:
    mesh, photo = send(client, ("horn.stl", horn()), ("front.png", picture()))
    horned = {"kind": "mesh", "file": mesh["mesh"], "unit": "1 in"}
    foot = {"shape": {"kind": "box", "length": "4 in", "width": "4 in", "height": "1 in"}, "at": ["0", "0", "0"]}
    (own,) = send(client, ("stand.stl", horn(height=2)))
    several = {"kind": "compound", "of": [foot, {"shape": {**horned, "file": own["mesh"]}, "at": ["0", "0", "1 in"]}]}
    parts = [part(shape=horned, photos=[photo["photo"]]), part(name="on its stand", shape=several)]
    key = client.post("/api/jobs", json=job(parts=parts)).json()["id"]
    sent = client.get(f"/api/jobs/{key}/file")
    assert sent.headers["content-type"] == "application/zip"
    with zipfile.ZipFile(io.BytesIO(sent.content)) as bundle:
        assert set(bundle.namelist()) == {"job.json", mesh["mesh"], own["mesh"], photo["photo"]}
        assert json.loads(bundle.read("job.json"))["format"] == "fardo-job/1"
    again = client.post("/api/jobs/bundle", content=sent.content)
    assert again.status_code == 201, again.text
    assert again.json()["job"]["parts"][0]["shape"]["file"] == mesh["mesh"]
    assert again.json()["job"]["parts"][1]["shape"]["of"][1]["shape"]["file"] == own["mesh"]
    shown = client.get(f"/api/files/{again.json()['job']['parts'][0]['photos'][0]}")
    assert shown.status_code == 200


def _zip(**files: bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        for name, content in files.items():
            bundle.writestr(name.replace("__", "."), content)
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"PK\x03\x04 cut off", "not a ZIP"),
        (_zip(readme__txt=b"hello"), "no job in it"),
        (_zip(job__json=b"{"), "not JSON"),
        (_zip(job__json=b"{}", more=bytes(130_000_000)), "too large when unpacked"),
    ],
    ids=["cut off", "no job", "no JSON", "a bomb"],
)
def test_a_broken_bundle_is_refused_and_nothing_is_kept(client: TestClient, content: bytes, says: str) -> None:
    before = client.get("/api/jobs").json()
    answer = client.post("/api/jobs/bundle", content=content)
    assert answer.status_code == 422
    assert says in answer.json()["detail"]
    assert client.get("/api/jobs").json() == before


def test_papers_of_a_job_taken_apart(client: TestClient) -> None:
    """Read back by a general-purpose PDF library."""
    begun = client.post("/api/jobs/begin", json={"kind": "spinning-wheel", "title": "Wheel & <flyer>"}).json()
    url = f"/api/jobs/{begun['id']}"

    def words(paper: str) -> str:
        answer = client.get(f"{url}/{paper}")
        assert answer.status_code == 200, answer.text
        return " ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)

    labels = words("bag-labels.pdf")
    assert "Bag 1 of 4" in labels
    assert "Bag 4 of 4" in labels
    assert "goes to: drive wheel" in labels
    assert labels.count("Wheel & <flyer>") >= 4
    # What comes off the thing itself goes back to it.
    assert "goes to: Wheel & <flyer>" in labels
    assert "goes to: Slip" not in labels
    sheet = words("put-together.pdf")
    steps = [sheet.index(said) for said in ("Legs into their numbers", "Treadle in", "Flyer into the leathers")]
    assert steps == sorted(steps)
    assert "3 x leg" in sheet
    assert "bag 3: pegs and hub nuts" in " ".join(sheet.split())
    assert client.get(f"{url}/corner-guards.pdf").json()["detail"] == "No part has corner guards."
    plain = client.post("/api/jobs", json=job()).json()["id"]
    assert client.get(f"/api/jobs/{plain}/bag-labels.pdf").status_code == 422


def test_corner_guards_print_with_their_lines(client: TestClient) -> None:
    slab = part(shape={"kind": "box", "length": "20 in", "width": "16 in", "height": "1 3/8 in"},
                protect=[{"material": "corners"}])  # fmt: skip
    key = client.post("/api/jobs", json=job(parts=[slab])).json()["id"]
    content = client.get(f"/api/jobs/{key}/corner-guards.pdf").content
    words = PdfReader(io.BytesIO(content)).pages[0].extract_text()
    # 1 3/8 and the guard's own board, 1/8: lines at 1 1/2 and 3, from a square of 7.
    assert words.count("1 1/2") >= 4
    assert "7" in words


def test_inner_boxes_print_with_how_they_are_cut_and_put_together(client: TestClient) -> None:
    horn = {"kind": "box", "length": "10 in", "width": "8 in", "height": "6 in"}
    boxed = part(name="horn", count=2, shape=horn, protect=[{"material": "inner-box", "room": "1 in"}])
    key = client.post("/api/jobs", json=job(parts=[boxed])).json()["id"]
    told = client.post("/api/work-out", json={"job": job(parts=[boxed])}).json()
    assert [one["inner_boxes"] for one in told["parts"]] == [True]
    content = client.get(f"/api/jobs/{key}/inner-boxes.pdf").content
    words = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(content)).pages)
    # By hand: 10, 8 and 6 with an inch on every side.
    assert "For horn, 2 of them: C flute, single wall, inside 12 x 10 x 8 in" in words
    assert words.index("printed face down") < words.index("length of the case") < words.index("Close the flaps")
    bare = client.post("/api/jobs", json=job()).json()["id"]
    none = client.get(f"/api/jobs/{bare}/inner-boxes.pdf").json()["detail"]
    assert none == "No part has a box of its own that is cut for it."


def test_kinds_are_listed_copied_changed_archived_and_restored(client: TestClient) -> None:
    rows = client.get("/api/kinds").json()
    assert len(rows) >= 29
    assert not any(row["own"] for row in rows)
    view = client.get("/api/kinds/table-loom").json()
    changed = {**view["kind"], "title": "Table loom, ours"}
    kept = client.put("/api/kinds", json={"revision": 0, "kind": changed})
    assert kept.json()["revision"] == 1
    assert client.put("/api/kinds", json={"revision": 0, "kind": changed}).status_code == 409
    assert client.get("/api/kinds/table-loom").json()["kind"]["title"] == "Table loom, ours"
    assert client.delete("/api/kinds/table-loom").status_code == 204
    assert client.get("/api/kinds/table-loom").json()["kind"]["title"] == "Table loom"
    assert client.delete("/api/kinds/table-loom").status_code == 404
    assert client.post("/api/kinds/table-loom/restore").json()["kind"]["title"] == "Table loom, ours"
    broken = {**changed, "questions": ["weather"]}
    answer = client.put("/api/kinds", json={"revision": 1, "kind": broken})
    assert answer.status_code == 422
    assert answer.json()["field"] == "kind.questions[0]"


def test_a_job_is_begun_from_a_kind_and_kept_as_one(client: TestClient) -> None:
    begun = client.post("/api/jobs/begin", json={"kind": "concertina", "title": "Concertina, 48 keys"}).json()
    assert begun["job"]["title"] == "Concertina, 48 keys"
    assert begun["job"]["questions"] == ["origin"]
    kept = client.post(f"/api/jobs/{begun['id']}/kind", json={"title": "Our 48s"})
    assert kept.status_code == 201
    assert client.get("/api/kinds/our-48s").json()["kind"]["parts"][0]["name"] == "concertina in its case"
    assert client.post("/api/jobs/begin", json={"kind": "nothing-such"}).status_code == 404


def test_a_step_taken_changes_the_job_as_typed_and_saves_nothing(client: TestClient) -> None:
    begun = client.post("/api/jobs/begin", json={"kind": "table-loom"}).json()
    asked = {"job": begun["job"], "step": "levers", "take": True}
    taken = client.post("/api/take-apart", json=asked).json()
    assert [one["name"] for one in taken["parts"]] == ["table loom", "reed", "castle"]
    assert taken["parts"][0]["shape"]["height"] == "6 in"
    assert client.get(f"/api/jobs/{begun['id']}").json()["job"] == begun["job"]
    roof = client.post("/api/take-apart", json={**asked, "step": "roof"}).json()
    assert roof["field"] == "step"
    assert roof["allowed"] == "shafts, reed, fold, levers"
    bare = client.post("/api/take-apart", json={"job": job(), "step": "roof", "take": True}).json()
    assert bare["allowed"] == "none; this job has no steps"


def test_answers_caution_in_place_and_limit_who_takes_it(client: TestClient) -> None:
    def work(**answers: str) -> dict[str, Any]:
        asked = job(questions=["battery"], answers=answers)
        return client.post("/api/work-out", json={"job": asked}).json()

    waiting = work()
    assert waiting["docket"]["missing"] == ["answer: battery"]
    assert waiting["next_move"] == "Answer about battery"
    alone = work(battery="alone")
    assert "49 CFR 173.185" in alone["hazards"][0]["caution"]
    assert any("does not take a lithium battery sent alone" in no["why"] for no in alone["ways"][0]["refused"])
    damaged = work(battery="damaged")
    assert damaged["hazards"][0]["never"] is True
    assert damaged["docket"]["stop"]
    assert damaged["docket"]["total"] is None
    assert all(way["quotes"] == [] for way in damaged["ways"])
