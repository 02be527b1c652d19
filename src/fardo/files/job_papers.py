"""The papers that go with a job: packing slip, inserts, addresses, marks, customs, closing check, re-packing, exhibit.

Each is for somebody: the buyer, whoever finds the parcel, whoever carries it, whoever packs it again. What a parcel
that stays plain outside must not tell stands on none that is seen from outside.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal, get_args

from reportlab.lib import colors
from reportlab.platypus import HRFlowable, Paragraph, Spacer, Table, TableStyle

from fardo.core.goods.take_apart import BackStep
from fardo.files.page import PAPERS, Paper, mm
from fardo.files.paper_story import LARGE, MARGIN, PLAIN, SMALL, Story, build, large, text, title, to_tick
from fardo.files.papers import put_back_story

PaperName = Literal["slip", "inserts", "addresses", "marks", "customs", "receiver", "checklist", "repack", "exhibit"]
PAPER_NAMES: tuple[PaperName, ...] = get_args(PaperName)
_LINE = TableStyle([("LINEBELOW", (0, 0), (-1, -1), 0.4, colors.black), ("VALIGN", (0, 0), (-1, -1), "TOP")])
_CUT = TableStyle([
    ("INNERGRID", (0, 0), (-1, -1), 0.4, colors.black, None, (3, 3)),
    ("BOX", (0, 0), (-1, -1), 0.4, colors.black, None, (3, 3)), ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
])  # fmt: skip


PAPER_TITLES: dict[PaperName, str] = {
    "slip": "packing slip", "inserts": "insert list", "addresses": "addresses", "marks": "marks",
    "customs": "contents for customs", "receiver": "receiver's sheet", "checklist": "closing check",
    "repack": "re-packing sheet", "exhibit": "exhibit sheet",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Customs:
    """What customs are told, truthfully.

    Args:
        value: declared, with its currency.
    """

    contents: str
    reason: str
    made_in: str
    tariff_code: str
    value: str
    weighs: str


@dataclass(frozen=True, slots=True)
class PaperFacts:
    """What the papers of a job are set from.

    Args:
        title: of the job.
        shop: its name.
        sender: the return address, line by line.
        to: whom it goes to, line by line; none where nobody is written down.
        order: its number; note: to the buyer.
        contents: how many of each thing is in the parcel, without slips and cards.
        inserts: slips and cards that lie on top.
        marks: that belong outside.
        plain: whether nothing outside may tell what is in it.
        customs: for what goes abroad.
        checks: what is ticked before it is closed.
        own_checks: lines of the job's own.
        box: it is in, in words.
        opens: where it is opened, and how.
        lay: what lay where, the first to go in first.
        closes: how it is closed again.
        day: it is printed, in words.
        service: carrier and service, empty where none is chosen.
        number: for tracking.
        put_back: the steps of putting it together.
    """

    title: str
    shop: str
    sender: Sequence[str]
    to: Sequence[str]
    order: str
    note: str
    contents: Sequence[tuple[int, str]]
    inserts: Sequence[str]
    marks: Sequence[str]
    plain: bool
    customs: Customs | None
    checks: Sequence[str]
    own_checks: Sequence[str]
    box: str
    opens: Sequence[str]
    lay: Sequence[str]
    closes: Sequence[str]
    day: str
    service: str = ""
    number: str = ""
    put_back: Sequence[BackStep] = ()


@dataclass(frozen=True, slots=True)
class Carried:
    """A parcel on the list that is handed over."""

    title: str
    to: str
    service: str
    number: str
    weighs: str


@dataclass(frozen=True, slots=True)
class HandOverList:
    """The parcels of a day that are handed over together.

    Args:
        parcels: by carrier.
    """

    shop: str
    day: str
    parcels: Mapping[str, Sequence[Carried]] = field(default_factory=dict)


def papers_of(facts: PaperFacts) -> tuple[PaperName, ...]:
    """The papers that a job has something for, without those that are printed only when asked for."""
    wanted: list[PaperName] = ["slip"]
    wanted += ["inserts"] if facts.inserts else []
    wanted += ["addresses"] if facts.to or facts.sender else []
    wanted += ["marks"] if facts.marks and not facts.plain else []
    wanted += ["customs"] if facts.customs else []
    wanted += ["receiver"] if facts.put_back else []
    return (*wanted, "checklist", "repack")


def job_papers(facts: PaperFacts, names: Sequence[PaperName], paper: Paper) -> bytes:
    """A PDF of those papers, each on a page of its own."""
    return build(f"{facts.title}, papers", [_STORIES[name](facts, paper) for name in names], paper)


def hand_over_list(facts: HandOverList, paper: Paper) -> bytes:
    """A PDF of what is handed over on a day: a page a carrier, with room for a signature."""
    width = PAPERS[paper][0] - 2 * MARGIN
    stories: list[Story] = []
    for carrier, parcels in facts.parcels.items():
        head = [Paragraph(f"<b>{one}</b>", SMALL) for one in ("", "Parcel", "To", "Service", "Number", "Weighs")]
        rows = [
            [Paragraph(str(n), PLAIN), *(Paragraph(text(cell, 90), SMALL) for cell in
             (one.title, one.to, one.service, one.number, one.weighs))]
            for n, one in enumerate(parcels, 1)
        ]  # fmt: skip
        table = Table([head, *rows], colWidths=[width * share for share in (0.05, 0.29, 0.16, 0.16, 0.22, 0.12)])
        table.setStyle(_LINE)
        count = f"{len(parcels)} parcels" if len(parcels) != 1 else "1 parcel"
        stories.append([
            title(f"Handed over to {carrier}"),
            Paragraph(f"{text(facts.shop, 80)}, {facts.day}: {count}", PLAIN), Spacer(1, 4 * mm), table,
            Spacer(1, 14 * mm), _signature(width),
        ])  # fmt: skip
    if not stories:
        stories = [[title("Nothing was handed over"), Paragraph(f"on {facts.day}.", PLAIN)]]
    return build(f"Handed over on {facts.day}", stories, paper)


def _signature(width: float) -> Table:
    lines = Table([["", "", ""], *[[Paragraph(one, SMALL) for one in ("Received by", "Time", "Signature")]]],
                  colWidths=[width * 0.4, width * 0.2, width * 0.4], rowHeights=[10 * mm, None])  # fmt: skip
    lines.setStyle(TableStyle([("LINEBELOW", (0, 0), (-1, 0), 0.6, colors.black)]))
    return lines


def _slip(facts: PaperFacts, paper: Paper) -> Story:
    """The packing slip, folded once: what is in the parcel on its upper half."""
    width = PAPERS[paper][0] - 2 * MARGIN
    rows = [[Paragraph(str(count), PLAIN), Paragraph(text(name, 140), PLAIN)] for count, name in facts.contents]
    table = Table([[Paragraph("<b>Count</b>", SMALL), Paragraph("<b>In this parcel</b>", SMALL)], *rows],
                  colWidths=[width * 0.12, width * 0.88])  # fmt: skip
    table.setStyle(_LINE)
    head = ", ".join(part for part in (f"Order {facts.order}" if facts.order else "", facts.day) if part)
    thanks = f"Thank you, {facts.to[0]}." if facts.to else "Thank you."
    return [
        title(facts.shop or "Packing slip"), Paragraph(f"Packing slip. {text(head, 120)}", PLAIN),
        Spacer(1, 3 * mm), *(Paragraph(text(line, 120), PLAIN) for line in facts.to), Spacer(1, 4 * mm), table,
        Spacer(1, 5 * mm), large(thanks),
        *([Paragraph(text(facts.note, 400), PLAIN)] if facts.note else []),
    ]  # fmt: skip


def _inserts(facts: PaperFacts, _: Paper) -> Story:
    return [
        title("Goes in on top, last of all"), Paragraph(text(facts.title, 90), PLAIN), Spacer(1, 4 * mm),
        *(to_tick(one) for one in facts.inserts),
    ]  # fmt: skip


def _addresses(facts: PaperFacts, paper: Paper) -> Story:
    """Two slips to be cut apart: one lies inside, one goes outside where no label tells the return address."""
    width = PAPERS[paper][0] - 2 * MARGIN
    cells = []
    if facts.to:
        inside = "Inside the parcel. If the label is lost, this parcel goes to"
        cells.append([[Paragraph(inside, SMALL), *(large(line) for line in facts.to),
                       Spacer(1, 3 * mm), Paragraph("and comes from", SMALL),
                       *(Paragraph(text(line, 120), PLAIN) for line in facts.sender)]])  # fmt: skip
    if facts.sender:
        cells.append([[Paragraph("Return address", SMALL),
                       *(large(line) for line in facts.sender)]])  # fmt: skip
    table = Table(cells, colWidths=[width], style=_CUT)
    return [table]


def _marks(facts: PaperFacts, paper: Paper) -> Story:
    """Each mark four times, for four sides."""
    width = PAPERS[paper][0] - 2 * MARGIN
    high = (PAPERS[paper][1] - 2 * MARGIN - 4 * mm) / 2
    style = LARGE.clone("mark", fontSize=40, leading=46, alignment=1)
    arrow = LARGE.clone("arrow", fontSize=60, leading=66, alignment=1, fontName="Helvetica-Bold")
    story: Story = []
    for mark in facts.marks:
        up = [Paragraph('<font name="Symbol">\u2191</font>&nbsp;<font name="Symbol">\u2191</font>', arrow)]
        cell = [*(up if mark == "This side up" else []), Paragraph(text(mark.upper(), 40, bold=True), style)]
        story.append(Table([[cell, cell], [cell, cell]], colWidths=[width / 2] * 2, rowHeights=[high - 8] * 2,
                           style=_CUT))  # fmt: skip
    return story


def _customs(facts: PaperFacts, paper: Paper) -> Story:
    customs = facts.customs
    assert customs is not None, "papers_of names it where there is something to tell"
    width = PAPERS[paper][0] - 2 * MARGIN
    rows = [("Contents", customs.contents), ("Reason", customs.reason), ("Made in", customs.made_in),
            ("Tariff code", customs.tariff_code), ("Value", customs.value), ("Weighs", customs.weighs)]  # fmt: skip
    table = Table([[Paragraph(name, SMALL), Paragraph(text(said or "not said", 300), PLAIN)] for name, said in rows],
                  colWidths=[width * 0.2, width * 0.8])  # fmt: skip
    table.setStyle(_LINE)
    return [
        title("Contents, for customs"), *(Paragraph(text(line, 120), PLAIN) for line in facts.sender),
        Spacer(1, 3 * mm), Paragraph("to", SMALL), *(Paragraph(text(line, 120), PLAIN) for line in facts.to),
        Spacer(1, 4 * mm), table, Spacer(1, 4 * mm),
        Paragraph("What is told here must be true, also where the outside stays plain. The rules of the carrier and of "
                  "both countries decide; ask them where you are not sure.", SMALL), Spacer(1, 12 * mm),
        _signature(width),
    ]  # fmt: skip


def _checklist(facts: PaperFacts, _: Paper) -> Story:
    own = [Spacer(1, 3 * mm), large("For this job"), *(to_tick(one) for one in facts.own_checks)]
    plain = [Paragraph("Plain outside: nothing on the box tells what is in it.", PLAIN)] if facts.plain else []
    return [
        title("Before it is closed"), Paragraph(text(facts.title, 90), PLAIN), *plain, Spacer(1, 4 * mm),
        large("Is everything in?"), *(to_tick(f"{count} x {name}") for count, name in facts.contents),
        *(to_tick(one) for one in facts.inserts),
        Spacer(1, 3 * mm), large("Then"), *(to_tick(one) for one in facts.checks),
        *(own if facts.own_checks else []),
    ]  # fmt: skip


def _repack(facts: PaperFacts, _: Paper) -> Story:
    """For whoever opens the parcel and packs it again: an organiser, or the buyer who sends it back."""

    def listed(lines: Sequence[str]) -> Story:
        return [Paragraph(f"<b>{n}.</b> {text(line, 300)}", PLAIN) for n, line in enumerate(lines, 1)]

    return [
        title("To pack it again"), Paragraph(f"{text(facts.title, 90)}, {text(facts.box, 90)}", PLAIN),
        Spacer(1, 4 * mm), large("Open it so"), *listed(facts.opens), Spacer(1, 3 * mm),
        large("In this order it goes back in"), *listed(facts.lay), Spacer(1, 3 * mm),
        large("Close it so"), *listed(facts.closes), Spacer(1, 4 * mm), HRFlowable(width="100%"),
        Paragraph("It goes back to", SMALL), *(Paragraph(text(line, 120), PLAIN) for line in facts.sender),
    ]  # fmt: skip


def _receiver(facts: PaperFacts, _: Paper) -> Story:
    return put_back_story(facts.title, facts.shop, facts.put_back, facts.contents)


def _exhibit(facts: PaperFacts, _: Paper) -> Story:
    return [
        Paragraph("Exhibit", SMALL), title(facts.title), Spacer(1, 4 * mm),
        *(Paragraph(f"{count} x {text(name, 140)}", PLAIN) for count, name in facts.contents), Spacer(1, 6 * mm),
        Paragraph("Lent by", SMALL), *(large(line) for line in facts.sender),
        Spacer(1, 6 * mm), Paragraph("It goes back by", SMALL),
        Paragraph(text(facts.service or "as agreed", 90), PLAIN),
        Paragraph("Keep the box and its inserts: it is packed again in them.", PLAIN),
    ]  # fmt: skip


_STORIES = {
    "slip": _slip, "inserts": _inserts, "addresses": _addresses, "marks": _marks, "customs": _customs,
    "receiver": _receiver, "checklist": _checklist, "repack": _repack, "exhibit": _exhibit,
}  # fmt: skip
