"""The cut sheet of a saved job, to print or to send to a machine."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from fastapi import APIRouter, Query, Response

from fardo.api.desk import OpenDesk
from fardo.api.picture import box_for
from fardo.api.problems import RESPONSES
from fardo.core.plan.cautions import CUTTING
from fardo.core.quantity import show_sizes
from fardo.core.refusal import BadInput
from fardo.files.job import understand
from fardo.files.pdf import Heading, cut_sheet, full_size
from fardo.files.svg import svg

router = APIRouter(prefix="/api/jobs/{key}/cut-sheet", tags=["cut sheet"], responses=RESPONSES)


@router.get(".pdf", response_class=Response)
def pdf_sheet(
    key: str, desk: OpenDesk, way: Annotated[str, Query(max_length=20)], scale: Literal["fit", "full"] = "fit"
) -> Response:
    """To scale with its fence settings, or at full size over several pages with register marks."""
    today = desk.today
    job = desk.jobs.get(key).job
    boxed = box_for(way, job, understand(job, today.shop, today.file.postcode).must_load(), today)
    made, units, paper = boxed.made, today.shop.units, today.file.paper
    heading = Heading(
        job.title or "Untitled job",
        (
            f"{made.grade.name}, inside {show_sizes(made.inside, units, 'down')}, "
            f"outside {show_sizes(made.outside, units, 'up')}",
            *made.notes,
        ),
    )
    if scale == "full":
        content = full_size(heading, made.blanks, units, paper)
    else:
        content = cut_sheet(heading, made.blanks, made.fence, CUTTING, units, paper)
    return _file(content, "application/pdf", "inline", f"{_name(job.title)}-{way}.pdf")


@router.get(".dxf", response_class=Response)
def dxf_sheet(key: str, desk: OpenDesk, way: Annotated[str, Query(max_length=20)]) -> Response:
    """All blanks at real size in millimetres."""
    from fardo.files.dxf import (
        dxf,  # its library takes most of a second to load, which a starting shop need not wait for
    )

    today = desk.today
    job = desk.jobs.get(key).job
    made = box_for(way, job, understand(job, today.shop, today.file.postcode).must_load(), today).made
    return _file(dxf(made.blanks, today.shop.units), "image/vnd.dxf", "attachment", f"{_name(job.title)}-{way}.dxf")


@router.get(".svg", response_class=Response)
def svg_sheet(
    key: str, desk: OpenDesk, way: Annotated[str, Query(max_length=20)], blank: Annotated[str, Query(max_length=20)]
) -> Response:
    """One blank at real size."""
    today = desk.today
    job = desk.jobs.get(key).job
    made = box_for(way, job, understand(job, today.shop, today.file.postcode).must_load(), today).made
    drawings = {piece.name: piece for piece in made.blanks}
    if blank not in drawings:
        raise BadInput("not a blank of this box", read=blank, allowed=", ".join(drawings), field="blank")
    drawing = svg(drawings[blank], today.shop.units)
    return _file(drawing, "image/svg+xml", "attachment", f"{_name(job.title)}-{blank}.svg")


def _file(content: str | bytes, media_type: str, disposition: str, name: str) -> Response:
    return Response(
        content, media_type=media_type, headers={"Content-Disposition": f'{disposition}; filename="{name}"'}
    )


def _name(title: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "job"
