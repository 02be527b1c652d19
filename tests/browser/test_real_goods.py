"""Real goods at the bench: a kit measured by keyboard, taken apart, asked about, wrapped, with files and a tape."""

from __future__ import annotations

import io
from pathlib import Path

import httpx
import pytest
import trimesh
from PIL import Image
from selenium.webdriver.common.keys import Keys

from fardo.standins.instrument import MODELS, send
from tests.browser.driver import Page, emulate
from tests.made_up import job, part

# Eight parts of a made-up loom: name, count, first letters of the shape, measures, weight.
KIT = [
    ("castle", "1", "box", ("24", "9 1/2", "5"), "4 lb"),
    ("shaft", "4", "box", ("24", "8", "3/4"), "1 lb 2 oz"),
    ("cloth beam", "1", "cyl", ("2 1/2", "26"), "3 lb"),
    ("ratchet wheel", "2", "disc", ("5", "1/2"), "9 oz"),
    ("brake ring", "1", "ring", ("7", "5", "1"), "14 oz"),
    ("leg", "4", "tap", ("2", "1 1/4", "18"), "1 lb"),
    ("reed", "1", "box", ("24", "4 1/2", "1/2"), "1 lb 8 oz"),
    ("shuttle", "3", "rou", ("12", "1 3/4", "1"), "4 oz"),
]


# A turn draws; what was drawn is read before the frame ends, as it is thrown away then.
_COLOURS_DRAWN = """
const table = document.querySelector('.turntable');
const canvas = table.querySelector('canvas');
const flat = document.createElement('canvas');
Object.assign(flat, {width: canvas.width, height: canvas.height});
const pen = flat.getContext('2d');
table.dispatchEvent(new KeyboardEvent('keydown', {key: 'ArrowLeft', bubbles: true}));
pen.drawImage(canvas, 0, 0);
return new Set(new Uint32Array(pen.getImageData(0, 0, flat.width, flat.height).data.buffer)).size;
"""
_TEN_FRAMES = """
const done = arguments[0];
let frames = 0;
const frame = () => ((frames += 1) > 10 ? done() : requestAnimationFrame(frame));
requestAnimationFrame(frame);
"""


def begin(page: Page, kind: str | None, title: str = "") -> str:
    """Starts a job from a kind of goods; its address."""
    body = {"kind": kind, "title": title}
    view = httpx.post(f"{page.url}/api/jobs/begin", json=body).json()
    return f"/jobs/{view['id']}"


def parts_of(page: Page, address: str) -> list[dict]:
    return page.api(f"/api{address}")["job"]["parts"]


def test_an_eight_part_kit_is_entered_by_keyboard_alone(page: Page) -> None:
    """Not one click: the mouse is told on if it moves."""
    page.open("/", ".bench li")
    page.driver.execute_script(
        "window.clicks = 0; addEventListener('pointerdown', () => (window.clicks += 1), {capture: true})"
    )
    page.press("/")
    page.until(lambda: page.focus == "bench-line")
    page.press("Loom in eight parts", Keys.ENTER)
    page.until(lambda: page.focus == "part-0-name")
    for n, (name, count, shape, measures, weight) in enumerate(KIT):
        page.until(lambda n=n: page.focus == f"part-{n}-name")
        page.press(name, Keys.ENTER)
        page.press(Keys.CONTROL, "a")
        page.press(count, Keys.ENTER)
        assert page.focus == f"part-{n}-shape"
        if shape != "box":  # a list is chosen from by its first letters
            page.press(shape)
        page.press(Keys.ENTER)
        for measure in measures:
            page.press(measure, Keys.ENTER)
        assert page.focus == f"part-{n}-weight"
        page.press(weight, Keys.ENTER)
    # An empty name says that there are no more; the extras come next.
    page.until(lambda: page.focus == f"part-{len(KIT)}-name")
    page.press(Keys.ENTER)
    page.until(lambda: page.focus == "add-extra")
    page.press("d")
    page.until(lambda: page.focus == "to")
    page.press("73120")
    page.shows("aside .total", "Total cost")
    page.saved()
    kept = parts_of(page, page.driver.current_url.removeprefix(page.url).removesuffix("/measure"))
    assert [(one["name"], str(one["count"])) for one in kept] == [(name, count) for name, count, *_ in KIT]
    kinds = [one["shape"]["kind"] for one in kept]
    assert kinds == ["box", "box", "cylinder", "disc", "ring", "taper", "box", "ellipsoid"]
    assert kept[4]["shape"] == {
        "kind": "ring", "outer_diameter": "7 in", "inner_diameter": "5 in", "thickness": "1 in",
    }  # fmt: skip
    assert page.driver.execute_script("return window.clicks") == 0


