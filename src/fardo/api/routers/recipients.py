"""Who a job's parcel goes to: written down, parted from a pasted text, forgotten."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict, Field

from fardo.api.context import Context
from fardo.api.resource import resource
from fardo.files.address import LONGEST, AddressEntry, part_address
from fardo.files.recipient import EXAMPLE, RecipientEntry
from fardo.store.recipients import StoredRecipient

router = resource("/api/jobs/{key}/recipient", "recipients")
parting = resource("/api/address", "recipients")


class RecipientView(BaseModel):
    """Who it goes to."""

    revision: int
    recipient: RecipientEntry
    forgotten_at: str | None = Field(description="when the person was forgotten")


class RecipientChange(BaseModel):
    """Who it goes to, changed from a revision."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"revision": 0, "recipient": EXAMPLE}]})
    revision: int = Field(ge=0, le=10**9)
    recipient: RecipientEntry


class Pasted(BaseModel):
    """An address as one text."""

    model_config = ConfigDict(
        json_schema_extra={"examples": [{"text": "Isolde Marran\n14 Ropewalk Lane\n73120 Ostwick"}]}
    )
    text: str = Field(max_length=LONGEST)


@router.get("")
def get_recipient(key: str, context: Context) -> RecipientView:
    """Who it goes to, as far as that is written down."""
    context.jobs.line(key)
    return _view(context.recipients.of(key))


@router.put("")
def change_recipient(key: str, change: RecipientChange, context: Context) -> RecipientView:
    """Writes it down; answers 409 where it was changed since the revision named."""
    return _view(context.recipients.change(key, change.revision, change.recipient))


@router.delete("")
def forget_recipient(key: str, context: Context) -> RecipientView:
    """Forgets the person, with notes and receipts; figures stay. It cannot be undone."""
    return _view(context.recipients.forget(key))


@parting.post("/part")
def part(pasted: Pasted) -> AddressEntry:
    """The fields of an address that was pasted as one text; what fits none stays among its lines."""
    return part_address(pasted.text)


def _view(stored: StoredRecipient) -> RecipientView:
    return RecipientView(
        revision=stored.revision, recipient=stored.recipient, forgotten_at=stored.forgotten_at
    )  # fmt: skip
