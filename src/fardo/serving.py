"""A shop served to this machine's browser, and the simulated devices and carrier that the made-up one has beside it."""

from __future__ import annotations

import gc
import socket
import ssl
import subprocess
import sys
import threading
from collections.abc import Iterator, Mapping
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import date
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from fardo.core.refusal import BadInput, NoAnswer
from fardo.files.tariff import read_tariffs, services_of
from fardo.wire.hosts import LOCAL_HOSTS

if TYPE_CHECKING:
    from fardo.api.context import AppContext

_COLLECTED_AFTER = (20_000, 20, 50)  # objects made, and how many of these rounds the older ones wait


def stand_in(device: str, port: int, shop: str) -> bool:
    """Starts a simulated device and says where; False where its port is taken."""
    from fardo.standins.device_page import serve_device
    from fardo.standins.instrument import MODELS, serve
    from fardo.standins.printer import TITLE, Printer

    try:
        if device == "printer":
            serve_device(Printer(), port)
        else:
            serve(MODELS[device], port, shop)
    except (OSError, OverflowError):
        return False
    print(f"{TITLE if device == 'printer' else MODELS[device].title}: http://127.0.0.1:{port}", flush=True)
    return True


@contextmanager
def carrier_beside(port: int) -> Iterator[tuple[str, str]]:
    """A simulated carrier in a process of its own, for as long as this one runs: its address, and what it says of it.
    Nothing where its port is taken.
    """
    arguments = [sys.executable, "-m", "fardo.cli", "standin", "carrier", "--port", str(port)]
    # It ends when its input does, and that is when this process ends, however it ends.
    carrier = subprocess.Popen(arguments, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
    assert carrier.stdin is not None
    assert carrier.stdout is not None
    try:
        said = carrier.stdout.readline().strip()
        yield f"http://127.0.0.1:{port}" if said else "", said
    finally:
        carrier.stdin.close()
        carrier.wait()


def be_carrier(port: int) -> None:
    """Raises BadInput where the port is taken."""
    import uvicorn

    from fardo.demo import CARRIER, TARIFFS
    from fardo.standins.carrier import create_carrier

    services = [one for one in services_of(read_tariffs(TARIFFS)) if one.carrier == CARRIER]
    config = uvicorn.Config(create_carrier(CARRIER, services), log_level="warning", timeout_graceful_shutdown=1)
    try:
        listening = socket.create_server(("127.0.0.1", port))
    except (OSError, OverflowError) as taken:
        raise BadInput("taken by something else", read=str(port), allowed="another port", field="port") from taken
    server = uvicorn.Server(config)

    def end_with_input() -> None:
        sys.stdin.read()
        server.should_exit = True

    if not sys.stdin.isatty():
        threading.Thread(target=end_with_input, daemon=True).start()
    print(f"{CARRIER}, simulated: http://127.0.0.1:{port}", flush=True)
    server.run(sockets=[listening])


def _keep_out_of_collection(context: AppContext) -> None:
    """What is there from now on, code, models and the shop's tariffs, is not looked through again for what is no longer
    needed: a look through all of it held up a keystroke by a fifth of a second every few seconds.
    """
    with suppress(Exception):  # a shop that cannot be read is told page by page
        _ = context.today
    gc.collect()
    gc.freeze()
    gc.set_threshold(*_COLLECTED_AFTER)


@dataclass(frozen=True, slots=True)
class Network:
    """How a shop is served to other devices.

    Args:
        certificate, key: files for TLS, both or neither.
    """

    certificate: Path | None = None
    key: Path | None = None

    @property
    def scheme(self) -> str:
        return "https" if self.certificate else "http"

    def check(self) -> None:
        """Raises BadInput for a certificate and a key that cannot be served with."""
        if self.certificate is None:
            return
        try:
            ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(self.certificate, self.key)
        except OSError as fault:  # of which those of TLS are some
            read, allowed = f"{self.certificate} and {self.key}", "a certificate and its key, as PEM"
            raise BadInput("cannot be used", read=read, allowed=allowed, field="cert") from fault


def network_names() -> list[str]:
    """Addresses of this machine on its network, then its name: only these are answered to."""
    found: list[str] = []
    with suppress(OSError), socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        probe.connect(("192.0.2.1", 9))  # RFC 5737: nobody's; nothing is sent, the system only picks its own address
        found.append(probe.getsockname()[0])
    with suppress(OSError):
        found += [str(info[4][0]) for info in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)]
    name = socket.gethostname().lower()
    return [one for one in dict.fromkeys([*found, name, f"{name}.local"]) if not one.startswith("127.")]


def serve_shop(
    db: Path, port: int, devices: Mapping[str, int] | None = None, says: str = "", network: Network | None = None,
    *, made_up: bool = False,
) -> None:  # fmt: skip
    """Serves a shop until it is stopped.

    Args:
        devices: simulated ones to start beside it, with their ports.
        says: a line to print after its address.
        network: where it is served to other devices too.
        made_up: whether it is the made-up shop, so that none is offered to be tried beside it.

    Raises: NoAnswer where it should be served to others and has no passphrase.
    """
    import uvicorn

    from fardo.api.app import create_app
    from fardo.api.gate import Gate
    from fardo.api.patience import PatientProtocol
    from fardo.demo import open_demo

    fill = None if made_up else partial(open_demo, today=date.today())
    application = create_app(db, keeps_copies=True, fill_made_up=fill)
    if application.state.context.database.begun:
        print(f"A new, empty shop is begun in {db}.", flush=True)

    _keep_out_of_collection(application.state.context)
    names, scheme = (network_names(), network.scheme) if network else ([], "http")
    if network is not None:
        if not application.state.context.access.has_passphrase:
            raise NoAnswer(f"{db} has no passphrase: set one first by fardo passphrase --db {db}.")
        application.state.gate = gate = Gate((*LOCAL_HOSTS, *names))
        for session in application.state.context.access.sessions():
            gate.know(session.address)
        application.state.addresses = [f"{network.scheme}://{name}:{port}" for name in names]

    class Announcing(uvicorn.Server):
        """Says the address once it is listening, so that whoever reads it can go there at once."""

        async def startup(self, sockets: list[socket.socket] | None = None) -> None:
            await super().startup(sockets)
            if self.started:
                print(f"Fardo on {scheme}://127.0.0.1:{port}  (shop: {db}; stop with Ctrl-C)", flush=True)
                for address in application.state.addresses[:1]:
                    print(f"On the network: {address}", flush=True)
                if network is not None and network.scheme == "http":
                    print("Plain HTTP: who is on this network can read what is sent.", flush=True)
                if says:
                    print(says, flush=True)
                for device, own_port in (devices or {}).items():
                    stand_in(device, own_port, f"http://127.0.0.1:{port}")

    Announcing(
        uvicorn.Config(
            application,
            host="0.0.0.0" if network else "127.0.0.1",
            ssl_certfile=str(network.certificate) if network and network.certificate else None,
            ssl_keyfile=str(network.key) if network and network.key else None,
            port=port,
            log_level="warning",
            timeout_graceful_shutdown=1,
            http=PatientProtocol,
        )
    ).run()
