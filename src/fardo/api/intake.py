"""Files taken in: what each is, whether it can be used, and what the screen makes of it."""

from __future__ import annotations

from pathlib import Path

from fardo.api import goods
from fardo.api.context import AppContext, read_scan
from fardo.api.uploads import LARGEST_FILE, Sent
from fardo.core.plan.shop import Shop
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.files import mesh, parts_csv, photo
from fardo.files.job import PartEntry

ENDINGS = (*mesh.ENDINGS, *photo.ENDINGS, *parts_csv.ENDINGS)


def take_in(sent: Sent, context: AppContext) -> goods.TakenIn:
    """What became of a file; nothing of one with a fault is kept."""
    try:
        return _take(sent, context)
    except BadInput as fault:
        return goods.TakenIn(called=sent.name, problem=fault.sentence)


def keep_file(name: str, path: Path, context: AppContext) -> str:
    """A mesh or photograph kept with the shop; its name here. Raises BadInput for what is neither, or is broken.

    Args:
        name: it was sent under, with its ending.
        path: where it lies.
    """
    ending = _ending(name)
    if ending in mesh.ENDINGS:
        context.reader.read(name, _read_scan, name, path)
        return context.files.keep(name, ending, "application/octet-stream", path.read_bytes())
    if ending in photo.ENDINGS:
        picture = context.reader.read(name, _read_photo, name, path)
        return context.files.keep(name, ".jpg", "image/jpeg", picture)
    raise BadInput("not a kind of file that is taken", read=name, allowed=", ".join(ENDINGS), field="file")


def _take(sent: Sent, context: AppContext) -> goods.TakenIn:
    name, ending = sent.name, _ending(sent.name)
    if ending not in ENDINGS:
        raise BadInput("not a kind of file that is taken", read=name, allowed=", ".join(ENDINGS), field="file")
    if sent.too_large:
        raise BadInput(
            "too large", read=f"{name}, {sent.size / 1e6:.0f} MB", allowed=f"at most {LARGEST_FILE // 10**6} MB each",
            field="file",
        )  # fmt: skip
    if not sent.size:
        raise BadInput("nothing in it", read=name, allowed="a whole file", field="file")
    if ending in parts_csv.ENDINGS:
        parts = context.reader.read(name, _read_parts, name, sent.path, context.today.shop)
        return goods.TakenIn(called=name, parts=parts)
    kept = keep_file(name, sent.path, context)
    if ending in photo.ENDINGS:
        return goods.TakenIn(called=name, photo=kept)
    shape = context.find_mesh(kept, Length.of_mm(1))
    length, width, height = (side.mm for side in shape.sizes)
    return goods.TakenIn(called=name, mesh=kept, steps=(length, width, height), triangles=len(shape.closed.faces))


def _read_scan(name: str, path: Path) -> None:
    read_scan(name, path.read_bytes(), Length.of_mm(1))


def _read_photo(name: str, path: Path) -> bytes:
    return photo.read_photo(name, path.read_bytes())


def _read_parts(name: str, path: Path, shop: Shop) -> list[PartEntry]:
    return parts_csv.read_parts(name, path.read_bytes(), shop)


def _ending(name: str) -> str:
    return name[name.rfind(".") :].lower() if "." in name else ""
