"""A printer over the network: it takes PDF and says how many pages came out.

Nothing is tried a second time: what is asked twice may be printed twice.
"""

from __future__ import annotations

import httpx
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fardo.core.refusal import NoAnswer
from fardo.wire.exchange import AnswerTooLarge, AnswerTooLate, Bounds, Transport, exchange, open_client

_BOUNDS = Bounds(connect_s=2.0, read_s=15.0, whole_s=20.0, most_bytes=10_000)


class Printed(BaseModel):
    """What a printer answers."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"pages": 1}]})
    pages: int = Field(ge=0, le=10_000, description="that came out")


class _Refused(BaseModel):
    detail: str = Field(max_length=200)


async def print_out(
    address: str, pdf: bytes, *, bounds: Bounds = _BOUNDS, transport: Transport | None = None
) -> Printed:
    """Sends a document to a printer.

    Args:
        address: of the printer, as the shop keeps it.
        pdf: the document.
        bounds: of the whole call.
        transport: in the place of the network.

    Raises:
        NoAnswer: in a sentence, where the printer cannot be reached or does not print.
    """
    headers = {"Content-Type": "application/pdf"}
    try:
        async with open_client(bounds, transport) as client:
            status, content = await exchange(client, "POST", f"{address.rstrip('/')}/print", pdf, headers, bounds)
    except (httpx.ConnectError, httpx.ConnectTimeout) as fault:
        raise NoAnswer(f"The printer at {address} cannot be reached; nothing was printed.") from fault
    except (AnswerTooLate, httpx.TimeoutException) as fault:
        raise NoAnswer(f"The printer at {address} does not answer in time; look whether it printed.") from fault
    except (AnswerTooLarge, httpx.HTTPError, httpx.InvalidURL, ValueError) as fault:
        raise NoAnswer(f"The printer at {address} answers what cannot be read; look whether it printed.") from fault
    try:
        if status == httpx.codes.OK:
            return Printed.model_validate_json(content)
        why = _Refused.model_validate_json(content).detail
    except ValidationError as fault:
        says = f"The printer at {address} answers what cannot be read (status {status})"
        raise NoAnswer(f"{says}; look whether it printed.") from fault
    raise NoAnswer(f"The printer at {address} does not print: {why}.")
