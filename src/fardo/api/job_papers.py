"""The papers of a job and of a day, from what is kept of them."""

from __future__ import annotations

from datetime import date

from fardo.api.context import AppContext, Today
from fardo.api.downloads import day_in_words, today_in_words
from fardo.api.packing import drawn_to_pack, to_pack_of, view_step
from fardo.core.goods.take_apart import put_back
from fardo.core.make import called
from fardo.core.pack.closed import longest_first
from fardo.core.pack.marks import closing_checks, marks_of, opening
from fardo.core.pack.steps import ToPack, packing_steps
from fardo.core.plan.picture import Picture
from fardo.core.quantity import show_mass, show_sizes
from fardo.core.refusal import NoAnswer
from fardo.files.job import JobFile
from fardo.files.job_papers import Carried, Customs, HandOverList, PaperFacts
from fardo.files.sending import SendingEntry, closed_of
from fardo.files.shipping_label import LabelFacts
from fardo.files.shop import ShopFile
from fardo.store.labels import Label


def sender_of(shop: ShopFile, channel: str | None) -> list[str]:
    """The return address: its channel's, or the shop's own, line by line."""
    given = next((one.return_address for one in shop.channels if one.name == channel), "")
    if lines := _lines(given) or _lines(shop.return_address):
        return lines
    town = " ".join(part for part in (shop.town, shop.postcode) if part)
    return [line for line in (shop.name, *_lines(shop.address), town) if line]


def _lines(text: str) -> list[str]:
    return [line.strip() for line in text.splitlines() if line.strip()]


def paper_facts(key: str, context: AppContext) -> PaperFacts:
    """What the papers of a saved job are set from. Raises as `drawn_to_pack`."""
    return facts_of(key, drawn_to_pack(key, context), context)


def facts_of(key: str, drawn: tuple[JobFile, Today, Picture, ToPack], context: AppContext) -> PaperFacts:
    """The same of a job that is drawn up already."""
    job, today, picture, to_pack = drawn
    recipient, sending = context.recipients.of(key).recipient, context.sendings.of(key).sending
    label, boxed, units = context.labels.of_job(key), to_pack.boxed, today.shop.units
    steps = packing_steps(to_pack)
    told = {step.key: view_step(step, units) for step in steps}
    lay = [told[step.key].do for step in steps if step.section == "Pack" and step.goes_in is not None]
    closes = [told[step.key].do for step in steps if step.section == "Close"]
    count = next(step.count for step in steps if step.key == "all in")
    inserts = [one.name for one in boxed.load.extras if one.lies_flat]
    return PaperFacts(
        title=job.title or "Untitled job", shop=today.file.name, sender=sender_of(today.file, job.channel),
        to=recipient.address.set_out(), order=recipient.order, note=recipient.note,
        contents=[(many, name) for name, many in count if name not in inserts], inserts=inserts,
        marks=marks_of(boxed.load), plain=to_pack.plain, customs=_customs(job, picture, sending, today),
        checks=closing_checks(boxed.made),
        own_checks=to_pack.checklist, box=called(boxed.made), opens=opening(boxed.made, boxed.load), lay=lay,
        closes=closes,
        day=today_in_words(), service=_service(job, label), number=_number(sending, label),
        put_back=put_back(to_pack.take_apart),
    )  # fmt: skip


def label_facts(key: str, context: AppContext) -> LabelFacts:
    """What the label of a saved job says. Raises NoAnswer where it is not known whom it goes to."""
    job, today = context.jobs.get(key).job, context.today_for(key)
    recipient, sending = context.recipients.of(key).recipient, context.sendings.of(key).sending
    if recipient.address.is_empty:
        raise NoAnswer("Nobody is written down whom it goes to; enter the recipient first.")
    picture, label, units = today.draw_up(job), context.labels.of_job(key), today.shop.units
    to_pack, closed = to_pack_of(job, picture), closed_of(sending.closed, units)
    weight = closed.weight or (to_pack.boxed.weights.total if to_pack else None)
    sides = closed.sides or (to_pack.boxed.made.outside if to_pack else None)
    return LabelFacts(
        to=recipient.address.set_out(), sender=sender_of(today.file, job.channel), service=_service(job, label),
        number=_number(sending, label), weighs=show_mass(weight, units, "up").text if weight else "",
        measures=show_sizes(longest_first(sides), units, "up").text if sides else "", order=recipient.order,
        marks=marks_of(to_pack.boxed.load) if to_pack and not to_pack.plain else (), day=today_in_words(),
    )  # fmt: skip


def hand_over_facts(day: date, context: AppContext) -> HandOverList:
    """What was handed over on a day, by carrier, for a list to sign."""
    shop, units = context.today.file, context.today.shop.units
    by_carrier: dict[str, list[Carried]] = {}
    for line in context.jobs.handed_over_on(day):
        job, sending = line.read().job, context.sendings.of(line.id).sending
        label, closed = context.labels.of_job(line.id), closed_of(sending.closed, units)
        carrier, service = _carrier(job, label)
        weighs = show_mass(closed.weight, units, "up").text if closed.weight else ""
        carried = Carried(
            job.title or "Untitled job", job.ship.to or "", service, _number(sending, label), weighs
        )  # fmt: skip
        by_carrier.setdefault(carrier or "no carrier chosen", []).append(carried)
    return HandOverList(shop.name, day_in_words(day), by_carrier)


def _carrier(job: JobFile, label: Label | None) -> tuple[str, str]:
    if label is not None and label.state == "sold":
        return label.carrier, label.service
    price = job.chosen.price
    return (price.carrier, price.service) if price else ("", "")


def _service(job: JobFile, label: Label | None) -> str:
    return " ".join(part for part in _carrier(job, label) if part)


def _number(sending: SendingEntry, label: Label | None) -> str:
    return label.tracking or "" if label is not None and label.state == "sold" else sending.number.strip()


def _customs(job: JobFile, picture: Picture, sending: SendingEntry, today: Today) -> Customs | None:
    said, units = job.customs, today.shop.units
    if said is None or not said.contents:
        return None
    closed = closed_of(sending.closed, units).weight
    weight = closed or (picture.current.boxed.weights.total if picture.current else None)
    value = f"{picture.job.value} {today.shop.currency}" if picture.job.value is not None else ""
    return Customs(
        said.contents, said.reason, said.made_in, said.tariff_code, value,
        show_mass(weight, units, "up").text if weight else "",
    )  # fmt: skip
