"""A disk that forgets what was not synced: a layer under SQLite that notes every write and every sync of its files.

A killed process says nothing of a power cut, as the system goes on to write what it was given. Here every write is
noted as it goes to the real file, and `after_power_cut` gives what a disk has that may have lost any write since the
last sync.

The layer is a VFS of the very SQLite that Python's own module uses: its default one, with three of its methods replaced
(sqlite.org/vfs.html; the layout of its structures is that of sqlite3.h, which SQLite keeps stable).
"""

from __future__ import annotations

import _sqlite3
import ctypes
import os
from collections.abc import Iterator
from contextlib import contextmanager
from ctypes import CFUNCTYPE, POINTER, Structure, c_char_p, c_int, c_int64, c_void_p
from dataclasses import dataclass, field
from pathlib import Path
from random import Random

import pytest

_WRITE = CFUNCTYPE(c_int, c_void_p, c_void_p, c_int, c_int64)
_TRUNCATE = CFUNCTYPE(c_int, c_void_p, c_int64)
_SYNC = CFUNCTYPE(c_int, c_void_p, c_int)


class _Methods(Structure):
    _fields_ = [
        ("version", c_int), ("close", c_void_p), ("read", c_void_p), ("write", c_void_p), ("truncate", c_void_p),
        ("sync", c_void_p), *((f"other{n}", c_void_p) for n in range(13)),
    ]  # fmt: skip


class _File(Structure):
    _fields_ = [("methods", POINTER(_Methods))]


class _Vfs(Structure):
    pass


# The name goes through as an address: the layer below keeps it.
_OPEN = CFUNCTYPE(c_int, POINTER(_Vfs), c_void_p, POINTER(_File), c_int, POINTER(c_int))
_Vfs._fields_ = [
    ("version", c_int), ("file_size", c_int), ("longest_path", c_int), ("next", c_void_p), ("name", c_char_p),
    ("data", c_void_p), ("open", c_void_p), ("delete", c_void_p), *((f"other{n}", c_void_p) for n in range(13)),
]  # fmt: skip
_DELETE = CFUNCTYPE(c_int, POINTER(_Vfs), c_char_p, c_int)


@dataclass
class _Noted:
    """What was done to a file since it was first opened. Args: before: what it held then."""

    before: bytes
    done: list[tuple[str, int, bytes]] = field(default_factory=list)
    synced: int = 0
    deleted: bool = False


class ForgetfulDisk:
    """What the files of one folder hold, and what a disk would hold of them after a power cut."""

    def __init__(self, folder: Path) -> None:
        self._folder = os.path.realpath(folder)
        self._files: dict[str, _Noted] = {}

    def opened(self, path: str) -> None:
        known = self._files.get(path)
        if path.startswith(self._folder) and (known is None or known.deleted):
            self._files[path] = _Noted(Path(path).read_bytes() if os.path.exists(path) else b"")

    def note(self, path: str, what: str, at: int, content: bytes) -> None:
        if (noted := self._files.get(path)) is not None:
            noted.done.append((what, at, content))
            if what == "sync":
                if not noted.synced and not noted.before:
                    self._sync_folder()  # SQLite does so with the first sync of a file it has made
                noted.synced = len(noted.done)

    def deleted(self, path: str, folder_synced: bool) -> None:
        """Until its folder is synced a file that was deleted may be there again."""
        if path in self._files:
            self._files[path].deleted = True
        if folder_synced:
            self._sync_folder()

    def _sync_folder(self) -> None:
        self._files = {path: noted for path, noted in self._files.items() if not noted.deleted}

    def after_power_cut(self, into: Path, draw: Random) -> None:
        """Lays what a disk has into a folder: all that was synced, and of the rest whatever the draw says."""
        into.mkdir()
        for path, noted in self._files.items():
            if noted.deleted and draw.random() < 0.5:
                continue
            content = bytearray(noted.before)
            for n, (what, at, piece) in enumerate(noted.done):
                if n >= noted.synced and draw.random() < 0.5:
                    continue  # never reached it
                if what == "write":
                    content[len(content) :] = b"\0" * (at - len(content))
                    content[at : at + len(piece)] = piece
                elif what == "truncate":
                    del content[at:]
            (into / Path(path).name).write_bytes(content)


@contextmanager
def forgetful(folder: Path) -> Iterator[ForgetfulDisk]:
    """Every database opened meanwhile writes through the layer; files of `folder` are noted."""
    sqlite = ctypes.CDLL(_sqlite3.__file__)
    if not hasattr(sqlite, "sqlite3_vfs_register"):
        pytest.skip("this Python's SQLite does not show its functions")
    sqlite.sqlite3_vfs_find.restype = POINTER(_Vfs)
    usual = sqlite.sqlite3_vfs_find(None)
    open_usual, delete_usual = _OPEN(usual.contents.open), _DELETE(usual.contents.delete)
    disk, paths, kept = ForgetfulDisk(folder), {}, {}

    def methods_of(own: POINTER(_Methods)) -> _Methods:  # type: ignore[valid-type]
        """A copy of a file's methods that notes what is done; made once for each kind of file there is."""
        address = ctypes.addressof(own.contents)
        if address not in kept:
            copy = _Methods.from_buffer_copy(own.contents)
            write, truncate, sync = _WRITE(copy.write), _TRUNCATE(copy.truncate), _SYNC(copy.sync)

            def noted_write(file: int, content: int, size: int, at: int) -> int:
                disk.note(paths.get(file, ""), "write", at, ctypes.string_at(content, size))
                return write(file, content, size, at)

            def noted_truncate(file: int, size: int) -> int:
                disk.note(paths.get(file, ""), "truncate", size, b"")
                return truncate(file, size)

            def noted_sync(file: int, flags: int) -> int:
                disk.note(paths.get(file, ""), "sync", 0, b"")
                return sync(file, flags)

            calls = (_WRITE(noted_write), _TRUNCATE(noted_truncate), _SYNC(noted_sync))
            copy.write, copy.truncate, copy.sync = (ctypes.cast(call, c_void_p).value for call in calls)
            kept[address] = (copy, calls)
        return kept[address][0]

    def noted_open(vfs: object, name: int | None, file: object, flags: int, out: object) -> int:
        code = open_usual(usual, name, file, flags, out)
        paths.pop(ctypes.addressof(file.contents), None)  # type: ignore[attr-defined]
        if code == 0 and file.contents.methods:  # type: ignore[attr-defined]
            if name:
                path = ctypes.string_at(name).decode()
                disk.opened(path)
                paths[ctypes.addressof(file.contents)] = path  # type: ignore[attr-defined]
            file.contents.methods = ctypes.pointer(methods_of(file.contents.methods))  # type: ignore[attr-defined]
        return code

    def noted_delete(vfs: object, name: bytes, sync_folder: int) -> int:
        code = delete_usual(usual, name, sync_folder)
        if code == 0:
            disk.deleted(name.decode(), bool(sync_folder))
        return code

    layer = _Vfs.from_buffer_copy(usual.contents)
    opens, deletes = _OPEN(noted_open), _DELETE(noted_delete)
    layer.name = b"forgetful"
    layer.open, layer.delete = (ctypes.cast(call, c_void_p).value for call in (opens, deletes))
    assert sqlite.sqlite3_vfs_register(ctypes.byref(layer), 1) == 0
    try:
        yield disk
    finally:
        sqlite.sqlite3_vfs_register(usual, 1)
        sqlite.sqlite3_vfs_unregister(ctypes.byref(layer))
