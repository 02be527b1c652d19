"""Labels bought over the network, looked up and voided, each under the key of its purchase; and where a parcel is.

A carrier sells at most one label under a key, however often it is asked, and tells by the key what it sold. So a
purchase that came to no answer is asked about again under its key until the carrier says that it sold, or that it did
not: nothing else is certain.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import httpx

from fardo.core.quantity import Money
from fardo.core.refusal import BadInput
from fardo.wire.call import PATIENCE, Patience, Trouble, Wire, call, client_of
from fardo.wire.exchange import Transport
from fardo.wire.messages import LabelAsked, LabelSaid, TrackingSaid, VoidSaid


@dataclass(frozen=True, slots=True)
class LabelAnswer:
    """What is known of a purchase.

    Args:
        state: sold or not, void, or unknown: then it must be asked about again.
        says: a sentence that follows the carrier's name, where there is something to say.
        label: where it was sold.
    """

    state: Literal["sold", "unsold", "void", "unknown"]
    says: str = ""
    label: LabelSaid | None = None


class NoTracking(Exception):
    """The carrier does not say where a parcel is; the sentence follows its name."""


async def buy_label(
    wire: Wire, message: LabelAsked, key: str, *, asked_before: bool = False, patience: Patience = PATIENCE,
    transport: Transport | None = None,
) -> LabelAnswer:  # fmt: skip
    """Asks for a label at no more than the price that was seen.

    Args:
        key: names this purchase.
        asked_before: whether the carrier was asked under this key before and may have sold then.
    """
    headers = {"Idempotency-Key": key}
    async with client_of(patience, transport) as client:
        try:
            said, _ = await call(client, wire, "POST", "labels", LabelSaid, patience, message, headers)
        except Trouble as trouble:
            if not (trouble.uncertain or asked_before):
                return LabelAnswer("unsold", trouble.says)
            found = await _look_up(client, wire, key, patience)
            if found.state == "sold":
                return _sold(found.label, message)
            # A carrier that knows of no sale may be making one at this moment, unless it has refused it.
            refused = trouble.state == "refused" and found.state == "unsold"
            return LabelAnswer("unsold" if refused else "unknown", trouble.says)
    return _sold(said, message)


async def void_label(
    wire: Wire, key: str, patience: Patience = PATIENCE, transport: Transport | None = None
) -> LabelAnswer:
    """Voids what was sold under a key, or sees to it that nothing will be. `sold` where the carrier will not."""
    async with client_of(patience, transport) as client:
        try:
            await call(client, wire, "DELETE", f"labels/{key}", VoidSaid, patience)
        except Trouble as trouble:
            if not 400 <= trouble.status < 500:
                return LabelAnswer("unknown", trouble.says)
            found = await _look_up(client, wire, key, patience)
            if found.state == "sold":
                return LabelAnswer("sold", f"will not void it (status {trouble.status})", found.label)
            return LabelAnswer("unknown", trouble.says)
    return LabelAnswer("void")


async def track(
    wire: Wire, tracking: str, patience: Patience = PATIENCE, transport: Transport | None = None
) -> TrackingSaid:
    """Where a parcel is. Raises NoTracking where the carrier does not say."""
    async with client_of(patience, transport) as client:
        try:
            said, _ = await call(client, wire, "GET", f"tracking/{tracking}", TrackingSaid, patience)
        except Trouble as trouble:
            raise NoTracking(trouble.says) from trouble
    return said


async def _look_up(client: httpx.AsyncClient, wire: Wire, key: str, patience: Patience) -> LabelAnswer:
    """What the carrier has under a key: sold, unsold where it says that it has nothing, else unknown."""
    try:
        said, _ = await call(client, wire, "GET", f"labels/{key}", LabelSaid, patience)
    except Trouble as trouble:
        return LabelAnswer("unsold" if trouble.status == 404 else "unknown", trouble.says)
    return LabelAnswer("sold", label=said)


def _sold(said: LabelSaid | None, message: LabelAsked) -> LabelAnswer:
    """A label that was sold, with a word where it was for more than was agreed to."""
    if said is None:
        return LabelAnswer("unknown")
    try:
        asked, agreed = Money.read(said.amount, said.currency), Money.read(message.at_most, message.currency)
        dearer = said.currency != message.currency or asked > agreed
    except BadInput:
        dearer = True
    told = f"sold it for {said.amount} {said.currency}, not for the {message.at_most} {message.currency} agreed to"
    says = told if dearer else ""
    return LabelAnswer("sold", says, said)
