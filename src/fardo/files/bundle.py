"""A job with its photographs and meshes in one ZIP: the job file as ``job.json``, each file under its own name."""

from __future__ import annotations

import io
import struct
import zipfile
import zlib
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from fardo.core.refusal import BadInput
from fardo.files.job import LARGEST_FILE, JobFile, read_job, write_job
from fardo.files.shapes import CompoundShape, MeshShape

JOB = "job.json"
LARGEST = 120_000_000
LARGEST_ONE = 25_000_000
_MOST_FILES = 200
# What a broken archive makes of the library.
_BROKEN = (
    zipfile.BadZipFile, zlib.error, struct.error, RuntimeError, NotImplementedError, EOFError, OSError, ValueError,
)  # fmt: skip


def files_of(job: JobFile) -> list[str]:
    """The names of every photograph and mesh the job speaks of, each once."""
    named: list[str] = []
    for part in (*job.parts, *(part for step in job.take_apart for part in step.frees)):
        named += [*part.photos, *_meshes(part.shape)]
    return list(dict.fromkeys(named))


def write_bundle(job: JobFile, find: Callable[[str], bytes | None]) -> bytes:
    """A ZIP of the job. A file that `find` does not have is left out."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr(JOB, write_job(job))
        for name in files_of(job):
            if (content := find(name)) is not None:
                bundle.writestr(name, content)
    return out.getvalue()


def read_bundle(packed: Path, folder: Path) -> tuple[JobFile, dict[str, Path]]:
    """The job in a ZIP, and its files as they are laid into a folder, by the names the job calls them by.

    Args:
        packed: the ZIP.
        folder: an empty one.

    Raises:
        BadInput: for what is no such ZIP.
    """
    allowed = f"a ZIP with {JOB} and the files it names"
    try:
        with zipfile.ZipFile(packed) as bundle:
            entries = {entry.filename: entry for entry in bundle.infolist()}
            if len(bundle.infolist()) > _MOST_FILES or sum(entry.file_size for entry in entries.values()) > LARGEST:
                raise BadInput("too large when unpacked", read=f"{len(entries)} files", allowed=allowed, field="file")
            if JOB not in entries:
                raise BadInput("no job in it", read=", ".join(sorted(entries)), allowed=allowed, field="file")
            job = read_job(_read(bundle, entries[JOB], LARGEST_FILE))
            found: dict[str, Path] = {}
            for number, name in enumerate(name for name in files_of(job) if name in entries):
                found[name] = folder / str(number)
                found[name].write_bytes(_read(bundle, entries[name], LARGEST_ONE))
            return job, found
    except _BROKEN as fault:
        raise BadInput(
            f"not a ZIP that can be read ({fault})", read="the file", allowed=allowed, field="file"
        ) from fault


def renamed(job: JobFile, names: dict[str, str]) -> JobFile:
    """The job with its files called by other names."""
    copy = job.model_copy(deep=True)
    for part in (*copy.parts, *(part for step in copy.take_apart for part in step.frees)):
        part.photos = [names.get(name, name) for name in part.photos]
        _rename(part.shape, names)
    return copy


def _read(bundle: zipfile.ZipFile, entry: zipfile.ZipInfo, most: int) -> bytes:
    if entry.compress_type not in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED):
        raise BadInput(
            "packed in a way that is not read", read=entry.filename, allowed="deflated or stored", field="file"
        )
    with bundle.open(entry) as opened:
        content = opened.read(most + 1)  # what an entry says of its size is not taken on trust
    if len(content) > most:
        raise BadInput(
            "too large when unpacked", read=entry.filename, allowed=f"at most {most // 10**6} MB", field="file"
        )
    return content


def _meshes(shape: Any) -> Iterator[str]:
    if isinstance(shape, MeshShape):
        yield shape.file
    elif isinstance(shape, CompoundShape):
        for piece in shape.of:
            yield from _meshes(piece.shape)


def _rename(shape: Any, names: dict[str, str]) -> None:
    if isinstance(shape, MeshShape):
        shape.file = names.get(shape.file, shape.file)
    elif isinstance(shape, CompoundShape):
        for piece in shape.of:
            _rename(piece.shape, names)
