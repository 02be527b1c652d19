"""Files taken in: what each is, whether it can be used, and what the screen makes of it."""

from __future__ import annotations

from fardo.api import goods
from fardo.api.desk import Desk
from fardo.api.uploads import LARGEST_FILE, Sent
from fardo.core.goods.shape import scanned
from fardo.core.quantity import Length
from fardo.core.refusal import BadInput
from fardo.files import mesh, parts_csv, photo

ENDINGS = (*mesh.ENDINGS, *photo.ENDINGS, *parts_csv.ENDINGS)


def take_in(sent: Sent, desk: Desk) -> goods.TakenIn:
    """What became of a file; nothing of one with a fault is kept."""
    try:
        return _take(sent, desk)
    except BadInput as fault:
        return goods.TakenIn(called=sent.name, problem=fault.sentence)


def keep_file(name: str, content: bytes, desk: Desk) -> str:
    """A mesh or photograph kept with the shop; its name here. Raises BadInput for what is neither, or is broken."""
    ending = _ending(name)
    if ending in mesh.ENDINGS:
        scanned(name, mesh.read_mesh(name, content), Length.of_mm(1))
        return desk.files.keep(name, ending, "application/octet-stream", content)
    if ending in photo.ENDINGS:
        return desk.files.keep(name, ".jpg", "image/jpeg", photo.read_photo(name, content))
    raise BadInput("not a kind of file that is taken", read=name, allowed=", ".join(ENDINGS), field="file")


def _take(sent: Sent, desk: Desk) -> goods.TakenIn:
    name, ending, content = sent.name, _ending(sent.name), bytes(sent.content)
    if ending not in ENDINGS:
        raise BadInput("not a kind of file that is taken", read=name, allowed=", ".join(ENDINGS), field="file")
    if sent.too_large:
        raise BadInput(
            "too large", read=f"{name}, {sent.size / 1e6:.0f} MB", allowed=f"at most {LARGEST_FILE // 10**6} MB each",
            field="file",
        )  # fmt: skip
    if not content:
        raise BadInput("nothing in it", read=name, allowed="a whole file", field="file")
    if ending in parts_csv.ENDINGS:
        return goods.TakenIn(called=name, parts=parts_csv.read_parts(name, content, desk.today.shop))
    kept = keep_file(name, content, desk)
    if ending in photo.ENDINGS:
        return goods.TakenIn(called=name, photo=kept)
    shape = desk.find_mesh(kept, Length.of_mm(1))
    length, width, height = (side.mm for side in shape.sizes)
    return goods.TakenIn(called=name, mesh=kept, steps=(length, width, height), triangles=len(shape.closed.faces))


def _ending(name: str) -> str:
    return name[name.rfind(".") :].lower() if "." in name else ""
