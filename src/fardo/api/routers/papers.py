"""Papers and tables of a saved job: bag labels, the receiver's sheet, corner guards to cut, parts as CSV."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from datetime import date
from typing import Annotated, Literal

from fastapi import Query, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, ConfigDict

from fardo.api.context import AppContext, Context
from fardo.api.downloads import download, today_in_words
from fardo.api.job_papers import hand_over_facts, label_facts, paper_facts
from fardo.api.parts import view_coat
from fardo.api.plans import RungView, rungs_of
from fardo.api.resource import resource
from fardo.api.ways import view_filling
from fardo.core.cut.corner_guard import draw_guard
from fardo.core.goods.part import MOST_OF_ONE
from fardo.core.goods.take_apart import bag_labels, put_back
from fardo.core.make import called
from fardo.core.make.assembly import GUARD_STEPS
from fardo.core.make.step import before_cutting
from fardo.core.plan.cautions import CUTTING
from fardo.core.plan.load import MOST_UNITS, bodies_of
from fardo.core.plan.needed import inside_needed
from fardo.core.plan.parts import Layered, inner_boxes_of, layers_of
from fardo.core.quantity import Units, show_sizes
from fardo.core.refusal import NoAnswer
from fardo.files.drawn import in_words
from fardo.files.job import JobFile
from fardo.files.job_papers import PaperName, hand_over_list, job_papers, papers_of
from fardo.files.kind import steps_of
from fardo.files.packing import PackingSheet, packing_sheet
from fardo.files.packing_views import PackedBox
from fardo.files.page import Heading
from fardo.files.papers import label_sheet, ladder_sheet, put_back_sheet
from fardo.files.parts_csv import write_parts
from fardo.files.pdf import ToCut, cut_sheet, cut_sheets
from fardo.files.shipping_label import LabelSize, label_page, label_picture
from fardo.files.typed import to_count
from fardo.wire.printer import Printed, print_out

router = resource("/api/jobs/{key}", "papers")
day_router = resource("/api", "papers")


@router.get("/bag-labels.pdf", response_class=Response)
def labels(key: str, context: Context) -> Response:
    """One label for each bag of small hardware."""
    job = context.jobs.get(key).job
    found = bag_labels(steps_of(job))
    if not found:
        raise NoAnswer("No step that is taken leaves small hardware; there is nothing to label.")
    sheet = label_sheet(job.title or "Untitled job", found, context.today.file.paper)
    return download(sheet, "application/pdf", job.title, "-bag-labels.pdf", look=True)


@router.get("/ladder.pdf", response_class=Response)
def ladder(key: str, context: Context, most: Annotated[int, Query(ge=1, le=MOST_UNITS)] = 12) -> Response:
    """What so many of the job's one thing go into, to hang at the bench."""
    job = context.jobs.get(key).job
    found = context.look_for(_rungs, job, most)
    rows = [
        (f"{one.least}" if one.least == one.most else f"{one.least}–{one.most}",
         one.box or one.why_not, one.outside, one.weighs, one.service, one.total)
        for one in found
    ]  # fmt: skip
    shop, what = context.today.file, job.parts[0].name or job.title or "Untitled job"
    sheet = ladder_sheet(job.title or "Untitled job", what, rows, shop.name, shop.paper)
    return download(sheet, "application/pdf", job.title, "-ladder.pdf", look=True)


def _rungs(context: AppContext, job: JobFile, most: int) -> list[RungView]:
    return rungs_of(job, most, context.today)


@router.get("/put-together.pdf", response_class=Response)
def put_together(key: str, context: Context) -> Response:
    """The receiver's sheet: what is in the box, and the steps last first."""
    job, shop = context.jobs.get(key).job, context.today.file
    steps = put_back(steps_of(job))
    if not steps:
        raise NoAnswer("No step of taking apart is taken; there is nothing to put together.")
    contents = [
        (to_count(part.count, f"parts[{n}].count", MOST_OF_ONE), part.name or "part")
        for n, part in enumerate(job.parts)
    ]
    contents += [(1, f"bag {label.number}: {label.holds}") for label in bag_labels(steps_of(job))]
    contents += [(1, extra.name) for extra in job.extras if extra.name]
    sheet = put_back_sheet(job.title or "Untitled job", shop.name, steps, contents, shop.paper)
    return download(sheet, "application/pdf", job.title, "-put-together.pdf", look=True)


@router.get("/corner-guards.pdf", response_class=Response)
def guards(key: str, context: Context) -> Response:
    """Each corner guard to scale; four of each part are cut."""
    job, today = context.jobs.get(key).job, context.today
    parts = today.understand(job).parts
    units = dict.fromkeys(unit for part in parts for unit in part.units if unit.guards)
    blanks = [draw_guard(guard, f"guard for {unit.part.name}") for unit in units for guard in unit.guards]
    if not blanks:
        raise NoAnswer("No part has corner guards.")
    heading = Heading(
        job.title or "Untitled job",
        ("Four for each part.",), "Corner guards", today_in_words(),
    )  # fmt: skip
    sheet = cut_sheet(
        heading, blanks, (), CUTTING[:1], today.shop.units, today.file.paper, [step.do for step in GUARD_STEPS]
    )
    return download(sheet, "application/pdf", job.title, "-corner-guards.pdf", look=True)


