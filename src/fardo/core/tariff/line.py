"""Reads a parcel from one typed line: ``24x12x8 9lb to 73120``, ``60 x 30 x 20 cm 4 kg from 10440 to 31200 home``,
``12x6x6 4 lb soft to 73120``, ``12x6x6 4 lb flat 18x12 to 73120``.
"""

from __future__ import annotations

import re

from fardo.core.quantity import Units, read_flat, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel, read_postcode, soft_pack

_NUMBER = r"(?:\d+[\s-]+\d+/\d+|\d+/\d+|\d*[.,]?\d+)"  # 9, 9.5, 9,5, 9 1/2, 9-1/2: a comma and a space part two of them
_WEIGHT = rf"{_NUMBER}\s*(?:lbs?|pounds?|#|oz|kg|g)(?![a-z])(?:\s*[\d./]+\s*oz\b)?"
_LINE = re.compile(
    rf"\s*(?P<sizes>\S.*?[x×*].*?[x×*]\s*\d.*?)[\s,;]+(?P<weight>{_WEIGHT})"
    r"(?:[\s,;]+(?P<soft>soft)|[\s,;]+flat\s+(?P<flat>\d[\d\s./]*(?:in|cm|mm|\")?\s*[x×*]\s*\d[\d\s./]*(?:in|cm|mm|\")?))?"
    r"(?:[\s,;]+from\s+(?P<origin>[\w-]+))?[\s,;]+to\s+(?P<destination>[\w-]+)(?P<home>[\s,;]+home)?\s*",
    re.IGNORECASE,
)
_LOOKS_LIKE_SIZES = re.compile(r"\s*\d[^a-z]*[x×*]\s*\d", re.IGNORECASE)


def read_line(text: str, units: Units, shop_origin: str) -> Parcel | None:
    """The parcel a line describes; None where the line is no parcel at all, so that it may be a search.

    Raises: BadInput where it begins as one and cannot be finished.
    """
    if not _LOOKS_LIKE_SIZES.match(text):
        return None
    found = _LINE.fullmatch(text)
    if not found:
        raise BadInput(
            "sizes with no weight or place after them", read=text, allowed="24x12x8 9lb to 73120", field="line"
        )
    parcel = Parcel(
        read_sizes(found["sizes"].strip(), units, field="size"),
        read_mass(found["weight"], "lb" if units == "in" else "kg", field="weight"),
        read_postcode(found["origin"] or shop_origin, "from"),
        read_postcode(found["destination"], "to"),
        residential=found["home"] is not None,
    )
    if found["flat"]:
        return soft_pack(parcel, read_flat(found["flat"].strip(), units, field="flat"))
    return soft_pack(parcel) if found["soft"] else parcel
