"""Photographs: looked at, turned upright, made smaller, and written anew without what the camera noted of the place."""

from __future__ import annotations

import io

from fardo.core.refusal import BadInput

ENDINGS = (".jpg", ".jpeg", ".png", ".webp")
_LONGEST_SIDE = 2000
# A JPEG is made smaller as it is read; of the others every pixel is read first.
_MOST_PIXELS = {"JPEG": 80_000_000, "PNG": 24_000_000, "WEBP": 24_000_000}


def read_photo(name: str, content: bytes) -> bytes:
    """A JPEG of it. Raises BadInput for what is no picture, whatever its name says."""
    from PIL import Image, ImageOps, UnidentifiedImageError

    allowed = "a photograph as JPEG, PNG or WebP"
    try:
        with Image.open(io.BytesIO(content), formats=("JPEG", "PNG", "WEBP")) as opened:
            most = _MOST_PIXELS[opened.format or "PNG"]
            if opened.width * opened.height > most:
                raise BadInput(
                    "too many pixels", read=f"{name}, {opened.width} x {opened.height}", field="file",
                    allowed=f"at most {most // 1_000_000} million",
                )  # fmt: skip
            opened.draft("RGB", (_LONGEST_SIDE, _LONGEST_SIDE))
            opened.thumbnail((_LONGEST_SIDE, _LONGEST_SIDE))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as fault:
        raise BadInput("not a picture, whatever its name says", read=name, allowed=allowed, field="file") from fault
    written = io.BytesIO()
    upright.save(written, "JPEG", quality=85)
    return written.getvalue()
