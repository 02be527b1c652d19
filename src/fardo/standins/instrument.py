"""A digital tape and a bench scale, simulated: a page to set the reading, which is then sent to the shop over HTTP.

What a real one does: it posts ``{"device": "tape", "reading": "10 1/2 in"}`` to the shop's ``/api/devices/readings``; a
scale says ``"state": "settling"`` with it until it has settled.
"""

from __future__ import annotations

import json
import threading
import time
import urllib.error
import urllib.request
from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from html import escape
from http.server import ThreadingHTTPServer
from urllib.parse import parse_qs

from fardo.core.quantity import read_mass
from fardo.core.refusal import BadInput
from fardo.standins.device_page import Answer, serve_device
from fardo.standins.scale import Scale, State

FAULTS = {
    "": "none",
    "nonsense": "sends nonsense",
    "wrong": "sends the other kind of measure",
    "slow": "answers after three seconds",
    "silent": "is pressed and sends nothing",
}
_SLOW_SECONDS = 3
_LONGEST_FORM = 4_000
_EVERY_S = 0.25  # a reading while it settles


@dataclass(frozen=True, slots=True)
class Model:
    """What one kind of instrument measures, and how its page looks."""

    device: str
    title: str
    example: str
    other: str


MODELS = {
    "tape": Model("tape", "Digital tape, simulated", "10 1/2 in", "4 lb 6 oz"),
    "scale": Model("scale", "Bench scale, simulated", "4 lb 6 oz", "10 1/2 in"),
}


class Instrument(ABC):
    """What has a page with a form, on which it is pressed."""

    largest = _LONGEST_FORM

    @abstractmethod
    def page(self, form: Mapping[str, str] | None) -> str:
        """Its page; of a form that was sent, with what came of it."""

    def got(self, _: str) -> Answer:
        return Answer(self.page(None).encode())

    def sent(self, _: str, __: str, content: bytes) -> Answer:
        form = parse_qs(content.decode("utf-8", "replace"))
        return Answer(self.page({name: values[0] for name, values in form.items()}).encode())


class Tape(Instrument):
    """What is typed on its page is sent when it is pressed.

    Args:
        shop: its address.
    """

    def __init__(self, model: Model, shop: str) -> None:
        self.model, self.shop = model, shop

    def page(self, form: Mapping[str, str] | None) -> str:
        if form is None:
            return _page(self.model, self.model.example, "", "")
        reading, fault = form.get("reading", ""), form.get("fault", "")
        return _page(self.model, reading, fault, send(self.shop, self.model, reading, fault))


class BenchScale(Instrument):
    """What is put on it settles, and its readings are sent meanwhile.

    Args:
        shop: its address.
    """

    def __init__(self, model: Model, shop: str) -> None:
        self.model, self.shop, self.scale = model, shop, Scale()
        self._guard = threading.Lock()

    def page(self, form: Mapping[str, str] | None) -> str:
        if form is None:
            return _page(self.model, self.model.example, "", "", _BUTTONS)
        reading, fault, deed = form.get("reading", ""), form.get("fault", ""), form.get("deed", "")
        return _page(self.model, reading, fault, self._done(reading, fault, deed), _BUTTONS)

    def _done(self, reading: str, fault: str, deed: str) -> str:
        if fault or not deed:
            return send(self.shop, self.model, reading, fault)
        with self._guard:
            if deed == "tare":
                self.scale.tare(time.monotonic())
                return f"Tared: it shows {self.scale.read(time.monotonic()).text}."
            if deed == "unit":
                self.scale.units = "cm" if self.scale.units == "in" else "in"
                return f"It shows {self.scale.read(time.monotonic()).text or 'overload'}."
            try:
                load = read_mass("0 lb" if deed == "off" else reading, "lb", zero=True, field="load")
            except BadInput as no:
                return str(no)
            self.scale.put(load, time.monotonic())
            return self._settle()

    def _settle(self) -> str:
        """Sends what it shows until it has settled; what came of the last, in words."""
        clock = threading.Event()
        while True:
            shown = self.scale.read(time.monotonic())
            said = send(self.shop, self.model, shown.text, state=shown.state)
            if shown.state != "settling":
                return said
            clock.wait(_EVERY_S)


def send(shop: str, model: Model, reading: str, fault: str = "", state: State = "settled") -> str:
    """Sends a reading to the shop; what came of it, in words."""
    if fault == "silent":
        return "Pressed; nothing was sent."
    if fault == "slow":
        time.sleep(_SLOW_SECONDS)
    said = {"nonsense": "##:##", "wrong": model.other}.get(fault, reading)
    told = {"device": model.device, "reading": said, **({"state": state} if state != "settled" else {})}
    request = urllib.request.Request(
        f"{shop}/api/devices/readings", json.dumps(told).encode(), {"Content-Type": "application/json"}, method="POST"
    )
    try:
        with urllib.request.urlopen(request, timeout=10) as answer:
            heard = json.load(answer)["heard"]
    except urllib.error.HTTPError as refusal:
        return f"The shop does not take {said!r}: {json.load(refusal).get('detail', 'no reason given')}"
    except (urllib.error.URLError, OSError, ValueError) as fault_:
        return f"The shop's server is not responding: {fault_}"
    return f"Sent {said or state}; {heard} open {'page' if heard == 1 else 'pages'} heard it."


def serve(model: Model, port: int, shop: str) -> ThreadingHTTPServer:
    """The instrument on a port of this machine, served by a thread of its own. Raises OSError where it is taken."""
    return serve_device(BenchScale(model, shop) if model.device == "scale" else Tape(model, shop), port)


_BUTTONS = """<p><button name="deed" value="put">Put it on</button> <button name="deed" value="off">Take it off</button>
<button name="deed" value="tare">Tare</button> <button name="deed" value="unit">lb or kg</button></p>"""


def _page(model: Model, reading: str, fault: str, said: str, buttons: str = "<button>Send</button>") -> str:
    options = "".join(
        f'<option value="{code}"{" selected" if code == fault else ""}>{words}</option>'
        for code, words in FAULTS.items()
    )
    return f"""<!doctype html><html lang="en"><meta charset="utf-8"><title>{model.title}</title>
<style>body{{font:18px/1.5 sans-serif;margin:2em auto;max-width:24em}}label{{display:block;margin:.8em 0}}
input,select,button{{font:inherit;padding:.3em .5em}}input{{width:100%;font-size:2em;box-sizing:border-box}}</style>
<h1>{model.title}</h1><p>Put the cursor in a field of the shop, then press here.</p>
<form method="post"><label>Reading <input name="reading" value="{escape(reading)}"></label>
<label>Fault <select name="fault">{options}</select></label>{buttons}</form>
<p role="status">{escape(said)}</p></html>"""
