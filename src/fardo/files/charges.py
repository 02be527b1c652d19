"""The charges of a tariff file: each kind with its fields, its table, and the conditions it is made under.

A new kind of charge is a class here, a line in the register at the end, and a module in `core.tariff.charges`.
"""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from typing import Annotated, ClassVar, Literal, TypeVar

from pydantic import ConfigDict, Field

from fardo.core.quantity import INCH, Length, Mass, Money, Units, read_decimal, volume_nm3
from fardo.core.refusal import BadInput
from fardo.core.tariff.charges import (
    Charge,
    Conditional,
    ContainerPrice,
    Cover,
    Distance,
    Freight,
    Fuel,
    Increment,
    PackingCharge,
    PerConsignment,
    Residential,
    SoftPackTiers,
    Surcharge,
    VolumeTiers,
    WeightGrid,
)
from fardo.core.tariff.charges.freight import DENSITY_CLASSES
from fardo.core.tariff.when import ALWAYS, When
from fardo.files.family import ByKind
from fardo.files.typed import Kind, Measure, Strict, Weight, in_words, kind_of, to_length, to_mass, to_money

_UNITS = {"ft3": volume_nm3(INCH * 12, INCH * 12, INCH * 12), "dm3": 10**24}
Key = TypeVar("Key")
Row = tuple[Key, tuple[Money, ...]]
_MOST_LISTED = 8  # postcodes, in words
_MOST_VOLUME = 1_000_000  # in cubic feet or decimetres
_FORMS = {"box": "in a box", "soft": "in a soft pack", "not rectangular": "not rectangular"}


class WhenEntry(Strict):
    """Conditions that must all hold; ``over`` is more than, ``to`` up to and including."""

    model_config = ConfigDict(title="conditions")
    longest_side_over: Measure | None = None
    second_side_over: Measure | None = None
    length_and_girth_over: Measure | None = None
    length_and_girth_to: Measure | None = Field(None, title="length and girth up to")
    weight_over: Weight | None = None
    weight_to: Weight | None = Field(None, title="weight up to")
    billed_over: Weight | None = Field(None, title="billed weight over")
    linear_over: Measure | None = Field(
        None, description="length, width and height together", title="length + width + height over"
    )
    value_over: str | None = Field(None, title="declared value over")
    forms: list[Literal["box", "soft", "not rectangular"]] = Field(
        default_factory=list, max_length=3, title="form of the parcel"
    )
    to: list[str] = Field(
        default_factory=list, max_length=2000, description="postcode prefixes or ranges", title="destination postcodes"
    )
    home: bool = Field(False, title="residential address")
    signature: bool = Field(False, title="signature on delivery")

    def to_core(self, currency: str, units: Units) -> When:
        def length(name: str) -> Length | None:
            value = getattr(self, name)
            return None if value is None else to_length(value, units, f"when.{name}")

        def mass(name: str) -> Mass | None:
            value = getattr(self, name)
            return None if value is None else to_mass(value, units, f"when.{name}")

        return When(
            length("longest_side_over"), length("second_side_over"), length("length_and_girth_over"),
            length("length_and_girth_to"), mass("weight_over"), mass("weight_to"), mass("billed_over"),
            None if self.value_over is None else to_money(self.value_over, currency, "when.value_over"),
            tuple(self.forms), tuple(self.to), self.home, self.signature, length("linear_over"),
        )  # fmt: skip

    def words(self, units: Units) -> str:
        """The conditions as a bill says them: longest side over 48 in and to a residential address."""
        said = []
        for name, field in type(self).model_fields.items():
            value = getattr(self, name)
            if isinstance(value, str | float):
                called = field.title or name.replace("_", " ")
                said.append(f"{called} {in_words(value, units, kind_of(field))}")
        if self.forms:
            said.append(" or ".join(_FORMS[form] for form in self.forms))
        if self.to:
            more = f" and {len(self.to) - _MOST_LISTED} more" if len(self.to) > _MOST_LISTED else ""
            said.append(f"to postcodes {', '.join(self.to[:_MOST_LISTED])}{more}")
        if self.home:
            said.append("to a residential address")
        if self.signature:
            said.append("with signature on delivery")
        return " and ".join(said) or "always"


