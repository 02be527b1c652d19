"""Tariffs begun from a form: the usual services of a carrier with invented prices, until the shop's own are pasted.

Zones are laid by the first sign of the postcode, near, middle and far. Prices are placeholders, and marked as such on
every service; no label is bought by them.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Literal, get_args

from fardo.core.quantity import Units
from fardo.core.refusal import BadInput
from fardo.files.tariff import FORMAT, TariffFile, check_tariff

FormCode = Literal["zone-weight", "private", "volume", "soft-pack", "container", "freight", "van"]
FORM_CODES: tuple[FormCode, ...] = get_args(FormCode)
_ZONES = ("near", "middle", "far")
_DAYS = ((1, 2), (2, 4), (3, 6))
_DEARER = (1.0, 1.25, 1.6)  # of the zones; invented, as all prices here
_SIGNS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ"
_NEIGHBOURS = 2  # first digits so far apart are still the middle zone


@dataclass(frozen=True, slots=True)
class TariffForm:
    """A form that a tariff is begun from.

    Args:
        title: as it is offered.
        about: when a carrier prices like that.
        service: its service, of the zones and the units given.
    """

    title: str
    about: str
    service: Callable[[_Measures], dict[str, Any]]


@dataclass(frozen=True, slots=True)
class _Measures:
    """Measures of one system.

    Args:
        units: of it.
        boxes: names of containers that the carrier gives, for prices by container.
    """

    units: Units
    boxes: Sequence[str] = ()

    def length(self, inches: float, centimetres: float) -> str:
        return f"{inches:g} in" if self.units == "in" else f"{centimetres:g} cm"

    def weight(self, pounds: float, kilos: float) -> str:
        return f"{pounds:g} lb" if self.units == "in" else f"{kilos:g} kg"

    @property
    def step(self) -> str:
        return self.weight(1, 0.5)


def _prices(base: float) -> list[str]:
    return [f"{base * dearer:.2f}" for dearer in _DEARER]


def _by_weight(of: _Measures, base: float, each: float, most: int) -> list[list[str]]:
    """A row a step up to so many pounds.

    Args:
        each: further pound.
    """
    steps = range(1, most + 1) if of.units == "in" else range(1, most * 9 // 10)
    pounds = 1.0 if of.units == "in" else 1.1
    return [[of.weight(step, step / 2), *_prices(base + each * step * pounds)] for step in steps]


_COVER = {"kind": "cover", "free": "100.00", "step": "100.00", "price": "1.50", "most": "5000.00"}
_SIGNATURE = {
    "kind": "surcharge", "code": "signature", "what": "signature on delivery", "why": "it is asked for",
    "prices": ["4.00"], "when": {"signature": True},
}  # fmt: skip


def _zone_weight(of: _Measures) -> dict[str, Any]:
    divisor = {"divisor": "166", "unit": "in3/lb"} if of.units == "in" else {"divisor": "5000", "unit": "cm3/kg"}
    limits = {"length_and_girth": of.length(130, 330), "weight": of.weight(70, 31)}
    charges = [{"kind": "grid", "zones": [*_ZONES], "rows": _by_weight(of, 6.5, 0.55, 70)}, _SIGNATURE, _COVER]
    return {"name": "Parcel", "dimensional": {**divisor, "sides": "up"}, "limits": limits, "charges": charges}


def _private(of: _Measures) -> dict[str, Any]:
    divisor = {"divisor": "139", "unit": "in3/lb"} if of.units == "in" else {"divisor": "5000", "unit": "cm3/kg"}
    steep = [
        ("large parcel", f"length and girth over {of.length(130, 330)}",
         {"length_and_girth_over": of.length(130, 330)}, 90.0),
        ("additional handling, weight", f"over {of.weight(50, 23)}", {"weight_over": of.weight(50, 23)}, 24.0),
        ("additional handling, longest side", f"longest side over {of.length(48, 120)}",
         {"longest_side_over": of.length(48, 120)}, 16.0),
        ("additional handling, second side", f"second side over {of.length(30, 76)}",
         {"second_side_over": of.length(30, 76)}, 16.0),
        ("additional handling, packing", "not in a box", {"forms": ["soft", "not rectangular"]}, 12.0),
    ]  # fmt: skip
    handling = [
        {"kind": "surcharge", "code": "handling", "group": "handling", "what": what, "why": why, "when": when,
         "zones": [*_ZONES], "prices": _prices(price)}
        for what, why, when, price in steep
    ]  # fmt: skip
    rows = _by_weight(of, 7.5, 0.6, 150)
    limits = {"longest_side": of.length(108, 270), "length_and_girth": of.length(165, 419), "weight": rows[-1][0]}
    charges = [
        {"kind": "grid", "zones": [*_ZONES], "rows": rows}, *handling, {"kind": "residential", "amount": "4.50"},
        {**_SIGNATURE, "prices": ["5.50"]},
        {"kind": "fuel", "percent": "15", "on": ["postage", "residential", "handling"]}, _COVER,
    ]  # fmt: skip
    return {"name": "Ground", "programme": "account", "dimensional": {**divisor, "sides": "up"}, "limits": limits,
            "charges": charges}  # fmt: skip


def _volume(of: _Measures) -> dict[str, Any]:
    inches = of.units == "in"
    tiers = ("0.1", "0.2", "0.3", "0.4", "0.5") if inches else ("3", "6", "9", "12", "15")
    charge = {
        "kind": "volume", "unit": "ft3" if inches else "dm3", "step": of.length(0.25, 0.5),
        "longest_side": of.length(18, 45), "weight": of.weight(20, 9), "zones": [*_ZONES],
        "rows": [[tier, *_prices(6.5 + 1.1 * n)] for n, tier in enumerate(tiers)],
    }  # fmt: skip
    limits = {"longest_side": of.length(18, 45), "weight": of.weight(20, 9)}
    return {"name": "Small parcel by volume", "programme": "account", "limits": limits, "charges": [charge, _COVER]}


def _soft_pack(of: _Measures) -> dict[str, Any]:
    sums = ((21, 53), (27, 68), (31, 78), (36, 91))
    charge = {
        "kind": "soft-pack", "side": of.length(18, 45), "weight": of.weight(20, 9), "zones": [*_ZONES],
        "rows": [[of.length(*flat), *_prices(6.2 + 1.0 * n)] for n, flat in enumerate(sums)],
    }  # fmt: skip
    return {"name": "Soft pack", "programme": "account", "charges": [charge, _COVER]}


def _container(of: _Measures) -> dict[str, Any]:
    names = [*of.boxes] or ["flat-price envelope", "flat-price box, small", "flat-price box, large"]
    charge = {
        "kind": "container", "weight": of.weight(70, 30),
        "rows": [[name, f"{10 + 4.5 * n:.2f}"] for n, name in enumerate(names)],
    }  # fmt: skip
    return {"name": "Flat price by container", "charges": [charge, _COVER]}


def _freight(of: _Measures) -> dict[str, Any]:
    classes = ("50", "55", "60", "65", "70", "85", "92.5", "100", "125", "175", "250", "300", "400")
    rows = [[one, f"{0.9 * float(one):.2f}", f"{1.3 * float(one):.2f}"] for one in classes]
    charges = [
        {"kind": "freight", "for_all": True, "zones": ["near", "far"], "minimum": "130.00", "rows": rows},
        {"kind": "surcharge", "for_all": True, "code": "residential", "what": "residential surcharge, with a tail lift",
         "why": "the address is a home", "prices": ["75.00"], "when": {"home": True}},
        {"kind": "fuel", "for_all": True, "percent": "20", "on": ["postage"]},
        {**_COVER, "for_all": True},
    ]  # fmt: skip
    limits = {"longest_side": of.length(144, 360), "weight": of.weight(2200, 1000)}
    return {"name": "Pallet", "programme": "account", "limits": limits, "charges": charges}


def _van(of: _Measures) -> dict[str, Any]:
    unit: Literal["mi", "km"] = "mi" if of.units == "in" else "km"
    price = ("0.65", "0.45") if unit == "mi" else ("0.40", "0.28")
    charges = [
        {"kind": "distance", "what": "the van", "why": "fuel, tyres and wear", "price": price[0], "unit": unit,
         "for_all": True},
        {"kind": "distance", "what": "time at the wheel", "why": "the hour's rate at the speed of the road",
         "price": price[1], "unit": unit, "for_all": True},
    ]  # fmt: skip
    limits = {"longest_side": of.length(96, 240), "weight": of.weight(400, 180)}
    return {"name": "There and back", "programme": "own", "other_way": True, "limits": limits, "charges": charges,
            "note": "Two people for heavy things. Ask your insurer whether goods are covered on the road."}  # fmt: skip


FORMS: dict[FormCode, TariffForm] = {
    "zone-weight": TariffForm("By zone and weight", "a postal parcel: weight, zone, dimensional weight", _zone_weight),
    "private": TariffForm(
        "Private carrier", "zone and weight, additional handling, residential, signature, fuel", _private
    ),
    "volume": TariffForm("By volume", "small heavy things: a price a tier of volume, whatever the weight", _volume),
    "soft-pack": TariffForm("Soft pack", "bags and padded mailers by their flat length and width", _soft_pack),
    "container": TariffForm(
        "Flat price by container", "the carrier's own box or envelope, whatever the weight", _container
    ),
    "freight": TariffForm("Freight by class", "pallets by density, for what no parcel service takes", _freight),
    "van": TariffForm("Own van", "there and back by the mile, told beside the rest", _van),
}  # fmt: skip


def zones_from(postcode: str, names: Sequence[str] = _ZONES) -> list[dict[str, Any]]:
    """Zones by the first sign of the postcode it goes to.

    Args:
        postcode: of the shop; its first sign is near.
        names: near, middle and far, or near and far.

    >>> [(row["zone"], row["to"]) for row in zones_from("10440")][:2]
    [('near', ['1']), ('middle', ['0', '2', '3'])]
    """
    first = postcode.strip().upper()[:1] or "0"
    near: list[str] = []
    middle: list[str] = []
    far: list[str] = []
    for sign in _SIGNS:
        apart = abs(_SIGNS.index(sign) - _SIGNS.index(first)) if first in _SIGNS else len(_SIGNS)
        alike = sign.isdigit() == first.isdigit()
        (near if sign == first else middle if alike and apart <= _NEIGHBOURS else far).append(sign)
    if len(names) == 2:
        near, middle = [*near, *middle], []
    rows = [(near, names[0], _DAYS[0]), (middle, "middle", _DAYS[1]), (far, names[-1], _DAYS[2])]
    return [{"from": "", "to": to, "zone": zone, "days": days} for to, zone, days in rows if to]


def begin_tariff(
    form: FormCode, carrier: str, currency: str, units: Units, postcode: str, boxes: Sequence[str] = ()
) -> TariffFile:  # fmt: skip
    """A tariff with one service of a form, its prices placeholders.

    Args:
        carrier: its name.
        currency: of its prices.
        units: of its measures.
        postcode: where parcels leave from, to lay the zones by.
        boxes: names of the carrier's containers that are there.

    Raises: BadInput for a form there is not.
    """
    if form not in FORMS:
        raise BadInput("not a form of tariff", read=form, allowed=", ".join(FORM_CODES), field="form")
    of = _Measures(units, tuple(boxes))
    service = FORMS[form].service(of)
    tables = [charge.get("zones") for charge in service["charges"] if charge.get("rows") and charge.get("zones")]
    zones = (
        zones_from(postcode, tables[0])
        if tables
        else [{"from": "", "to": ["0-9", "A-Z"], "zone": "all", "days": [1, 6]}]
    )
    whole = {"weight_step": of.step, "zones": zones, "placeholder": True, **service}
    tariff = TariffFile.model_validate(
        {"format": FORMAT, "carrier": carrier, "currency": currency, "units": units, "services": [whole]}
    )
    check_tariff(tariff)
    return tariff
