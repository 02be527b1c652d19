"""Parcels, typed or pasted, to try tariffs with: ``24 x 12 x 8 in, 9 lb, 73120, residential``, a line each."""

from __future__ import annotations

from dataclasses import dataclass

from fardo.core.quantity import Units, read_mass, read_sizes
from fardo.core.refusal import BadInput
from fardo.core.tariff.parcel import Parcel, read_postcode
from fardo.files.pasted import pasted_rows
from fardo.files.typed import BARE_MASS

MOST_PARCELS = 500
_HEADS = ("size", "length", "box", "parcel")
_RESIDENTIAL = ("residential", "home", "yes", "r", "x")
_COMMERCIAL = ("", "commercial", "business", "no", "c")


@dataclass(frozen=True, slots=True)
class ListedParcel:
    """A parcel of a list.

    Args:
        called: how it is told from the others.
    """

    called: str
    parcel: Parcel


def read_parcels(text: str, origin: str, units: Units) -> list[ListedParcel]:
    """The parcels of a list: size in one column or three, weight, postcode, and whether the address is residential.

    Args:
        text: as it was typed or pasted; a line of headings is passed over.
        origin: the postcode they leave from.
        units: of measures without one.

    Raises: BadInput naming the line.
    """
    found = []
    for n, cells in pasted_rows(text, MOST_PARCELS, "the list of parcels", "parcels"):
        if n == 1 and cells[0].lower().startswith(_HEADS):
            continue
        field = f"parcels, line {n}"
        row = cells if "x" in cells[0].lower() or "×" in cells[0] else [" x ".join(cells[:3]), *cells[3:]]
        if len(row) < 3:
            raise BadInput(
                "not a parcel", read=", ".join(cells)[:80], allowed="size, weight, postcode: 24 x 12 x 8, 9, 73120",
                field=field,
            )  # fmt: skip
        size, weight, to, *rest = row
        said = rest[0].lower() if rest else ""
        if said not in (*_RESIDENTIAL, *_COMMERCIAL):
            raise BadInput("no address", read=rest[0], allowed="residential or commercial", field=field)
        parcel = Parcel(
            read_sizes(size, units, field=field), read_mass(weight, BARE_MASS[units], field=field), origin,
            read_postcode(to, field), said in _RESIDENTIAL,
        )  # fmt: skip
        called = (size, weight, to, "residential") if parcel.residential else (size, weight, to)
        found.append(ListedParcel(", ".join(called), parcel))
    return found
