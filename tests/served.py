"""A shop served by a process of its own, as a person would start it."""

from __future__ import annotations

import re
import socket
import subprocess
import sys
import threading
from datetime import date
from functools import partial
from pathlib import Path
from types import TracebackType
from typing import Self

import uvicorn
from fastapi import FastAPI

from fardo.api.app import build_app, open_shop
from fardo.api.context import Crews
from fardo.demo import open_demo


class Served:
    """`fardo serve` (or `fardo demo`) on a free port; ready when it is entered, ended when it is left."""

    def __init__(self, database: Path, command: str = "serve", says: str = "") -> None:
        """Args: says: how the line begins that it says before its address."""
        self._database, self._command, self._says = database, command, says
        self._port = free_port()
        self._start()

    def _start(self) -> None:
        arguments = [self._command, "--db", str(self._database), "--port", str(self._port)]
        self._process = subprocess.Popen(
            [sys.executable, "-m", "fardo.cli", *arguments], stdout=subprocess.PIPE, text=True
        )
        # It says its address once it is listening; a server that ends instead closes the pipe.
        assert self._process.stdout is not None
        if self._says:
            said = self._process.stdout.readline()
            assert said.startswith(self._says), said
            self._says = ""
        found = re.search(r"http://\S+", self._process.stdout.readline())
        assert found, "the server did not start"
        self.url = found[0]

    def line(self) -> str:
        """The next line it says."""
        assert self._process.stdout is not None
        return self._process.stdout.readline()

    @property
    def pid(self) -> int:
        return self._process.pid

    def wait(self) -> None:
        """Until it has ended."""
        self._process.wait()

    def kill(self) -> None:
        """At once, in the middle of whatever it does."""
        self._process.kill()
        self._process.wait()

    def restart(self) -> None:
        """Killed and started again on the same database and port."""
        self.kill()
        self._start()

    def __enter__(self) -> Served:
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        self.kill()
        if self._process.stdout:
            self._process.stdout.close()


class AppHere:
    """An application served by a thread of this process, on a free port."""

    def __init__(self, app: FastAPI) -> None:
        self.app = app
        listening = threading.Event()

        class Server(uvicorn.Server):
            async def startup(self, sockets: list[socket.socket] | None = None) -> None:
                await super().startup(sockets)
                listening.set()

        port = free_port()
        self._server = Server(
            uvicorn.Config(self.app, host="127.0.0.1", port=port, log_level="critical", lifespan="off")
        )
        self._thread = threading.Thread(target=self._server.run, daemon=True)
        self._thread.start()
        assert listening.wait(30), "the server did not start"
        self.url = f"http://127.0.0.1:{port}"

    def __enter__(self) -> Self:
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        self._server.should_exit = self._server.force_exit = True
        self._thread.join()


_BUILT: list[FastAPI] = []  # applications that are on no shop now: what their routes need is worked out but once


def open_app(database: Path) -> FastAPI:
    """An application on that shop, which `close_app` must have back."""
    return open_shop(_BUILT.pop() if _BUILT else build_app(), database, CREWS, FILL_MADE_UP)


def close_app(app: FastAPI) -> None:
    app.state.context.database.close()
    app.state.made_up.close()
    app.openapi_schema = None  # it tells what is in the registers, which a test may add to
    _BUILT.append(app)


FILL_MADE_UP = partial(open_demo, today=date(2026, 3, 2))
CREWS = Crews()  # begun when first asked for, and shared by all shops that tests serve in this process


class ServedHere(AppHere):
    """A shop, quicker to start than in a process of its own, for tests that never end it by force."""

    def __init__(self, database: Path) -> None:
        super().__init__(open_app(database))

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        super().__exit__(kind, error, at)
        close_app(self.app)


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port
