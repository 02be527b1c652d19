"""What became of a job's parcel: closed, priced again, numbered, handed over."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import AppContext, Context
from fardo.api.resource import resource
from fardo.api.sending import SendingView, used_by, view_sending
from fardo.core.refusal import BadInput
from fardo.files.sending import EXAMPLE, SendingEntry, must_be_whole
from fardo.files.typed import with_units

router = resource("/api/jobs/{key}/sending", "sending")


class SendingChange(BaseModel):
    """What became of a parcel, changed from a revision."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 0, "sending": EXAMPLE}]})
    revision: int = Field(ge=0, le=10**9)
    sending: SendingEntry


@router.get("")
def get_sending(key: str, context: Context) -> SendingView:
    """What became of it so far, its last knots, and what it costs as it is."""
    job, stored = context.jobs.get(key).job, context.sendings.of(key)
    return view_sending(key, job, stored, context.today.with_back(stored.taken).draw_up(job), context)


@router.put("")
def change_sending(key: str, change: SendingChange, context: Context) -> SendingView:
    """Writes it down; answers 409 where it was changed since the revision named. A parcel that is closed or handed over
    takes its boxes and mailers off the stock, once; undone, they go back.
    """
    units, entry = context.today.shop.units, change.sending
    must_be_whole(entry, units)
    _must_be_kept(entry, context)
    job, kept = context.jobs.get(key).job, context.sendings.of(key)
    picture = context.today.with_back(kept.taken).draw_up(job)
    used = used_by(job, entry, picture, units)
    stored = context.sendings.change(key, change.revision, with_units(entry, units), used)
    return view_sending(key, job, stored, picture, context)


def _must_be_kept(entry: SendingEntry, context: AppContext) -> None:
    """Raises BadInput for a receipt that is no file kept here."""
    for n, name in enumerate(entry.handed_over.receipts if entry.handed_over else []):
        if context.find_file(name) is None:
            raise BadInput(
                "not a file that is here", read=name, allowed="a photograph sent in",
                field=f"handed_over.receipts[{n}]",
            )  # fmt: skip
