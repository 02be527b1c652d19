"""Measures in files and on the wire: a JSON number in millimetres or grams, or what a person typed, with its unit.

Also turns the checker's own complaints into the sentences that `BadInput` carries.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from difflib import get_close_matches
from typing import Annotated, Any, Literal, TypeVar, get_args

from pydantic import AllowInfNan, BeforeValidator, ConfigDict, Field, ValidationError
from pydantic import BaseModel as PydanticModel
from pydantic.fields import FieldInfo

from fardo.core.goods.part import Extra, ExtraPlace, Sizes
from fardo.core.goods.shape import SHAPES
from fardo.core.quantity import (
    Length,
    Mass,
    Money,
    Units,
    check_length,
    check_mass,
    read_distance,
    read_length,
    read_mass,
    read_sizes,
)
from fardo.core.quantity.read import ANY_LENGTH, ANY_MASS, HEAVIEST, LONGEST
from fardo.core.refusal import BadInput
from fardo.files.family import ByKind

_DIGITS = 9  # more is no count
MOST_TYPED = 10**_DIGITS
Kind = Literal["length", "mass", "sizes", "distance"]
MEASURED = "x-measure"  # the keyword of a schema that says of what kind a measure is


@dataclass(frozen=True, slots=True)
class Typed:
    """Marks a field as a measure of that kind, as it is typed: what it means hangs on the shop's units where it has no
    unit of its own.
    """

    kind: Kind


def _as_whole(value: Any) -> Any:
    """A whole number however it was typed; anything else as it is, for whoever reads it to tell."""
    if isinstance(value, str) and value.strip().isdecimal() and len(value.strip()) <= _DIGITS:
        return int(value)
    if isinstance(value, bool) or (isinstance(value, float) and not value.is_integer()):
        return str(value)
    return value


# What is no number is told by whoever reads the measure, who knows its field.
_Number = Annotated[float, AllowInfNan()]
Measure = Annotated[
    str | _Number,
    Typed("length"),
    Field(
        description="a number in millimetres, or text with its unit: '10 1/2 in', '26.7 cm'",
        json_schema_extra={MEASURED: "length"},
    ),
]
Weight = Annotated[
    str | _Number,
    Typed("mass"),
    Field(
        description="a number in grams, or text with its unit: '4 lb 6 oz', '2 kg'",
        json_schema_extra={MEASURED: "mass"},
    ),
]
TypedSizes = Annotated[
    str | list[str | _Number],
    Typed("sizes"),
    Field(
        description="three sizes: '4 x 3 x 2 in', or a list of three measures", json_schema_extra={MEASURED: "sizes"}
    ),
]
TypedDistance = Annotated[str, Typed("distance"), Field(max_length=20, json_schema_extra={MEASURED: "distance"})]

Count = Annotated[
    Annotated[int, Field(ge=-MOST_TYPED, le=MOST_TYPED)] | str,
    BeforeValidator(_as_whole),
    Field(description="a whole number"),
]

BARE_MASS = {"in": "lb", "cm": "kg"}
BARE_DISTANCE = {"in": "mi", "cm": "km"}
Entry = TypeVar("Entry", bound=PydanticModel)


# The days on which a shop may do something: the day before, and the year after, are days too.
FIRST_DAY, LAST_DAY = date(2000, 1, 1), date(2099, 12, 31)
Day = Annotated[date, Field(ge=FIRST_DAY, le=LAST_DAY)]


class Strict(PydanticModel):
    """A model that takes no field it does not know, so that a slip in a name is told and not lost."""

    model_config = ConfigDict(extra="forbid", str_max_length=400, allow_inf_nan=False)


class ExtraEntry(Strict):
    """What must go in besides the goods."""

    name: str = Field("", max_length=120)
    size: TypedSizes | None = None
    weight: Weight | None = None
    lies_flat: bool | None = Field(
        None, description="it is folded or lies on top and sizes no box; nothing said: where it is 1/8 in thin or less"
    )
    place: ExtraPlace | None = Field(
        None, description="inside the outer wrap, beside the goods, on top or outside; nothing said: by lies_flat"
    )

    def placed(self, sizes: Sizes) -> ExtraPlace:
        """Where it goes: as said, or on top where it is folded or thin."""
        flat = Extra.as_paper(sizes) if self.lies_flat is None else self.lies_flat
        return self.place or ("on top" if flat else "beside")


def to_length(value: str | float, units: Units, field: str, *, zero: bool = False, most: Length = LONGEST) -> Length:
    """Raises BadInput naming `field`."""
    if isinstance(value, str):
        return read_length(value, units, zero=zero, most=most, field=field)
    length = Length.of_mm(_finite(value, field, "a length in millimetres"))
    check_length(length, value, zero=zero, most=most, field=field)
    return length


def to_count(value: int | str, field: str, most: int, least: int = 1) -> int:
    """Raises BadInput naming `field`."""
    if isinstance(value, str) or not least <= value <= most:
        raise BadInput("not a count", read=str(value), allowed=f"a whole number, {least} to {most}", field=field)
    return value


def to_mass(value: str | float, units: Units, field: str, *, zero: bool = False, most: Mass = HEAVIEST) -> Mass:
    """Raises BadInput naming `field`."""
    if isinstance(value, str):
        return read_mass(value, BARE_MASS[units], zero=zero, most=most, field=field)
    mass = Mass.of_grams(_finite(value, field, "a weight in grams"))
    check_mass(mass, value, zero=zero, most=most, field=field)
    return mass


def to_sizes(value: str | list[str | float], units: Units, field: str) -> tuple[Length, Length, Length]:
    """Raises BadInput naming `field`."""
    if isinstance(value, str):
        return read_sizes(value, units, field=field)
    if len(value) != 3:
        raise BadInput(f"{len(value)} sides where three are needed", read=value, allowed="4 x 3 x 2 in", field=field)
    length, width, height = (to_length(side, units, f"{field}[{n}]") for n, side in enumerate(value))
    return length, width, height


def to_money(text: str, currency: str, field: str) -> Money:
    """Raises BadInput naming `field`."""
    try:
        return Money.read(text, currency)
    except BadInput as problem:
        raise problem.under(field) from problem


def with_units(entry: Entry, units: Units) -> Entry:
    """A copy with the shop's unit behind every measure in it whose meaning hangs on that.

    Kept text must mean the same after the shop goes from inches to centimetres.
    """
    changed = {
        name: _kept(getattr(entry, name), kind_of(field), units) for name, field in type(entry).model_fields.items()
    }
    return entry.model_copy(update=changed)


def _kept(value: Any, kind: Kind | None, units: Units) -> Any:
    if isinstance(value, PydanticModel):
        return with_units(value, units)
    if isinstance(value, dict):
        return {name: _kept(one, kind, units) for name, one in value.items()}
    if isinstance(value, list | tuple):
        each: Kind | None = "length" if kind == "sizes" else kind
        return type(value)(_kept(one, each, units) for one in value)
    return with_unit(value, units, kind) if isinstance(value, str) and kind is not None else value


def kind_of(field: FieldInfo) -> Kind | None:
    """The kind of measure that a field is marked as, however it is held; None for what is none."""
    waiting: list[Any] = [*field.metadata, field.annotation]
    while waiting:
        one = waiting.pop()
        if isinstance(one, Typed):
            return one.kind
        waiting += [*getattr(one, "__metadata__", ()), *get_args(one)]
    return None


def with_unit(text: str, units: Units, kind: Kind) -> str:
    """What was typed, with the shop's unit put behind it where its meaning hangs on that; else as it is.

    Text that cannot be read stays.
    """
    sign, plain = ("-", text.strip()[1:]) if kind == "length" and text.strip().startswith("-") else ("", text.strip())
    try:
        hangs_on_unit = _meaning(plain, "in", kind) != _meaning(plain, "cm", kind)
    except BadInput:
        return text
    if not hangs_on_unit:
        return text
    unit = {"mass": BARE_MASS[units], "distance": BARE_DISTANCE[units]}.get(kind, units)
    return f"{sign}{plain} {unit}"


def in_words(value: str | float, units: Units, kind: Kind | None) -> str:
    """A measure of a file with its unit; a bare number is of the file's own."""
    if isinstance(value, str):
        return value if kind is None else with_unit(value, units, kind)
    return f"{value:g} {'g' if kind == 'mass' else 'mm'}"


