"""What things are wrapped in, as the shop keeps it."""

from __future__ import annotations

from fractions import Fraction
from typing import Literal

from pydantic import Field

from fardo.core.board.grade import Grade
from fardo.core.protect.forms import BOXED
from fardo.core.protect.material import Material
from fardo.core.quantity import ZERO, Length, Units, volume_nm3
from fardo.core.refusal import BadInput
from fardo.files.family import FormName
from fardo.files.typed import Measure, Strict, TypedSizes, Weight, to_length, to_mass, to_money, to_sizes

MOST_LEFT = 1_000_000
_THICKEST = Length.of_mm(200)


class MaterialEntry(Strict):
    """What things are wrapped in, as the shop buys it."""

    code: str = Field(min_length=1, max_length=40)
    name: str = Field(min_length=1, max_length=80)
    form: FormName = Field(description="how it is put on")
    thickness: Measure = Field(description="of one layer, pressed lightly")
    sold: Literal["m2", "m", "litre", "each"]
    weight_per: Weight = Field(description="of one square metre, metre, litre or piece")
    price_per_100: str
    width: Measure | None = Field(None, description="of the roll; nothing where it is cut to any width")
    overlap: int = Field(0, ge=0, le=100, description="per cent of a length, where it meets itself")
    bubbly: bool = Field(False, description="it has a smooth and a bubble side")
    cushions: bool = Field(False, description="its thickness counts against a blow")
    inner: Measure | None = Field(None, description="the widest tube it goes over")
    reach: Measure | None = Field(None, description="how far a corner guard goes along the face")
    gives: Measure | None = Field(None, description="by how much one layer of it is pressed in on a side")
    tears_every: Measure | None = Field(None, description="between its perforations; nothing where it is cut anywhere")
    board: str | None = Field(None, max_length=20, description="what an inner box is made of")
    fills: TypedSizes | None = Field(None, description="the hollow that one pad fills, of what is sold by the piece")
    minutes: float | None = Field(None, ge=0, le=120, description="to put one on; nothing: as long as any layer")
    left: float | None = Field(
        None, ge=0, le=MOST_LEFT, description="how much there is, in what it is sold by; nothing: it is not counted"
    )


def read_materials(
    entries: list[MaterialEntry], units: Units, currency: str, grades: dict[str, Grade]
) -> dict[str, Material]:
    made: dict[str, Material] = {}
    for n, entry in enumerate(entries):
        path = f"materials[{n}]"
        if entry.code in made:
            raise BadInput("twice the same code", read=entry.code, allowed="a code of its own", field=f"{path}.code")
        if entry.form == BOXED and entry.board not in grades:
            raise BadInput(
                "not a board of this shop", read=entry.board, allowed=", ".join(grades), field=f"{path}.board"
            )
        made[entry.code] = _material(entry, units, currency, path)
    return made


def _material(entry: MaterialEntry, units: Units, currency: str, path: str) -> Material:
    def optional(name: Literal["width", "inner", "reach", "gives", "tears_every"]) -> Length | None:
        value = getattr(entry, name)
        return None if value is None else to_length(value, units, f"{path}.{name}")

    return Material(
        code=entry.code,
        name=entry.name,
        form=entry.form,
        thickness=to_length(entry.thickness, units, f"{path}.thickness", zero=True, most=_THICKEST),
        sold=entry.sold,
        weight_per=to_mass(entry.weight_per, units, f"{path}.weight_per", zero=True),
        price_per_100=to_money(entry.price_per_100, currency, f"{path}.price_per_100"),
        width=optional("width"),
        overlap=Fraction(entry.overlap, 100),
        bubbly=entry.bubbly,
        inner=optional("inner"),
        reach=optional("reach") or ZERO,
        board=entry.board,
        cushions=entry.cushions,
        gives=optional("gives") or ZERO,
        tears_every=optional("tears_every"),
        fills=None if entry.fills is None else volume_nm3(*to_sizes(entry.fills, units, f"{path}.fills")),
        minutes=None if entry.minutes is None else Fraction(str(entry.minutes)),
    )