def test_up_and_down_keep_to_the_column_and_a_row_comes_back_by_undo(page: Page) -> None:
    key = httpx.post(f"{page.url}/api/jobs", json=job(parts=[part(name=name) for name in "abc"])).json()["id"]
    page.open(f"/jobs/{key}/measure", "#part-2-weight")
    page.one("#part-0-width").click()
    page.press(Keys.ARROW_DOWN)
    assert page.focus == "part-1-width"
    page.press(Keys.ARROW_DOWN, Keys.ARROW_DOWN, Keys.ARROW_UP)
    assert page.focus == "part-1-width"
    page.one("button[aria-label='Remove b']").click()
    page.until(lambda: len(page.all(".parts .row.chosen, .parts .row:not(.heads)")) == 2)
    page.button("Undo").click()
    page.until(lambda: page.one("#part-1-name").get_attribute("value") == "b")
    page.saved()


def test_the_part_in_hand_turns_beside_its_row_with_its_dimension_lines(page: Page) -> None:
    address = begin(page, "spinning-wheel")
    page.open(f"{address}/measure", ".views")
    page.all(".views button")[1].click()
    page.one("#part-2-name").click()
    page.shows(".side h2", "drive wheel")
    page.until(lambda: len(page.all(".turntable .word")) == 3)
    page.shows(".turntable", "22 in")
    page.shows(".turntable", "18 in")
    # The picture is not empty: its pixels differ.
    colours = page.driver.execute_script(_COLOURS_DRAWN)
    assert colours > 20


def test_it_turns_by_itself_only_where_motion_is_welcome(page: Page) -> None:
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job()).json()['id']}"
    where = "return [...document.querySelectorAll('.turntable .word')].map((word) => word.style.left).join()"
    for motion in (False, True):
        emulate(page.driver, motion=motion)
        try:
            page.open(f"{address}/measure", ".turntable .word")
            before = page.driver.execute_script(where)
            if motion:
                page.until(lambda before=before: page.driver.execute_script(where) != before)
            else:
                # By hand it still turns, and stays where it was put.
                page.one(".turntable").send_keys(Keys.ARROW_RIGHT)
                page.until(lambda before=before: page.driver.execute_script(where) != before)
                put = page.driver.execute_script(where)
                page.driver.execute_async_script(_TEN_FRAMES)
                assert page.driver.execute_script(where) == put
        finally:
            emulate(page.driver)


def test_a_step_taken_adds_its_part_says_what_it_saves_and_is_undone(page: Page) -> None:
    address = begin(page, "table-loom")
    page.open(f"{address}/measure", "[data-step=levers]")
    page.shows("[data-step=fold]", "saves 9 in of height, 3 in of width")
    page.shows("[data-step=reed]", "Bag 1: cap screws of the beater")
    page.shows(".views", "Parts 2")
    before = page.text(".stated")
    page.one("[data-step=levers] input.take").send_keys(Keys.SPACE)
    page.shows(".views", "Parts 3")
    page.until(lambda: page.text(".stated") != before)
    page.one("[data-step=levers] input.take").send_keys(Keys.SPACE)
    page.shows(".views", "Parts 2")
    page.shows(".stated", before)
    page.button("Undo").click()
    page.shows(".views", "Parts 3")
    # Down goes to the next step.
    page.one("[data-step=shafts] input.take").send_keys(Keys.ARROW_DOWN)
    assert page.driver.switch_to.active_element == page.one("[data-step=reed] input.take")
    page.saved()