class ChargeBase(Strict):
    """What every charge says: its kind, and when it is made."""

    kind: str
    when: WhenEntry | None = Field(None, description="charged only where all of this holds", title="applies only if")
    unless: WhenEntry | None = Field(None, description="not charged where all of this holds", title="does not apply if")
    for_all: bool = Field(
        False,
        description="charged once for all parcels of a shipment, by their weight together",
        title="once per shipment",
    )

    def to_core(self, currency: str, units: Units) -> Charge:
        """Raises BadInput naming the field within the charge."""
        raise NotImplementedError

    @property
    def called(self) -> str:
        """By its name on the bill, or what kind of charge it is."""
        return str(getattr(self, "what", "") or self.model_config.get("title") or self.kind)

    def priced(self, units: Units) -> str:
        """What it comes to, in words: 4.35, or 12.5 % of postage. The prices can be read."""
        raise NotImplementedError

    def words(self, units: Units) -> str:
        """What it comes to and when: 16.00 to 23.50 by zone, longest side over 48 in."""
        when = f", {self.when.words(units)}" if self.when else ""
        unless = f", but not {self.unless.words(units)}" if self.unless else ""
        return f"{self.priced(units)}{when}{unless}{', once per shipment' if self.for_all else ''}"

    def reprice(self, new: Callable[[str], str]) -> None:
        """Puts another price in the place of each of its own; per cents and declared values are no prices."""


class Rows(ChargeBase):
    """A table: what a row is for, then a price a zone; one price where there are no zones."""

    first_column: ClassVar[str] = "row"  # what a row is for, in a word
    measured: ClassVar[Kind | None] = None  # as what its first column is measured
    zones: list[str] = Field(default_factory=list, max_length=60)
    rows: list[list[str]] = Field(min_length=1, max_length=1000)

    def read_rows(self, read: Callable[[str, str], Key], currency: str, rising: str = "") -> list[Row[Key]]:
        """Raises BadInput naming row and column.

        Args:
            rising: what must rise from row to row, in words.
        """
        found: list[Row[Key]] = []
        for n, row in enumerate(self.rows):
            key = read(row[0] if row else "", f"rows[{n}][0]")
            if found and rising and key <= found[-1][0]:  # type: ignore[operator]
                raise BadInput(
                    "not above the row before", read=row[0], allowed=f"rising {rising}", field=f"rows[{n}][0]"
                )
            found.append((key, _prices(row[1:], self.zones, currency, f"rows[{n}]")))
        return found

    def priced(self, units: Units) -> str:
        prices = _span([price for row in self.rows for price in row[1:]])
        zones = f", {len(self.zones)} zones" if len(self.zones) > 1 else ""
        return f"{prices}{zones}, {self.listed(units)}"

    def listed(self, units: Units) -> str:
        """What its rows are for, in words."""
        unit = getattr(self, "unit", "")
        return f"up to {in_words(self.rows[-1][0], units, self.measured)}{f' {unit}' if unit else ''}"

    def reprice(self, new: Callable[[str], str]) -> None:
        self.rows = [[row[0], *(new(price) for price in row[1:])] for row in self.rows]


class TailEntry(Strict):
    step: Measure = Field(title="extra step")
    prices: list[str] = Field(min_length=1, max_length=60)


class GridEntry(Rows):
    model_config = ConfigDict(title="by weight and zone")
    kind: Literal["grid"]
    first_column = "weight"
    measured = "mass"
    tail: TailEntry | None = Field(
        None, description="for every further step or part of it", title="above the last row, price per extra step"
    )

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, field: to_mass(text, units, field), currency, "weights")
        increment = None
        if self.tail is not None:
            prices = _prices(self.tail.prices, self.zones, currency, "tail.prices", 0)
            increment = Increment(to_mass(self.tail.step, units, "tail.step"), prices)
        return WeightGrid(tuple(self.zones), tuple(rows), increment)

    def listed(self, units: Units) -> str:
        if self.tail is None:
            return super().listed(units)
        step = in_words(self.tail.step, units, "mass")
        return f"{super().listed(units)}, then {_span(self.tail.prices)} per {step} more"

    def reprice(self, new: Callable[[str], str]) -> None:
        super().reprice(new)
        if self.tail is not None:
            self.tail.prices = [new(price) for price in self.tail.prices]


class VolumeEntry(Rows):
    """By volume, whatever it weighs: rows of volume up to so much."""

    model_config = ConfigDict(title="by volume tier")
    kind: Literal["volume"]
    first_column = "volume"
    unit: Literal["ft3", "dm3"] = Field("ft3", title="unit of volume")
    step: Measure = Field(description="each side is rounded down to it", title="sides rounded down to")
    longest_side: Measure = Field(title="longest side at most")
    weight: Weight = Field(title="weight at most")

    def to_core(self, currency: str, units: Units) -> Charge:
        return VolumeTiers(
            tuple(self.zones), tuple(self.read_rows(_read_volume, currency, "volumes")),
            (_UNITS[self.unit], self.unit),
            to_length(self.step, units, "step"), to_length(self.longest_side, units, "longest_side"),
            to_mass(self.weight, units, "weight"), units,
        )  # fmt: skip


