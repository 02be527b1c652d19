"""A second browser from another address of this machine: refused, let in by passphrase and by code, put out again."""

from __future__ import annotations

import socket
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest
from selenium import webdriver
from selenium.webdriver.common.keys import Keys

from fardo.serving import network_names
from fardo.store.access import Access
from fardo.store.database import Database
from tests.browser.driver import Page, resize
from tests.served import free_port

WORDS = "reel loom bobbin treadle"


@pytest.fixture
def on_network(shop_on_disk: Path) -> Iterator[tuple[str, str]]:
    """A shop served with --lan: its address on this machine, and that on the network."""
    try:
        socket.getaddrinfo(network_names()[0], None)
    except OSError:
        pytest.skip("this machine has no address but its own")
    database = Database(shop_on_disk)
    Access(database).set_passphrase(WORDS)
    database.close()
    port = free_port()
    command = [sys.executable, "-m", "fardo.cli", "serve", "--lan", "--db", str(shop_on_disk), "--port", str(port)]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as served:
        assert served.stdout is not None
        said = [served.stdout.readline() for _ in range(3)]
        assert "Plain HTTP" in said[2]
        yield f"http://127.0.0.1:{port}", said[1].split()[-1]
        served.kill()


def test_a_tablet_is_let_in_by_passphrase_and_by_code_and_put_out(
    browser: webdriver.Chrome, on_network: tuple[str, str]
) -> None:
    own, elsewhere = on_network
    assert elsewhere.startswith(f"http://{network_names()[0]}:")
    assert httpx.get(f"{elsewhere}/api/jobs").status_code == 401
    assert httpx.get(f"{own}/api/jobs").status_code == 200
    tablet, bench = Page(browser, elsewhere), Page(browser, own)
    resize(browser, 768, 1024)
    try:
        tablet.open("/", "#passphrase")
        tablet.one("#passphrase").send_keys("wrong words", Keys.ENTER)
        tablet.shows("#says", "That is not the passphrase.")
        tablet.one("#passphrase").clear()
        tablet.one("#passphrase").send_keys(WORDS, Keys.ENTER)
        tablet.one(".bench li")
        assert browser.execute_script("return document.cookie") == ""

        # From the shop's own screen a code is shown, which lets in a browser that has no session.
        bench.open("/settings", "#shop-passphrase")
        assert len(bench.all("[aria-label='Devices signed in'] li")) == 1
        bench.button("Show a code to scan").click()
        code = bench.text("figcaption")
        browser.delete_all_cookies()
        browser.get(elsewhere)
        browser.delete_all_cookies()
        browser.get("about:blank")
        browser.get(code)
        tablet.one(".bench li")
        assert "code=" not in browser.current_url

        # Both sessions are ended from the shop; what the tablet asks next leads to the way in.
        bench.open("/settings", "#shop-passphrase")
        for left in (1, 0):
            bench.all("[aria-label='Devices signed in'] button")[0].click()
            bench.until(lambda left=left: len(bench.all("[aria-label='Devices signed in'] li")) == left)  # type: ignore[misc]
        tablet.open("/settings", "#passphrase")
    finally:
        resize(browser, 1280, 800)
        browser.get("about:blank")
