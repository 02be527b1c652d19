"""Addresses: pasted as one text and parted into fields, and set again as the lines of a label.

A text is parted by what its lines look like, in the forms that are usual (common practice): *town, region and code*,
*code and town*, *town and code*, each as the last line but for a country. What fits none stays among the lines, so
that nothing of an address is lost.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Annotated, Any

from pydantic import ConfigDict, Field, ValidationError

from fardo.files.typed import Strict, complaints

LONGEST = 1000
_MOST_LINES = 4
EXAMPLE: dict[str, Any] = {
    "name": "Isolde Marran", "lines": ["14 Ropewalk Lane"], "town": "Ostwick", "region": "", "postcode": "73120",
}  # fmt: skip

_MAIL = re.compile(r"[^\s@,;]+@[^\s@,;]+\.[^\s@,;]+")
_PHONE = re.compile(r"(?:(?:tel|phone|mobile|call)\.?:?\s*)?(\+?[\d(][\d\s()./-]{6,20}\d)", re.IGNORECASE)
_TOWN_REGION_CODE = re.compile(r"(?P<town>.*[^\W\d].*?),?\s+(?P<region>[A-Z]{2})\.?,?\s+(?P<code>\d{5}(?:-\d{4})?)")
_CODE_TOWN = re.compile(r"(?:[A-Z]{1,2}-)?(?P<code>\d{3}\s\d{2}|\d{4}\s?[A-Z]{2}|\d{4,6})\s+(?P<town>[^\W\d].*)")
_TOWN_CODE = re.compile(
    r"(?P<town>[^\W\d].*?),?\s+(?P<code>\d{4,6}(?:-\d{3,4})?|[A-Z]{1,2}\d[A-Z\d]?\s?\d[A-Z]{2}|[A-Z]\d[A-Z]\s?\d[A-Z]\d)"
)
_CODE = re.compile(r"(?P<code>\d{4,6}(?:-\d{3,4})?|[A-Z]{1,2}\d[A-Z\d]?\s\d[A-Z]{2}|[A-Z]\d[A-Z]\s\d[A-Z]\d)")


class AddressEntry(Strict):
    """A person or a shop, and where to reach them."""

    model_config = ConfigDict(json_schema_extra={"examples": [EXAMPLE]})
    name: str = Field("", max_length=120)
    lines: list[Annotated[str, Field(max_length=120)]] = Field(
        default_factory=list, max_length=_MOST_LINES, description="company, street, flat, as they are set"
    )
    town: str = Field("", max_length=80)
    region: str = Field("", max_length=40, description="state or province, as it is set beside the town")
    postcode: str = Field("", max_length=20)
    country: str = Field("", max_length=60, description="as it is set; nothing at home")
    phone: str = Field("", max_length=40)
    mail: str = Field("", max_length=120)

    @property
    def is_empty(self) -> bool:
        return self == AddressEntry()

    def set_out(self) -> list[str]:
        """The lines of a label, without phone and mail.

        The code stands before the town where it is set so: where there is no region, and another country.
        """
        town = f"{self.town}, {self.region}" if self.town and self.region else self.town or self.region
        parts = (self.postcode, town) if self.country and not self.region else (town, self.postcode)
        last = " ".join(part for part in parts if part)
        return [line for line in (self.name, *self.lines, last, self.country.upper()) if line.strip()]


def part_address(text: str) -> AddressEntry:
    """An address pasted as one text, in its fields.

    Args:
        text: in lines, or in one line with commas.

    Raises:
        BadInput: where a line is longer than its field takes.
    """
    mail = _MAIL.search(text)
    rest = _MAIL.sub("", text) if mail else text
    lines = _lines(rest)
    phone = ""
    for n in range(len(lines) - 1, 0, -1):  # the first line is a name
        if (found := _PHONE.fullmatch(lines[n])) and sum(one.isdigit() for one in lines[n]) >= 7:
            phone = found[1]
            del lines[n]
            break
    country, place = "", None
    for n in range(len(lines) - 1, 0, -1):
        if (place := _place(lines[n])) is not None:
            country = " ".join(lines[n + 1 :])
            lines = lines[:n]
            break
    if place is not None and not place[0] and len(lines) > 2:  # the town stands on the line before its code
        place = (lines.pop(), *place[1:])
    name, *street = lines or [""]
    try:
        return AddressEntry(
            name=name, lines=_few(street), town=place[0] if place else "", region=place[1] if place else "",
            postcode=place[2] if place else "", country=country, phone=phone, mail=mail.group() if mail else "",
        )  # fmt: skip
    except ValidationError as error:
        raise next(complaints(error, AddressEntry)) from error


def _lines(text: str) -> list[str]:
    """The lines of a text; of one line what its commas part, a town and its region held together."""
    lines = [" ".join(line.split()).strip(" ,;") for line in re.split(r"[\r\n;]+", text)]
    lines = [line for line in lines if line]
    if len(lines) != 1:
        return lines
    parts = [part.strip() for part in lines[0].split(",") if part.strip()]
    for n in range(1, len(parts)):
        if _TOWN_REGION_CODE.fullmatch(f"{parts[n - 1]}, {parts[n]}") and not _TOWN_REGION_CODE.fullmatch(parts[n]):
            return [*parts[: n - 1], f"{parts[n - 1]}, {parts[n]}", *parts[n + 1 :]]
    return parts


def _place(line: str) -> tuple[str, str, str] | None:
    """Town, region and postcode of a line, or None where it is none of that."""
    for form in (_TOWN_REGION_CODE, _CODE_TOWN, _TOWN_CODE, _CODE):
        if found := form.fullmatch(line):
            named = found.groupdict()
            return (named.get("town") or "").strip(" ,"), named.get("region") or "", named["code"]
    return None


def _few(lines: Sequence[str]) -> list[str]:
    """At most so many lines; what is more stands in the last."""
    kept = list(lines[: _MOST_LINES - 1])
    if len(lines) >= _MOST_LINES:
        kept.append(", ".join(lines[_MOST_LINES - 1 :]))
    return kept