class SoftPackEntry(Rows):
    """Soft packs by flat length and width together: rows of them up to so much."""

    model_config = ConfigDict(title="soft pack by flat size")
    kind: Literal["soft-pack"]
    first_column = "length + width"
    measured = "length"
    side: Measure = Field(title="longest side at most")
    weight: Weight = Field(title="weight at most")

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, field: to_length(text, units, field), currency, "lengths")
        return SoftPackTiers(
            tuple(self.zones), tuple(rows), to_length(self.side, units, "side"), to_mass(self.weight, units, "weight"),
            units,
        )  # fmt: skip

    def listed(self, units: Units) -> str:
        return f"{self.first_column} {super().listed(units)}"


class ContainerEntry(Rows):
    """The carrier's own containers at a price whatever they weigh: rows by their names."""

    model_config = ConfigDict(title="flat price by container")
    kind: Literal["container"]
    first_column = "container"
    weight: Weight = Field(title="weight at most")

    def to_core(self, currency: str, units: Units) -> Charge:
        rows = self.read_rows(lambda text, _: text, currency)
        return ContainerPrice(tuple(self.zones), tuple(rows), to_mass(self.weight, units, "weight"), units)

    def listed(self, units: Units) -> str:
        return f"{', '.join(row[0] for row in self.rows)}, up to {in_words(self.weight, units, 'mass')}"


class FreightEntry(Rows):
    """By density class: rows by class, the price of a hundred pounds a zone."""

    model_config = ConfigDict(title="freight by density class")
    kind: Literal["freight"]
    first_column = "class"
    minimum: str = Field(title="minimum charge")

    def to_core(self, currency: str, units: Units) -> Charge:
        classes = [name for _, name in DENSITY_CLASSES]

        def read(text: str, field: str) -> str:
            if text not in classes:
                raise BadInput("not a density class", read=text, allowed=", ".join(classes), field=field)
            return text

        rows = self.read_rows(read, currency)
        return Freight(tuple(self.zones), tuple(rows), to_money(self.minimum, currency, "minimum"))

    def listed(self, units: Units) -> str:
        return f"a hundred pounds, by density class, at least {self.minimum}"

    def reprice(self, new: Callable[[str], str]) -> None:
        super().reprice(new)
        self.minimum = new(self.minimum)


class SurchargeEntry(ChargeBase):
    """More, where `when` holds: `prices` a zone (or one), or `percent` of the lines named in `on`.

    Of a `group` only the first that holds is charged.
    """

    model_config = ConfigDict(title="surcharge")
    kind: Literal["surcharge"]
    code: str = Field(min_length=1, max_length=40, description="names its line, for percentages")
    what: str = Field(min_length=1, max_length=120, title="name on the bill")
    why: str = Field(max_length=200, title="reason")
    zones: list[str] = Field(default_factory=list, max_length=60, description="of the prices, one each; none: for all")
    prices: list[str] | None = Field(None, max_length=60)
    percent: str | None = Field(None, description="in the place of prices")
    on: list[str] = Field(
        default_factory=lambda: ["postage"],
        max_length=20,
        description="lines the percentage is taken of",
        title="percentage of",
    )
    group: str = Field("", max_length=40, description="of one group only the first that holds is charged")

    def to_core(self, currency: str, units: Units) -> Charge:
        if (self.prices is None) == (self.percent is None):
            raise BadInput("both or neither", read=str(self.prices), allowed="prices or percent", field="prices")
        prices = None if self.prices is None else _prices(self.prices, self.zones, currency, "prices", 0)
        percent = None if self.percent is None else read_percent(self.percent, "percent")
        return Surcharge(
            self.code, self.what, ALWAYS, self.why, tuple(self.zones), prices, percent, tuple(self.on), self.group
        )

    def priced(self, units: Units) -> str:
        if self.percent is not None:
            return f"{self.percent} % of {', '.join(self.on)}"
        return f"{_span(self.prices or [])}{' by zone' if len(set(self.prices or [])) > 1 else ''}"

    def words(self, units: Units) -> str:
        first = f"; only the first of {self.group} that applies" if self.group else ""
        return f"{super().words(units)}{first}"

    def reprice(self, new: Callable[[str], str]) -> None:
        if self.prices is not None:
            self.prices = [new(price) for price in self.prices]


class ResidentialEntry(ChargeBase):
    model_config = ConfigDict(title="residential surcharge")
    kind: Literal["residential"]
    amount: str

    def to_core(self, currency: str, units: Units) -> Charge:
        return Residential(to_money(self.amount, currency, "amount"))

    def priced(self, units: Units) -> str:
        return f"{self.amount} to a residential address"

    def reprice(self, new: Callable[[str], str]) -> None:
        self.amount = new(self.amount)