def test_turn_battery_and_lifting_stand_at_their_step(page: Page) -> None:
    page.open(f"{begin(page, 'bicycle')}/measure", "[data-step=pedals]")
    page.shows("[data-step=pedals] .turn", "The left pedal unscrews clockwise")
    address = begin(page, "electric-bike")
    page.open(f"{address}/measure", "[data-step=battery]")
    page.shows("[data-step=battery] .caution", "49 CFR 173.185")
    page.shows("[data-step=lift] .caution", "Over 50 lb (23 kg): two people lift it")
    # The question is open on the docket until it is answered, and its answer cautions right there.
    page.shows("aside", "answer: battery")
    page.choose("ask-battery", "sent")
    page.shows("[data-caution=battery]", "most parcel services refuse it")
    page.until(lambda: "answer: battery" not in page.text("aside"))
    page.choose("ask-battery", "swollen, wet or recalled")
    page.shows("[data-caution=battery].never", "Stop. A damaged, swollen, wet or recalled battery does not ship.")
    page.shows("aside li.stop", "does not ship")
    page.shows("aside", "It does not ship as it is.")
    page.saved()
    assert page.api(f"/api{address}")["job"]["answers"] == {"battery": "damaged"}
    assert page.axe() == []


def test_starting_measures_are_marked_until_they_are_taken(page: Page) -> None:
    address = begin(page, "concertina")
    page.open(f"{address}/measure", ".views")
    page.all(".views button")[1].click()
    page.one(".row.guessed")
    page.shows("aside", "measure concertina in its case")
    page.fill("part-0-length", "10")
    page.until(lambda: not page.all(".row.guessed"))
    page.saved()
    assert parts_of(page, address)[0]["guessed"] is False


def test_layers_grow_a_part_and_say_what_is_cut(page: Page) -> None:
    flat = part(name="panel", shape={"kind": "box", "length": "10 in", "width": "8 in", "height": "6 in"}, gap=None)
    key = httpx.post(f"{page.url}/api/jobs", json=job(parts=[flat, part(name="other")])).json()["id"]
    page.open(f"/jobs/{key}/protect", ".grown b")
    page.shows(".grown b", "10 x 8 x 6 in")
    page.button("Add a layer").click()
    page.choose("layer-0", "large bubble")
    page.fill("layer-0-layers", "2")
    # By hand: 28 + 2 and 28 + 6, with 10 % overlap 33 and 37.4 in, torn at whole feet.
    page.shows(".layer .comes", "3 ft of the 24 in roll, 4 ft of the 24 in roll")
    page.shows(".grown b", "12 x 10 x 8 in")
    page.shows(".layer .comes", "adds 1 in on every side")
    page.shows(".wrap table", "large bubble, 1/2 in")
    page.choose("fragility", "very")
    page.shows(".checked", "very delicate goods in a parcel of this weight need")
    page.until(lambda: page.one("#gap").get_attribute("placeholder") == "3")
    page.fill("gap", "1/2")
    page.shows(".checked.short", "Add gap, a layer, or a softer fill")
    page.one("[data-why='this cushion']").send_keys(Keys.ENTER)
    page.shows(".why-slip", "C x h / G")
    page.press(Keys.ESCAPE)
    page.button("Wrap all like this").click()
    page.shows("#wrap-1", "large bubble × 2")
    page.button("Undo").click()
    page.shows("#wrap-1", "bare")
    page.one("button[aria-label='Remove large bubble, 1/2 in']").click()
    page.shows(".grown b", "10 x 8 x 6 in")
    page.choose("liner", "liner of foam")
    page.shows(".wrap table", "walls of the box")
    page.saved()
    assert page.axe() == []


def test_flat_things_are_piled_as_even_as_can_be(page: Page) -> None:
    flat = part(name="sleeved score", count=23,
                shape={"kind": "box", "length": "10 in", "width": "7 in", "height": "3/16 in"})  # fmt: skip
    key = httpx.post(f"{page.url}/api/jobs", json=job(parts=[flat])).json()["id"]
    page.open(f"/jobs/{key}/protect", "#piles")
    page.fill("piles", "3")
    page.shows(".piles", "3 piles: 8, 8, 7")
    page.shows(".says", "Turn 4 of the 8 about")
    page.fill("piles", "")
    page.fill("sleeve-holds", "6")
    page.shows(".piles", "4 piles: 6, 6, 6, 5")


