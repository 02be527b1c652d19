"""What differs between two versions of a tariff, in the words of a bill: terms, zone chart, charges and prices."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import TypeVar

from pydantic import BaseModel

from fardo.core.quantity import Units
from fardo.files.charges import ChargeBase, GridEntry, Rows, SurchargeEntry
from fardo.files.tariff import ServiceEntry, TariffFile
from fardo.files.typed import in_words, kind_of

NOTHING = "nothing"
_SET_APART = ("name", "programme", "zones", "charges")
Entry = TypeVar("Entry")
Both = tuple[Units, Units]
Prices = dict[tuple[str, str], Fraction]  # by row and zone


@dataclass(frozen=True, slots=True)
class TariffDifference:
    """One thing that differs.

    Args:
        of: what it is of: the service, then its term or charge.
        was: in the one version.
        now: in the other.
    """

    of: str
    was: str
    now: str


def tariff_differences(before: TariffFile, after: TariffFile) -> list[TariffDifference]:
    """All that differs, service by service: those of one name and rate plan are set against each other in their order.

    A table with other prices is one line: how many are others, and by how much per cent.
    """
    found = [
        TariffDifference(name, was, now)
        for name, was, now in (("currency", before.currency, after.currency), ("units", before.units, after.units))
        if was != now
    ]
    units = before.units, after.units
    both, gone, new = _matched(before.services, after.services, lambda one: (one.name, one.programme))
    for was, now in both:
        found += _of_service(was, now, units)
    found += [TariffDifference(_called(one), _in_short(one), NOTHING) for one in gone]
    found += [TariffDifference(_called(one), NOTHING, _in_short(one)) for one in new]
    return found


def _called(service: ServiceEntry) -> str:
    return f"{service.name}, {service.programme}"


def _in_short(service: ServiceEntry) -> str:
    days = [f"{word} {day}" for word, day in (("from", service.valid_from), ("to", service.valid_to)) if day]
    charges = f"{len(service.charges)} charges" if len(service.charges) > 1 else "1 charge"
    return " ".join((charges, *days))


def _matched(
    before: Sequence[Entry], after: Sequence[Entry], named: Callable[[Entry], object]
) -> tuple[list[tuple[Entry, Entry]], list[Entry], list[Entry]]:
    """Those of one name against each other in their order, then what only the one and only the other has."""
    both, gone, new = [], [], list(after)
    for one in before:
        at = next((n for n, other in enumerate(new) if named(other) == named(one)), None)
        if at is None:
            gone.append(one)
        else:
            both.append((one, new.pop(at)))
    return both, gone, new


def _of_service(was: ServiceEntry, now: ServiceEntry, units: Both) -> Iterator[TariffDifference]:
    of = _called(now)
    yield from _terms(of, was, now, units, _SET_APART)
    yield from _zone_chart(of, was, now)
    both, gone, new = _matched(was.charges, now.charges, lambda charge: (charge.kind, charge.called))
    for one, other in both:
        yield from _of_charge(f"{of}: {one.called}", one, other, units)
    yield from (TariffDifference(f"{of}: {one.called}", one.words(units[0]), NOTHING) for one in gone)
    yield from (TariffDifference(f"{of}: {one.called}", NOTHING, one.words(units[1])) for one in new)
    if (order := _in_order(was, now)) is not None:
        yield TariffDifference(f"{of}: order of the charges", *order)


def _terms(of: str, was: BaseModel, now: BaseModel, units: Both, without: Sequence[str]) -> Iterator[TariffDifference]:
    """Each term that is another, those of a group by themselves."""
    for name, field in type(now).model_fields.items():
        if name in without:
            continue
        one, other = getattr(was, name), getattr(now, name)
        called = f"{of}: {field.title or name.replace('_', ' ')}"
        if isinstance(one, BaseModel) and isinstance(other, BaseModel):
            yield from _terms(called, one, other, units, ())
        else:
            kind = kind_of(field)
            says = [
                in_words(value, of_file, kind) if kind and isinstance(value, str | float) else _plain(value)
                for value, of_file in zip((one, other), units, strict=True)
            ]
            if says[0] != says[1]:
                yield TariffDifference(called, *says)


def _plain(value: object) -> str:
    if isinstance(value, BaseModel):
        return ", ".join(f"{name.replace('_', ' ')} {said}" for name, said in value if said not in (None, "", False))
    if isinstance(value, list | tuple):
        return ", ".join(_plain(one) for one in value) or NOTHING
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(value) if value not in (None, "") else NOTHING


def _zone_chart(of: str, was: ServiceEntry, now: ServiceEntry) -> Iterator[TariffDifference]:
    one, other = ({
        (row.origin, row.country, to): (row.zone, tuple(row.days)) for row in service.zones for to in row.to
    } for service in (was, now))  # fmt: skip
    if one == other:
        return
    told = (
        (len(other.keys() - one.keys()), "added"),
        (len(one.keys() - other.keys()), "left out"),
        (sum(one[key][0] != other[key][0] for key in one.keys() & other.keys()), "in another zone"),
        (sum(one[key][0] == other[key][0] and one[key] != other[key] for key in one.keys() & other.keys()),
         "in other days"),
    )  # fmt: skip
    now_says = ", ".join(f"{count} {how}" for count, how in told if count)
    yield TariffDifference(f"{of}: zone chart", f"{len(one)} lines", f"{len(other)} lines: {now_says}")


def _of_charge(called: str, was: ChargeBase, now: ChargeBase, units: Both) -> Iterator[TariffDifference]:
    says = was.words(units[0]), now.words(units[1])
    prices = _prices_differ(_cells(was), _cells(now))
    if says[0] != says[1] or prices:
        yield TariffDifference(called, says[0], f"{says[1]}{f' ({prices})' if prices else ''}")
    else:
        yield from _terms(called, was, now, units, ("kind", "rows", "prices", "zones", "tail"))


def _cells(charge: ChargeBase) -> Prices:
    """Each price of a table or of a surcharge by the words of its row and the name of its zone."""
    rows = []
    if isinstance(charge, Rows):
        rows = [(row[0], row[1:]) for row in charge.rows]
    if isinstance(charge, GridEntry) and charge.tail is not None:
        rows.append(("further", charge.tail.prices))
    if isinstance(charge, SurchargeEntry) and charge.prices is not None:
        rows.append(("", charge.prices))
    zones = getattr(charge, "zones", []) or [""]
    return {(key, zone): Fraction(price) for key, prices in rows for zone, price in zip(zones, prices, strict=True)}


def _prices_differ(was: Prices, now: Prices) -> str:
    """How many prices are others, and by how much; nothing where all are the same."""
    shared = was.keys() & now.keys()
    changed = [key for key in shared if was[key] != now[key]]
    told = []
    if changed:
        told.append(f"{len(changed)} of {len(shared)} prices differ")
        by = [100 * (now[key] / was[key] - 1) for key in changed if was[key]]
        if by:
            told.append(" to ".join(dict.fromkeys((_per_cent(min(by)), _per_cent(max(by))))))
    for keys, how in ((now.keys() - was.keys(), "added"), (was.keys() - now.keys(), "left out")):
        if keys:
            told.append(f"{len(keys)} prices {how}" if len(keys) > 1 else f"1 price {how}")
    return ", ".join(told)


def _per_cent(of: Fraction) -> str:
    return f"{float(of):+.1f} %"


def _in_order(was: ServiceEntry, now: ServiceEntry) -> tuple[str, str] | None:
    """The charges of both in their orders, where the same stand in another."""
    one, other = ([charge.called for charge in service.charges] for service in (was, now))
    return (", ".join(one), ", ".join(other)) if one != other and sorted(one) == sorted(other) else None
