"""Fields of open families: a way, a form, a kind of insert or charge is whatever is in its register when it is read.

Descriptions of the formats name those that there are when they are written.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import BaseModel, GetCoreSchemaHandler, GetJsonSchemaHandler, SerializationInfo
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, PydanticKnownError
from pydantic_core.core_schema import (
    no_info_after_validator_function,
    no_info_plain_validator_function,
    plain_serializer_function_ser_schema,
    tagged_union_schema,
)

from fardo.core.goods.hazard import QUESTIONS, tags
from fardo.core.make import WAYS
from fardo.core.make.allowances import ALLOWANCES
from fardo.core.make.inserts import INSERTS
from fardo.core.protect.forms import FORMS


@dataclass(frozen=True, slots=True)
class OneOf:
    """Marks a text field as the name of a member of a register.

    Args:
        names: tells the names there are, whenever it is asked.
        what: one of them is, in words.
    """

    names: Callable[[], Iterable[str]]
    what: str

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return no_info_after_validator_function(self._known, handler(source))

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        return {**handler(schema), "enum": list(self.names())}

    def _known(self, name: str) -> str:
        known = list(self.names())
        if name not in known:
            raise PydanticCustomError("not_in_family", "not {what}", {"what": self.what, "expected": ", ".join(known)})
        return name


@dataclass(frozen=True, slots=True)
class ByKind:
    """Marks a field as an entry of whichever kind of a register it says it is.

    Args:
        models: tells the model of each kind there is, whenever it is asked.
    """

    models: Callable[[], Mapping[str, type[BaseModel]]]

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        written = plain_serializer_function_ser_schema(_as_itself, info_arg=True)
        return no_info_plain_validator_function(self._read, serialization=written)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        each = {kind: model.__pydantic_core_schema__ for kind, model in self.models().items()}
        return handler(tagged_union_schema(each, discriminator="kind"))

    def _read(self, content: Any) -> BaseModel:
        if isinstance(content, BaseModel):
            return content
        if not isinstance(content, dict):
            raise PydanticKnownError("dict_type")
        models = self.models()
        if "kind" not in content:
            raise PydanticKnownError("union_tag_not_found", {"discriminator": "'kind'"})
        kind = content["kind"]
        if not isinstance(kind, str) or kind not in models:
            expected = ", ".join(repr(one) for one in models)
            raise PydanticKnownError(
                "union_tag_invalid", {"discriminator": "'kind'", "tag": str(kind), "expected_tags": expected}
            )
        return models[kind].model_validate(content)


def _as_itself(value: BaseModel, info: SerializationInfo) -> Any:
    return value.model_dump(
        mode=info.mode, by_alias=info.by_alias, exclude_none=info.exclude_none, exclude_unset=info.exclude_unset,
        exclude_defaults=info.exclude_defaults,
    )  # fmt: skip


def with_allowances(content: Any, into: str, unit: str = "") -> Any:
    """What a file holds, with its allowances in one field: of before there was a list each has a field of its own.

    Args:
        into: name of the field they are in.
        unit: what stands behind each of their names in an older file.
    """
    if not isinstance(content, dict) or not isinstance(content.get(into, {}), dict):
        return content  # whoever checks it says what is wrong
    had = {name: content[name + unit] for name in ALLOWANCES if name + unit in content}
    rest = {name: value for name, value in content.items() if name.removesuffix(unit) not in had}
    return {**rest, into: {**had, **content.get(into, {})}} if had else content


WayName = Annotated[str, OneOf(lambda: WAYS, "a way to get a box known here")]
CutWayName = Annotated[
    str, OneOf(lambda: (name for name, way in WAYS.items() if way.NEEDS == "sheet"), "a way that is cut from sheet")
]
FormName = Annotated[str, OneOf(lambda: FORMS, "a form of material")]
InsertName = Annotated[str, OneOf(lambda: INSERTS, "a kind of insert")]
QuestionName = Annotated[str, OneOf(lambda: QUESTIONS, "a question")]
TagName = Annotated[str, OneOf(tags, "a hazard")]
AllowanceName = Annotated[str, OneOf(lambda: ALLOWANCES, "an allowance")]