@router.get("/inner-boxes.pdf", response_class=Response)
def inner_boxes(key: str, context: Context) -> Response:
    """The cut sheet of each box that is cut for a part of its own."""
    job, today = context.jobs.get(key).job, context.today
    shop = today.shop
    found = inner_boxes_of(today.understand(job), shop)
    if not found:
        raise NoAnswer("No part has a box of its own that is cut for it.")
    show = in_words(shop.units)
    boxes = [
        ToCut(
            f"For {one.what}{f', {one.times} of them' if one.times > 1 else ''}: {one.made.grade.name}, inside "
            f"{show_sizes(one.made.inside, shop.units, 'down')}",
            one.made.blanks, one.made.fence, [step.told(show) for step in one.made.steps],
            before_cutting(one.made.steps),
        )
        for one in found
    ]  # fmt: skip
    heading = Heading(job.title or "Untitled job", (), "Inner boxes", today_in_words())
    sheets = cut_sheets(heading, boxes, CUTTING, shop.units, today.file.paper)
    return download(sheets, "application/pdf", job.title, "-inner-boxes.pdf", look=True)


@router.get("/packing.pdf", response_class=Response)
def packing(key: str, context: Context) -> Response:
    """Plan, front and side of the packed box to scale, a plan of each layer, and what goes in when and where."""
    job, today = context.jobs.get(key).job, context.today
    picture = today.draw_up(job)
    load, title = picture.job.must_load(), job.title or "Untitled job"
    units, day = today.shop.units, today_in_words()
    made = picture.current.boxed.made if picture.current is not None else None
    wrap = tuple(_wrap_rows(layers_of(picture.job, today.shop, made), units))
    if picture.current is not None:
        boxed = picture.current.boxed
        filling = view_filling(boxed, units)
        under, rest = (
            tuple((one.title, one.depth, one.fetch) for one in filling.places if (one.where == "under") is is_under)
            for is_under in (True, False)
        )
        packed = PackingSheet(
            title, called(boxed.made),
            PackedBox(boxed.made.inside, bodies_of(boxed.load), boxed.arrangement, boxed.made.soft),
            boxed.room_left, wrap, under, rest, filling.says,
            tuple(extra.name for extra in boxed.load.extras if extra.lies_flat), day,
        )  # fmt: skip
    else:
        answer, _ = inside_needed(load)
        in_no_box = PackedBox(answer.inside, bodies_of(load), answer)
        packed = PackingSheet(title, "No box yet", in_no_box, wrap=wrap, day=day)
    sheet = packing_sheet(packed, today.shop.units, today.file.paper)
    return download(sheet, "application/pdf", job.title, "-packing.pdf", look=True)


@router.get("/papers.pdf", response_class=Response)
def papers(
    key: str, context: Context,
    only: Annotated[list[PaperName] | None, Query(description="these alone; else all there is something for")] = None,
) -> Response:  # fmt: skip
    """Packing slip, inserts, addresses, marks, customs, closing check, re-packing: all of a job's paper, or some."""
    facts = paper_facts(key, context)
    if only and "customs" in only and facts.customs is None:
        raise NoAnswer("The job does not say what is in it for customs; enter that first.")
    sheet = job_papers(facts, only or papers_of(facts), context.today.file.paper)
    return download(sheet, "application/pdf", facts.title, "-papers.pdf", look=True)


@router.get("/label.pdf", response_class=Response)
def label(key: str, context: Context, size: LabelSize = "4x6") -> Response:
    """The label, for a label printer or on half a page of the shop's paper."""
    page = label_page(label_facts(key, context), size, context.today.file.paper)
    return download(page, "application/pdf", "label", ".pdf", look=True)


@router.get("/label.png", response_class=Response)
def label_png(key: str, context: Context) -> Response:
    """The same as a picture of 300 dots to the inch."""
    page = label_page(label_facts(key, context), "4x6", context.today.file.paper)
    return download(label_picture(page), "image/png", "label", ".png", look=True)


class ToPrint(BaseModel):
    """What goes to the label printer."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"what": "label"}]})
    what: Literal["label", "papers"] = "label"


@router.post("/print")
async def print_on_printer(key: str, wanted: ToPrint, context: Context) -> Printed:
    """Sends the label, or all papers of the job, to the shop's printer."""
    # The printer is waited for without a thread: some forty slow prints would leave none for anything else.
    return await print_out(*await run_in_threadpool(_page_to_print, key, wanted, context))


def _page_to_print(key: str, wanted: ToPrint, context: AppContext) -> tuple[str, bytes]:
    """The printer's address, and what it is sent. Raises NoAnswer where the shop has no printer."""
    file = context.today.file
    if not file.printer:
        raise NoAnswer("The shop has no printer; enter its address in the settings.")
    if wanted.what == "label":
        return file.printer, label_page(label_facts(key, context), "4x6", file.paper)
    facts = paper_facts(key, context)
    return file.printer, job_papers(facts, papers_of(facts), file.paper)


@day_router.get("/hand-over.pdf", response_class=Response)
def hand_over(day: date, context: Context) -> Response:
    """What was handed over on a day: a page a carrier, with room for a signature."""
    sheet = hand_over_list(hand_over_facts(day, context), context.today.file.paper)
    return download(sheet, "application/pdf", f"handed over {day}", ".pdf", look=True)


def _wrap_rows(layers: Iterable[Layered], units: Units) -> Iterator[tuple[str, str]]:
    """What is put on what, and how."""
    for one in layers:
        coat = view_coat(one.coat, units)
        cuts = f": {', '.join(coat.cuts)}" if coat.cuts else ""
        what = f"{one.what}, {one.times} of them" if one.times > 1 else one.what
        yield what, " ".join((f"{coat.name}{cuts}.", *coat.says))


@router.get("/parts.csv", response_class=Response)
def parts_table(key: str, context: Context) -> Response:
    """The parts as a table that a spreadsheet opens."""
    job = context.jobs.get(key).job
    return download("\ufeff" + write_parts(job), "text/csv; charset=utf-8", job.title, "-parts.csv")
