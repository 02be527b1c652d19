"""Labels as they are bought: written down before the carrier is asked, and asked about until it has said.

Nothing here ends with "no label was bought" unless the carrier said so. What is unknown stays unknown, blocks a second
purchase, and is asked about again under the same key: at once, then ever more rarely, and from the start of the shop.
"""

from __future__ import annotations

import asyncio
import logging
import math
from collections.abc import Callable, Sequence
from contextlib import suppress

from fastapi.concurrency import run_in_threadpool

from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.shop import WireEntry
from fardo.store.labels import GivenQuote, Label, Labels, NotGiven, Taken
from fardo.wire.call import PATIENCE, Patience, Wire
from fardo.wire.labels import LabelAnswer, buy_label, void_label
from fardo.wire.messages import LabelAsked

_FIRST_PAUSE_S = 2.0
_LONGEST_PAUSE_S = 60.0
_AT_ONCE = 4  # labels of one carrier


class Purchases:
    """The purchases of one shop.

    Args:
        labels: where they are kept.
        wires: gives the carriers that can be asked, as the shop has them today.
    """

    def __init__(self, labels: Labels, wires: Callable[[], Sequence[WireEntry]], patience: Patience = PATIENCE) -> None:
        self._labels, self._wires = labels, wires
        self.patience = patience
        self._asking: dict[str, asyncio.Event] = {}
        self._asked: set[str] = set()  # keys of purchases that were asked about since the shop was opened
        self._pauses: dict[str, float] = {}

    async def buy(self, job_id: str, wanted: GivenQuote) -> Label:
        """Buys the label of a quote, once.

        Returns:
            What is known of it: sold, or still asked about.

        Raises:
            NoAnswer: where the carrier says that it did not sell, or the job has a live label already.
            BadInput: where the carrier cannot be asked, or the quote was not given for this job.
        """
        await run_in_threadpool(self.wire, wanted.carrier)
        try:
            label = await run_in_threadpool(self._labels.intend, job_id, wanted)
        except Taken as taken:
            raise NoAnswer(_why_taken(taken.label, job_id)) from taken
        except NotGiven as error:
            raise BadInput(
                "not a quote that was given for this job at this price", read=wanted.quote, field="quote",
                allowed="one of the last answers; ask the carrier again",
            ) from error  # fmt: skip
        label = await self._ask(label, asked_before=False)
        if label.state == "unsold":
            raise NoAnswer(f"No label was bought: {label.carrier} {label.says}.")
        return label

    async def void(self, job_id: str) -> Label:
        """Voids the live label of a job, or the purchase that is still asked about.

        Returns:
            What is known of it: void, or still asked about.

        Raises:
            NoAnswer: where there is none, or the carrier will not.
        """
        label = await run_in_threadpool(self._labels.of_job, job_id)
        if label is None or not label.live:
            raise NoAnswer("This job has no label that could be voided.")
        label = await run_in_threadpool(self._labels.settle, label, "voiding", label.says)
        label = await self._ask(label, asked_before=True)
        if label.state == "sold":
            raise NoAnswer(f"The label is not void: {label.carrier} {label.says}.")
        return label

    async def ask_again(self, job_id: str) -> Label | None:
        """Asks at once about a purchase that is not settled; what is known of the job's label then."""
        label = await run_in_threadpool(self._labels.of_job, job_id)
        if label is not None and (underway := self._asking.get(label.key)) is not None:
            # What was asked before may end without an answer: it is waited for, and then asked anew.
            await underway.wait()
            label = await run_in_threadpool(self._labels.of_job, job_id)
        if label is not None and label.state in ("asking", "voiding"):
            label = await self._ask(label, asked_before=True)
        return label

    async def keep_asking(self) -> None:
        """Asks about whatever is not settled, for as long as the shop is open.

        Each label is asked about by itself, a few at a time of one carrier, so that one that does not answer keeps no
        other from being asked about.
        """
        loop = asyncio.get_running_loop()
        due: dict[str, float] = {}
        places: dict[str, asyncio.Semaphore] = {}

        async def ask_in_turn(label: Label) -> None:
            async with places.setdefault(label.carrier, asyncio.Semaphore(_AT_ONCE)):
                with suppress(Exception):  # one that cannot be kept is asked about again; the others go on
                    await self._ask(label, asked_before=True)
            pause = self._pauses.get(label.key, _FIRST_PAUSE_S)
            due[label.key] = loop.time() + pause
            self._pauses[label.key] = min(pause * 2, _LONGEST_PAUSE_S)

        async with asyncio.TaskGroup() as questions:
            while True:
                with suppress(Exception):
                    for label in await run_in_threadpool(self._labels.unsettled):
                        if loop.time() >= due.get(label.key, 0.0):
                            due[label.key] = math.inf  # until it was asked about
                            questions.create_task(ask_in_turn(label))
                await asyncio.sleep(_FIRST_PAUSE_S)

    def wire(self, carrier: str) -> Wire:
        """Raises BadInput for a carrier that is not asked over the network."""
        wires = self._wires()
        for entry in wires:
            if entry.carrier == carrier:
                return Wire(entry.carrier, entry.address)
        allowed = ", ".join(entry.carrier for entry in wires) or "none is set"
        raise BadInput("not a carrier that is asked over the network", read=carrier, allowed=allowed, field="carrier")

    async def _ask(self, label: Label, asked_before: bool) -> Label:
        """Asks once, unless somebody is asking already; what is known afterwards, which is kept before it is told."""
        if label.key in self._asking:
            return label
        # Whoever looks for what is unsettled may have asked before the one who buys: then the carrier may have sold.
        asked_before = asked_before or label.key in self._asked
        self._asked.add(label.key)
        self._asking[label.key] = underway = asyncio.Event()
        try:
            # It may have been settled since it was read; asked again, a carrier might sell what nobody would know of.
            label = await run_in_threadpool(self._labels.get, label.key)
            if label.state not in ("asking", "voiding"):
                return label
            answer = await self._answer(label, asked_before)
            return await run_in_threadpool(self._keep, label, answer)
        except BadInput as gone:
            return await run_in_threadpool(self._labels.settle, label, label.state, f"cannot be asked: {gone.why}")
        except Exception:  # what is not known stays to be asked
            logging.getLogger("fardo").exception("asking about a label ended")
            return label
        finally:
            del self._asking[label.key]
            underway.set()

    async def _answer(self, label: Label, asked_before: bool) -> LabelAnswer:
        wire = await run_in_threadpool(self.wire, label.carrier)
        if label.state == "voiding":
            return await void_label(wire, label.key, self.patience)
        message = LabelAsked(quote=label.quote, at_most=label.at_most, currency=label.currency)
        return await buy_label(wire, message, label.key, asked_before=asked_before, patience=self.patience)

    def _keep(self, label: Label, answer: LabelAnswer) -> Label:
        if answer.state == "unknown":
            return self._labels.settle(label, label.state, answer.says)
        self._pauses.pop(label.key, None)
        if answer.label is None:
            return self._labels.settle(label, answer.state, answer.says)
        sold = answer.label
        return self._labels.settle(
            label, "sold", answer.says, tracking=sold.tracking, amount=sold.amount, currency=sold.currency
        )


def _why_taken(label: Label, job_id: str) -> str:
    if label.job_id != job_id:
        return "This quote was spent on another job; ask the carrier again."
    if label.state == "sold":
        return f"A label is bought already: {label.tracking}. Void it before another is bought."
    if label.state == "voiding":
        return f"A label is being voided; {label.carrier} has not said yet that it is."
    return (
        f"A label may have been bought: {label.carrier} {label.says or 'has not answered yet'}. "
        "It is asked again until it says; until then no other can be bought."
    )