def _meaning(text: str, units: Units, kind: Kind) -> object:
    """What a text says in a shop of those units, however large that is."""
    if kind == "mass":
        return read_mass(text, BARE_MASS[units], zero=True, most=ANY_MASS)
    if kind == "distance":
        return read_distance(text, units)
    if kind == "sizes":
        return read_sizes(text, units, most=ANY_LENGTH)
    return read_length(text, units, zero=True, most=ANY_LENGTH)


def _finite(value: float, field: str, allowed: str) -> float:
    if not math.isfinite(value):
        raise BadInput("not a number", read=str(value), allowed=allowed, field=field)
    return value


def complaints(error: ValidationError, model: type[PydanticModel] | None = None) -> Iterator[BadInput]:
    """One refusal for each thing the checker found.

    Args:
        model: that was read, so that a name it does not know can be told with the nearest that it does.
    """
    return (complaint(found, model) for found in error.errors(include_url=False))


def must_read_back(model: type[PydanticModel], text: str) -> str:
    """What is about to be kept, once it is sure that it can be read again.

    Args:
        model: that reads it.
        text: as JSON.

    Raises:
        BadInput: naming the first field that could not be read.
    """
    try:
        model.model_validate_json(text)
    except ValidationError as error:
        raise next(complaints(error, model)) from error
    return text


