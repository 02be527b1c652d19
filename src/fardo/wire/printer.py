"""A printer over the network: it takes PDF and says how many pages came out.

Nothing is tried a second time: what is asked twice may be printed twice.
"""

from __future__ import annotations

import httpx
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fardo.core.refusal import NoAnswer

_CONNECTS_S, _PRINTS_S = 2.0, 15.0
_LARGEST_ANSWER = 10_000


class Printed(BaseModel):
    """What a printer answers."""

    model_config = ConfigDict(json_schema_extra={"examples": [{"pages": 1}]})
    pages: int = Field(ge=0, le=10_000, description="that came out")


class _Refused(BaseModel):
    detail: str = Field(max_length=200)


def print_out(address: str, pdf: bytes, transport: httpx.BaseTransport | None = None) -> Printed:
    """Sends a document to a printer.

    Args:
        address: of the printer, as the shop keeps it.
        pdf: the document.
        transport: in the place of the network.

    Raises:
        NoAnswer: in a sentence, where the printer cannot be reached or does not print.
    """
    times = httpx.Timeout(_PRINTS_S, connect=_CONNECTS_S)
    try:
        with httpx.Client(timeout=times, transport=transport, trust_env=False, follow_redirects=False) as client:
            answer = client.post(
                f"{address.rstrip('/')}/print", content=pdf, headers={"Content-Type": "application/pdf"}
            )
    except httpx.ConnectError as fault:
        raise NoAnswer(f"The printer at {address} cannot be reached; nothing was printed.") from fault
    except httpx.TimeoutException as fault:
        raise NoAnswer(f"The printer at {address} does not answer in time; look whether it printed.") from fault
    except (httpx.HTTPError, httpx.InvalidURL, ValueError) as fault:
        raise NoAnswer(f"The printer at {address} answers what cannot be read; look whether it printed.") from fault
    content = answer.content[:_LARGEST_ANSWER]
    try:
        if answer.status_code == httpx.codes.OK:
            return Printed.model_validate_json(content)
        why = _Refused.model_validate_json(content).detail
    except ValidationError as fault:
        says = f"The printer at {address} answers what cannot be read (status {answer.status_code})"
        raise NoAnswer(f"{says}; look whether it printed.") from fault
    raise NoAnswer(f"The printer at {address} does not print: {why}.")