class FuelEntry(ChargeBase):
    model_config = ConfigDict(title="fuel surcharge")
    kind: Literal["fuel"]
    percent: str
    on: list[str] = Field(default_factory=lambda: ["postage"], title="percentage of")

    def to_core(self, currency: str, units: Units) -> Charge:
        return Fuel(read_percent(self.percent, "percent"), tuple(self.on))

    def priced(self, units: Units) -> str:
        return f"{self.percent} % of {', '.join(self.on)}"


class CoverEntry(ChargeBase):
    model_config = ConfigDict(title="cover for the declared value")
    kind: Literal["cover"]
    free: str = Field(title="included up to")
    step: str = Field(title="then per")
    price: str = Field(title="price per step")
    most: str = Field(title="declared value at most")

    def to_core(self, currency: str, units: Units) -> Charge:
        free, step, price, most = (
            to_money(getattr(self, name), currency, name) for name in ("free", "step", "price", "most")
        )
        return Cover(free, step, price, most)

    def priced(self, units: Units) -> str:
        return f"included up to {self.free}, then {self.price} per {self.step}, at most {self.most}"

    def reprice(self, new: Callable[[str], str]) -> None:
        self.price = new(self.price)


class DistanceEntry(ChargeBase):
    """So much for every mile or kilometre of the road."""

    model_config = ConfigDict(title="own van, by distance")
    kind: Literal["distance"]
    what: str = Field(min_length=1, max_length=120, title="name on the bill")
    why: str = Field("", max_length=200, title="reason")
    price: str = Field(title="price per mile or km")
    unit: Literal["mi", "km"]
    both_ways: bool = True

    def to_core(self, currency: str, units: Units) -> Charge:
        return Distance(self.what, self.why, to_money(self.price, currency, "price"), self.unit, self.both_ways)

    def priced(self, units: Units) -> str:
        return f"{self.price} per {self.unit}{', both ways' if self.both_ways else ''}"

    def reprice(self, new: Callable[[str], str]) -> None:
        self.price = new(self.price)


class PackingEntry(Rows):
    """Box and packing by one who packs too: rows of length, width and height together up to so much."""

    model_config = ConfigDict(title="packing service")
    kind: Literal["packing"]
    first_column = "length + width + height"
    measured = "length"

    def to_core(self, currency: str, units: Units) -> Charge:
        if self.zones:
            raise BadInput("zones", read=", ".join(self.zones), allowed="one price for all", field="zones")
        return PackingCharge(
            tuple(self.read_rows(lambda text, field: to_length(text, units, field), currency, "lengths")), units
        )

    def listed(self, units: Units) -> str:
        return f"{self.first_column} {super().listed(units)}"


CHARGES: dict[str, type[ChargeBase]] = {
    "grid": GridEntry, "volume": VolumeEntry, "soft-pack": SoftPackEntry, "container": ContainerEntry,
    "freight": FreightEntry, "surcharge": SurchargeEntry, "residential": ResidentialEntry, "fuel": FuelEntry,
    "cover": CoverEntry, "distance": DistanceEntry, "packing": PackingEntry,
}  # fmt: skip
ChargeEntry = Annotated[ChargeBase, ByKind(lambda: CHARGES)]


def charge_of(entry: ChargeEntry, currency: str, units: Units, n: int) -> Charge:
    try:
        charge = entry.to_core(currency, units)
        for said, unless in ((entry.when, False), (entry.unless, True)):
            if said is not None:
                charge = Conditional(charge, said.to_core(currency, units), unless)
        return PerConsignment(charge) if entry.for_all else charge
    except BadInput as problem:
        raise problem.under(f"charges[{n}]") from problem


def _prices(texts: list[str], zones: list[str], currency: str, field: str, offset: int = 1) -> tuple[Money, ...]:
    """A price a zone, or one where there are none; `offset` is the column of the first."""
    wanted = max(1, len(zones))
    if len(texts) != wanted:
        raise BadInput(f"{len(texts)} prices", read=texts, allowed=f"one for each of {wanted} zones", field=field)
    return tuple(to_money(text, currency, f"{field}[{n + offset}]") for n, text in enumerate(texts))


def _span(prices: list[str]) -> str:
    """The least and the most of prices that can be read, as they were typed."""
    low, high = min(prices, key=Fraction), max(prices, key=Fraction)
    return low if Fraction(low) == Fraction(high) else f"{low} to {high}"


def read_percent(text: str, field: str) -> Fraction:
    """A per cent of a bill's lines, below nothing for a discount. Raises BadInput naming the field."""
    return read_decimal(text, least=-100, most=1000, field=field)


def _read_volume(text: str, field: str) -> Fraction:
    return read_decimal(text, most=_MOST_VOLUME, more_than_least=True, example="0.5", field=field)