def picture(path: Path) -> Path:
    Image.new("RGB", (800, 600), (150, 120, 90)).save(path)
    return path


def test_good_files_come_in_beside_bad_ones(page: Page, tmp_path: Path) -> None:
    mesh = tmp_path / "horn.stl"
    trimesh.creation.cylinder(radius=1, height=4, sections=24).export(mesh)
    broken = tmp_path / "face.jpg"
    broken.write_bytes(b"not a picture")
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job()).json()['id']}"
    page.open(f"{address}/measure", ".stated")
    page.one("#files-in").send_keys(f"{picture(tmp_path / 'front.png')}\n{broken}\n{mesh}")
    page.shows(".said", "front.png is a photograph of concertina in its case")
    page.shows(".said", "not a picture, whatever its name says")
    page.shows(".said", "horn.stl is the shape of concertina in its case")
    page.one(".photos img")
    # The mesh wants its unit before anything follows from it.
    page.shows("aside", "unit of the mesh")
    page.one("#part-0-unit").send_keys("1 in")
    page.shows(".side .facts", "2 x 2 x 4 in")
    page.saved()
    table = tmp_path / "parts.csv"
    table.write_bytes('part;length (in);width;height;weight\r\nBügel;10 1/2";8;2;1 lb\r\n'.encode("cp1252"))
    page.one("#files-in").send_keys(str(table))
    page.shows(".said", "parts.csv: 1 parts taken in")
    page.until(lambda: page.one("#part-1-name").get_attribute("value") == "Bügel")
    page.saved()
    assert [one["name"] for one in parts_of(page, address)] == ["concertina in its case", "Bügel"]


def test_an_outline_is_typed_or_traced_over_a_photograph(page: Page, tmp_path: Path) -> None:
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job(extras=[])).json()['id']}"
    page.open(f"{address}/measure", ".stated")
    page.choose("part-0-shape", "flat")
    page.fill("part-0-thickness", "1/2")
    page.one("#corners").send_keys("0, 0\n12, 0\n12, 6\n0, 6")
    page.shows(".side .facts", "12 x 6 x 1/2 in")
    page.one("#corners").send_keys(Keys.CONTROL, "a")
    page.one("#corners").send_keys("0, 0\n12, 6\n12, 0\n0, 6")
    page.shows(".side", "crosses")
    page.one(".outline input[type=file]").send_keys(str(picture(tmp_path / "panel.png")))
    photo = page.one(".trace .photo img")
    page.until(lambda: photo.get_property("complete"))
    spots = [(100, 50), (300, 50), (100, 50), (300, 50), (300, 250), (100, 250)]  # 200 pixels are the known 10 in
    page.driver.execute_script(
        "const r = arguments[0].getBoundingClientRect();"
        "for (const [x, y] of arguments[1]) arguments[0].dispatchEvent("
        "  new MouseEvent('click', {bubbles: true, clientX: r.x + x, clientY: r.y + y}))",
        photo, spots,
    )  # fmt: skip
    page.shows(".trace .how", "all the way round (4)")
    page.fill("known", "10")
    page.button("Take these corners").click()
    page.until(lambda: not page.all(".trace"))
    page.shows(".side .facts", "10 x 10 x 1/2 in")
    page.saved()
    assert parts_of(page, address)[0]["shape"]["points"] == [[0, 254], [254, 254], [254, 0], [0, 0]]


def test_bars_and_shapes_fixed_together_are_typed_as_lines(page: Page) -> None:
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job(extras=[])).json()['id']}"
    page.open(f"{address}/measure", ".stated")
    page.choose("part-0-shape", "bars")
    page.fill("part-0-diameter", "1")
    page.one("#pieces").send_keys("0, 0, 0 to 15, 0, 0\n0, 0, 0 to 0, 9, 0")
    page.shows(".side .facts", "15 1/2 x 9 1/2 x 1 in")  # round where they meet, flat where they end
    page.one("#pieces").send_keys("\n15, 0, 0 to")
    page.shows(".pieces .wait", "One line is not whole yet")
    page.choose("part-0-shape", "sev")
    page.shows(".pieces label", "A shape a line")
    page.one("#pieces").send_keys("box 19 x 6 x 1 1/4 at 0, 0, 0\ncylinder 2 x 9 at 4, 2, 1 1/4")
    page.shows(".side .facts", "19 x 6 x 10 1/4 in")
    page.saved()
    kept = parts_of(page, address)[0]["shape"]
    assert [one["shape"]["kind"] for one in kept["of"]] == ["box", "cylinder"]


