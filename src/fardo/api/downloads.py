"""Files a browser is given: with a name that every system takes, to keep or to look at."""

from __future__ import annotations

import re
from datetime import date

from fastapi import Response


def download(content: str | bytes, media_type: str, title: str, ending: str, *, look: bool = False) -> Response:
    """A file named after a job's title; `look` opens it in the browser rather than keeping it."""
    name = re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "job"
    kind = "inline" if look else "attachment"
    return Response(
        content, media_type=media_type, headers={"Content-Disposition": f'{kind}; filename="{name}{ending}"'}
    )


def today_in_words() -> str:
    """The day something is printed, as it stands on every page."""
    return day_in_words(date.today())


def day_in_words(day: date) -> str:
    return f"{day:%d %b %Y}".removeprefix("0")
