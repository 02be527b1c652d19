"""A body of files read as it comes: however it is cut, the same files come out; too large ones are dropped."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from pathlib import Path
from tempfile import TemporaryDirectory

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fardo.api import uploads
from fardo.api.uploads import Sent, read_files
from fardo.core.refusal import BadInput

EDGE = "edge-of-a-part"
KIND = f"multipart/form-data; boundary={EDGE}"


def body(*files: tuple[str, bytes], field: str = "files") -> bytes:
    parts = [
        f'--{EDGE}\r\nContent-Disposition: form-data; name="{field}"; filename="{name}"\r\n'
        f"Content-Type: application/octet-stream\r\n\r\n".encode()
        + content
        + b"\r\n"
        for name, content in files
    ]
    return b"".join(parts) + f"--{EDGE}--\r\n".encode()


def received(content: bytes, cuts: list[int]) -> list[tuple[Sent, bytes]]:
    """Each file as it was sent, with what is kept of it."""

    async def pieces() -> AsyncIterator[bytes]:
        last = 0
        for cut in [*sorted(cut % (len(content) + 1) for cut in cuts), len(content)]:
            yield content[last:cut]
            last = cut

    with TemporaryDirectory() as folder:
        sent = asyncio.run(read_files(KIND, pieces(), Path(folder)))
        return [(one, one.path.read_bytes()) for one in sent]


names = st.text(st.characters(codec="ascii", categories=["L", "N"]), min_size=1, max_size=12)
contents = st.binary(max_size=300).filter(lambda content: EDGE.encode() not in content)


@given(st.lists(st.tuples(names, contents), min_size=1, max_size=5), st.lists(st.integers(0, 5000), max_size=12))
def test_the_same_files_come_out_however_the_body_is_cut(files: list[tuple[str, bytes]], cuts: list[int]) -> None:
    sent = received(body(*files), cuts)
    assert [(one.name, kept, one.size) for one, kept in sent] == [(n, c, len(c)) for n, c in files]


@given(st.lists(st.integers(0, 3000), max_size=8))
def test_one_over_the_limit_is_counted_and_not_held(cuts: list[int]) -> None:
    largest, uploads.LARGEST_FILE = uploads.LARGEST_FILE, 100
    try:
        (large, nothing), (good, kept) = received(body(("large.stl", b"x" * 900), ("good.png", b"y" * 100)), cuts)
        assert (large.too_large, large.size, nothing) == (True, 900, b"")
        assert (good.too_large, kept) == (False, b"y" * 100)
    finally:
        uploads.LARGEST_FILE = largest


@pytest.mark.parametrize(
    ("name", "kept"),
    [
        ("../../etc/passwd", "passwd"),
        ("C:\\\\shop\\\\horn.stl", "horn.stl"),
        ("a\x07b.stl", "ab.stl"),
        ("x" * 300, "x" * 120),
        ("/", "a file without a name"),
    ],
)
def test_a_name_is_only_a_name(name: str, kept: str) -> None:
    assert received(body((name, b"1")), [])[0][0].name == kept


def test_a_field_beside_the_files_is_passed_over() -> None:
    extra = f'--{EDGE}\r\nContent-Disposition: form-data; name="note"\r\n\r\nhello\r\n'.encode()
    assert [one.name for one, _ in received(extra + body(("a.png", b"1")), [3, 40])] == ["a.png"]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (body(*((f"{n}.png", b"") for n in range(41))), "more than 40 files"),
        (body(), "no file in it"),
        (f"--{EDGE}\r\nX: {'y' * 9000}".encode(), "header size"),
    ],
)
def test_what_is_no_such_body_is_refused_in_words(content: bytes, says: str) -> None:
    with pytest.raises(BadInput, match=says):
        received(content, [])
