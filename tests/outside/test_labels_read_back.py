"""Labels read back by an independent reader (ZXing, by zxing-cpp), measured on the page that PDFium draws.

Code 128 is ISO/IEC 15417, a QR code ISO/IEC 18004 (from memory: a quiet zone of ten modules; X not below 0.25 mm is
common practice for direct thermal printers).
"""

from __future__ import annotations

import io

import numpy as np
import pytest
import zxingcpp
from PIL import Image
from pypdf import PdfReader
from pypdfium2 import PdfDocument

from fardo.files.page import PAPERS, Paper
from fardo.files.shipping_label import LabelFacts, LabelSize, label_page, label_picture

TO = ("Isolde Marranquist", "The Old Sail Loft, second door", "14 Ropewalk Lane", "Ostwick, PM 73120")
FROM = ("Gannet Row Workshop", "2 Gannet Row", "Pellmouth 10440")
NUMBERS = ("OB-4471-20", "9400110200793456781234", "A1", "OB-" + "7" * 37, "WXYZ-ABCDE" * 4)


def facts(number: str = NUMBERS[0], to: tuple[str, ...] = TO) -> LabelFacts:
    return LabelFacts(to, FROM, "Oddbarrow Ground", number, "26 lb 14 oz", "30 x 27 x 24 in", "GR-1042",
                      ("This side up",), "2 Mar 2026")  # fmt: skip


def drawn(pdf: bytes, dots: int) -> Image.Image:
    document = PdfDocument(pdf)
    page = document[0].render(scale=dots / 72).to_pil()
    document.close()
    picture: Image.Image = page
    return picture


@pytest.mark.parametrize("number", NUMBERS)
@pytest.mark.parametrize(("size", "paper"), [("4x6", "letter"), ("half", "letter"), ("half", "a4")])
def test_the_bars_and_the_square_are_read_as_the_number(number: str, size: LabelSize, paper: Paper) -> None:
    # 203 dots to the inch is what a usual label printer has.
    read = zxingcpp.read_barcodes(drawn(label_page(facts(number), size, paper), 203))
    assert {one.text for one in read} == {number}
    kinds = {str(one.format).rpartition(".")[2].lower().replace("_", "").replace(" ", "") for one in read}
    assert kinds
    assert len(number) > 22 or kinds == {"code128", "qrcode"}


@pytest.mark.parametrize(("size", "paper"), [("4x6", "letter"), ("half", "letter"), ("half", "a4")])
def test_nothing_lies_outside_the_page_and_half_a_page_is_left_free(size: LabelSize, paper: Paper) -> None:
    long = (
        "A name that is as long as a careful clerk makes it, with titles",
        *["Line that is long " * 4] * 4,
        "Ostwick",
    )
    for one in (facts(), facts(to=long), *(facts(number) for number in NUMBERS)):
        pdf = label_page(one, size, paper)
        (page,) = PdfReader(io.BytesIO(pdf)).pages
        wide, high = (288, 432) if size == "4x6" else PAPERS[paper]
        assert (float(page.mediabox.width), float(page.mediabox.height)) == pytest.approx((wide, high), abs=0.01)
        ink = np.asarray(drawn(pdf, 150).convert("L")) < 128
        edge = round(3 / 25.4 * 150)  # mm
        assert not ink[:edge].any()
        assert not ink[-edge:].any()
        assert not ink[:, :edge].any()
        assert not ink[:, -edge:].any()
        if size == "half":
            below = ink[ink.shape[0] // 2 + round(8 / 25.4 * 150) :]
            assert not below.any()
    words = " ".join(PdfReader(io.BytesIO(label_page(facts(), size, paper))).pages[0].extract_text().split())
    for line in (*TO, *FROM, "Oddbarrow Ground", "OB-4471-20", "26 lb 14 oz", "Order GR-1042", "This side up"):
        assert line in words


def test_no_bar_is_taller_than_its_place_below_the_service() -> None:
    """26 mm for bars and number: 18 mm of bars, which run into nothing above them."""
    dots = 203
    ink = np.asarray(drawn(label_page(facts(), "4x6", "letter"), dots).convert("L")) < 128
    within = ink[:, round(6 / 25.4 * dots) : -round(6 / 25.4 * dots)]  # without the frame
    runs = np.zeros(within.shape[1], dtype=int)
    longest = 0
    for row in within:
        runs = np.where(row, runs + 1, 0)
        longest = max(longest, int(runs.max()))
    assert longest / dots * 25.4 == pytest.approx(18, abs=0.5)


def test_the_picture_is_of_true_size_within_half_a_millimetre() -> None:
    picture = Image.open(io.BytesIO(label_picture(label_page(facts(), "4x6", "letter"))))
    dots = picture.info["dpi"][0]
    for pixels, inches in zip(picture.size, (4, 6), strict=True):
        assert abs(pixels / dots - inches) * 25.4 < 0.5
    # The frame is drawn 4 mm inside the page.
    ink = np.asarray(picture.convert("L")) < 128
    columns = np.flatnonzero(ink.any(axis=0))
    for pixel, mm in ((columns[0], 4), (columns[-1], 4 * 25.4 - 4)):
        assert abs(pixel / dots * 25.4 - mm) < 0.5
    assert {one.text for one in zxingcpp.read_barcodes(picture)} == {"OB-4471-20"}


def test_no_bar_is_narrower_than_a_printer_prints() -> None:
    for number in NUMBERS[:4]:
        ink = np.asarray(drawn(label_page(facts(number), "4x6", "letter"), 1200).convert("L")) < 128
        bars = next(one for one in zxingcpp.read_barcodes(drawn(label_page(facts(number), "4x6", "letter"), 300))
                    if "128" in str(one.format))  # fmt: skip
        row = ink[bars.position.top_left.y * 4 + 20, bars.position.top_left.x * 4 : bars.position.top_right.x * 4]
        changes = np.flatnonzero(np.diff(row.astype(int)))
        narrowest = np.diff(changes)[1:-1].min() / 1200 * 25.4
        assert narrowest > 0.25 - 0.03, number


def test_without_a_number_it_says_so_and_has_no_code() -> None:
    pdf = label_page(facts(""), "4x6", "letter")
    assert "No tracking number yet" in PdfReader(io.BytesIO(pdf)).pages[0].extract_text()
    assert zxingcpp.read_barcodes(drawn(pdf, 203)) == []
