"""Several files in one request, each with its own limit: one that is too large or broken never costs the others.

The body is laid into files of a folder as it comes, and one over its limit is dropped as it comes, so that no request
fills the memory.
"""

from __future__ import annotations

from collections.abc import AsyncIterator
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO

from python_multipart.exceptions import MultipartParseError
from python_multipart.multipart import MultipartParser, parse_options_header

from fardo.core.refusal import BadInput

LARGEST_FILE = 25_000_000
LARGEST_IN_ALL = 250_000_000
MOST_FILES = 40
_LONGEST_HEADER = 4_000


@dataclass
class Sent:
    """A file as it was sent.

    Args:
        name: it was sent under.
        path: where it lies; nothing is left of one that is too large.
        size: of all of it, in bytes.
    """

    name: str
    path: Path
    size: int = 0

    @property
    def too_large(self) -> bool:
        return self.size > LARGEST_FILE


class _Collector:
    """Takes the pieces of a body as the parser tells them apart, and lays them into a folder."""

    def __init__(self, folder: Path) -> None:
        self.files: list[Sent] = []
        self._in_all = 0  # bytes that are kept
        self._folder = folder
        self._open: BinaryIO | None = None
        self._header = b""
        self._value = b""
        self._headers: dict[bytes, bytes] = {}
        self._file: Sent | None = None

    def callbacks(self) -> dict[str, object]:
        return {
            "on_part_begin": self._begin,
            "on_header_field": lambda data, start, end: self._grow("_header", data[start:end]),
            "on_header_value": lambda data, start, end: self._grow("_value", data[start:end]),
            "on_header_end": self._header_end,
            "on_headers_finished": self._headers_end,
            "on_part_data": self._data,
            "on_part_end": self.close,
        }

    def _begin(self) -> None:
        self._headers, self._header, self._value, self._file = {}, b"", b"", None

    def _grow(self, name: str, data: bytes) -> None:
        whole = getattr(self, name) + data
        if len(whole) > _LONGEST_HEADER:
            raise MultipartParseError("a header too long")
        setattr(self, name, whole)

    def _header_end(self) -> None:
        self._headers[self._header.lower()] = self._value
        self._header = self._value = b""

    def _headers_end(self) -> None:
        _, options = parse_options_header(self._headers.get(b"content-disposition", b""))
        name = options.get(b"filename")
        if name is None:
            return  # a field beside the files; none is asked for
        if len(self.files) >= MOST_FILES:
            raise MultipartParseError(f"more than {MOST_FILES} files")
        plain = name.decode("utf-8", "replace").replace("\\", "/").rpartition("/")[2]
        called = "".join(sign for sign in plain if sign.isprintable())[:120] or "a file without a name"
        self._file = Sent(called, self._folder / f"sent-{len(self.files)}")
        self._open = self._file.path.open("wb")
        self.files.append(self._file)

    def _data(self, data: bytes, start: int, end: int) -> None:
        sent = self._file
        if sent is None or self._open is None:
            return
        sent.size += end - start
        self._in_all += 0 if sent.too_large else end - start
        if self._in_all > LARGEST_IN_ALL:
            raise MultipartParseError(f"more than {LARGEST_IN_ALL // 10**6} MB in all")
        if not sent.too_large:
            self._open.write(data[start:end])
        elif self._open.tell():
            self._in_all -= self._open.tell()
            self._open.seek(0)
            self._open.truncate()

    def close(self) -> None:
        if self._open is not None:
            self._open.close()
            self._open = None


async def write_as_it_comes(body: AsyncIterator[bytes], path: Path, most: int) -> None:
    """A whole body into a file. Raises BadInput where it is larger than `most` bytes."""
    size = 0
    with path.open("wb") as file:
        async for chunk in body:
            size += len(chunk)
            if size > most:
                allowed = f"at most {most // 10**6} MB"
                raise BadInput("too large", read=f"more than {most} bytes", allowed=allowed, field="file")
            file.write(chunk)


async def read_files(content_type: str, body: AsyncIterator[bytes], folder: Path) -> list[Sent]:
    """The files of a multipart body, laid into an empty folder. Raises BadInput where it is none, or is cut off."""
    kind, options = parse_options_header(content_type)
    boundary = options.get(b"boundary")
    wrong = BadInput("not files sent in parts", read=content_type, allowed="multipart/form-data", field="files")
    if kind != b"multipart/form-data" or not boundary:
        raise wrong
    collector = _Collector(folder)
    try:
        parser = MultipartParser(boundary, collector.callbacks())  # type: ignore[arg-type]
        async for chunk in body:
            parser.write(chunk)
        parser.finalize()
    except (MultipartParseError, ValueError) as fault:
        raise BadInput(
            str(fault), read="the files", allowed=f"up to {MOST_FILES} whole files", field="files"
        ) from fault
    finally:
        collector.close()
    if not collector.files:
        raise BadInput("no file in it", read="nothing", allowed="a photograph, a mesh or a table", field="files")
    return collector.files