def complaint(found: Mapping[str, Any], model: type[PydanticModel] | None = None) -> BadInput:
    """A refusal with the field's path and what was read, for one finding of the checker."""
    kind = found["type"]
    if kind == "extra_forbidden":
        return BadInput(
            _WORDS[kind], read=str(found["loc"][-1]), field=_path(found["loc"]),
            allowed=nearest_name(model, found["loc"]) or "the names in the format's description",
        )  # fmt: skip
    if kind == "union_tag_invalid":
        return BadInput(
            "not a kind of shape", read=found["ctx"]["tag"], field=_path((*found["loc"], "kind")),
            allowed=str(found["ctx"]["expected_tags"]).replace("'", ""),
        )  # fmt: skip
    read = {"missing": "nothing", "too_long": f"{len(found['input'])} of them" if kind == "too_long" else ""}
    return BadInput(
        _WORDS.get(kind, found["msg"][0].lower() + found["msg"][1:]),
        read=read.get(kind, found["input"]),
        allowed=_allowed(kind, found.get("ctx", {})),
        field=_path(found["loc"]),
    )


def nearest_name(model: type[PydanticModel] | None, loc: Sequence[int | str]) -> str:
    """The name that was most likely meant where a model does not know one, in words; nothing where none is near."""
    at = [model] if model is not None else []
    for step in loc[:-1]:
        inner = [one for each in at for one in _models_in(each.model_fields.get(str(step)))]
        at = inner or at  # a number in a list, or which of several kinds of entry it is
    known = {field.alias or name for each in at for name, field in each.model_fields.items()}
    near = get_close_matches(str(loc[-1]), sorted(known), 1, 0.6)
    return f"perhaps {near[0]!r}, which is known" if near else ""


def _models_in(field: FieldInfo | None) -> Iterator[type[PydanticModel]]:
    """The models that a field's values may be, however they are held."""
    waiting: list[Any] = [] if field is None else [field.annotation]
    while waiting:
        one = waiting.pop()
        waiting += get_args(one)
        if isinstance(one, ByKind):
            waiting += one.models().values()
        if isinstance(one, type) and issubclass(one, PydanticModel):
            yield one


_WORDS = {
    "missing": "and it is needed",
    "extra_forbidden": "a name that is not known here",
    "too_long": "too many of them",
    "string_too_long": "too long",
    "json_invalid": "not JSON",
}


def _allowed(kind: str, context: Mapping[str, object]) -> str:
    if "expected" in context:
        return str(context["expected"])
    if "max_length" in context:
        return f"at most {context['max_length']}"
    return {
        "missing": "a value",
        "bool_parsing": "true or false",
        "bool_type": "true or false",
    }.get(kind, "what the format's description says")


# The checker's own names for the branches of a choice; no field of a file is called so.
_BRANCHES = {"str", "float", "GapEntry", "list[union[str,float]]", "body", "[key]", *SHAPES}


def _path(loc: tuple[int | str, ...]) -> str:
    path = ""
    for step in loc:
        if isinstance(step, int):
            path += f"[{step}]"
        elif step not in _BRANCHES:
            path += f".{step}" if path else step
    return path