@pytest.mark.parametrize("device", ["tape", "scale"])
def test_a_reading_comes_into_the_field_in_hand_and_goes_on(page: Page, device: str) -> None:
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job()).json()['id']}"
    page.open(f"{address}/measure", ".stated")
    field, reading, after = {
        "tape": ("part-0-height", "9 3/4 in", "part-0-weight"),
        "scale": ("part-0-weight", "5 lb 1 oz", "part-1-name"),
    }[device]
    page.one(f"#{field}").click()
    page.until(lambda: "heard it" in (said := send(page.url, MODELS[device], reading)) and "0 open" not in said)
    page.until(lambda: page.one(f"#{field}").get_attribute("value") == reading)
    page.until(lambda: page.focus == after)
    # Where no such measure is taken it is told and nothing is changed.
    page.one("#title").click()
    send(page.url, MODELS[device], reading)
    page.shows(".toast", f"The {device} says {reading}")
    page.saved()


def test_a_job_is_begun_from_the_line_by_its_kind_and_kept_as_one(page: Page) -> None:
    page.open("/", ".bench li")
    page.press("/")
    page.until(lambda: page.focus == "bench-line")
    page.press("squeezebox")
    page.shows("#line-answer", "Start: Concertina or accordion")
    page.press(Keys.ENTER)
    page.one("[data-step=straps]")
    page.all(".views button")[1].click()
    page.fill("part-0-length", "10")
    page.button("Save as a kind of goods").click()
    page.one("#kind-title").send_keys("Our squeezebox", Keys.ENTER)
    page.shows(".toast", "Our squeezebox is a kind of goods now")
    # A second of that name is said, and takes its place only when told to.
    page.button("Save as a kind of goods").click()
    page.fill("kind-title", "Our squeezebox")
    page.one("#kind-title").send_keys(Keys.ENTER)
    page.shows("[role=dialog] .wrong", "There is a kind of goods called Our squeezebox already")
    page.button("Replace it").click()
    page.until(lambda: page.api("/api/kinds/our-squeezebox")["revision"] == 2)
    page.open("/kinds", "#kind-called")
    page.shows(".both > ul", "Our squeezebox")


def test_a_kind_is_copied_changed_archived_and_restored(page: Page) -> None:
    page.open("/kinds", "#kind-called")
    page.button("Table loom").click()
    page.until(lambda: page.one("#kind-called").get_attribute("value") == "Table loom")
    page.button("Copy").click()
    page.fill("kind-called", "Floor loom")
    page.button("Save as our own").click()
    page.shows(".both > ul", "Floor loom")
    page.shows(".toast", "kept as the shop's own")
    assert page.api("/api/kinds/table-loom-2")["kind"]["title"] == "Floor loom"
    page.button("Remove ours").click()
    page.until(lambda: "Floor loom" not in page.text(".both > ul"))
    page.button("Undo").click()
    page.shows(".both > ul", "Floor loom")


def test_papers_of_taking_apart_are_printed_from_their_screen(page: Page) -> None:
    address = begin(page, "spinning-wheel", "Wheel for Ostwick")
    page.open(f"{address}/measure", ".papers a")
    for words, kind in (("Labels for 4 bags", b"%PDF"), ("Reassembly sheet", b"%PDF")):
        assert httpx.get(page.button(words).get_attribute("href")).content.startswith(kind)


def test_a_table_of_parts_goes_out_as_csv(page: Page) -> None:
    address = f"/jobs/{httpx.post(f'{page.url}/api/jobs', json=job()).json()['id']}"
    page.open(f"{address}/measure", ".stated")
    table = httpx.get(page.button("Parts as CSV").get_attribute("href"))
    assert io.StringIO(table.text).readline().strip("\ufeff").startswith("name,count,shape,length")
