"""The tariff room: a tariff changed and kept, tables in and out, surcharges as sentences, fuel, coming prices."""

from __future__ import annotations

from pathlib import Path

from selenium.webdriver.common.keys import Keys

from fardo.demo import CARRIER
from tests.browser.driver import Page


def opened(page: Page) -> None:
    page.open("/tariffs", ".carriers")
    next(one for one in page.all(".carrier") if CARRIER in one.text).click()


def changing(page: Page) -> None:
    opened(page)
    page.button("Change it").send_keys(Keys.ENTER)
    page.one(".tabs")


CELL = "t-services[0].charges[0].rows[7][5]"


def cell(page: Page, name: str, words: str) -> None:
    element = page.driver.find_element("id", name)
    element.send_keys(Keys.CONTROL, "a")
    element.send_keys(words)


def test_a_tariff_is_changed_looked_over_and_kept_as_a_version(page: Page) -> None:
    changing(page)
    assert page.axe() == []
    cell(page, CELL, "dear")
    page.shows(".one .says", "services[0].charges[0].rows[7][5]")
    assert not page.button("Save as a new version").is_enabled()
    page.button("Go there").send_keys(Keys.ENTER)
    page.until(lambda: page.focus == CELL)
    # Closed and opened again, what was typed is there still.
    changing(page)
    assert page.driver.find_element("id", CELL).get_attribute("value") == "dear"
    cell(page, CELL, "1.99")
    page.shows(".one .says", "Warnings: Ground, charge 1: the row up to 8 lb costs 1.99")
    cell(page, CELL, "16.15")
    page.until(lambda: "Look again" not in page.text(".one .says"))
    page.driver.find_element("id", CELL).send_keys(Keys.ARROW_DOWN)
    page.until(lambda: page.focus == "t-services[0].charges[0].rows[8][5]")
    keep = page.button("Save as a new version")
    page.until(lambda: keep.is_enabled())
    keep.send_keys(Keys.ENTER)
    page.shows(".toast", f"{CARRIER} is kept as version 2.")
    page.shows(".bar", "version 2")
    page.fill("try-size", "10 x 10 x 10")
    page.fill("try-weight", "2 lb")
    page.press(Keys.ENTER)
    page.shows(".tried", "postage, zone 6 16.15")


def test_charges_are_added_moved_and_taken_away_and_what_is_left_out_comes_back(page: Page) -> None:
    changing(page)
    page.choose(".add [role=combobox]", "residential")
    charges = page.until(lambda: [one.text for one in page.all("legend") if "residential" in one.text])
    last = len(page.all("legend"))
    page.shows(".one .says", ".amount")
    number = charges[-1].split(".")[0]
    cell(page, f"t-services[0].charges[{int(number) - 1}].amount", "2.00")
    page.shows(".one .says", "Nothing wrong is found in it.")
    page.all(".moves")[-1].find_elements("css selector", "button")[2].send_keys(Keys.ENTER)
    page.until(lambda: len(page.all("legend")) < last)
    page.button("Add one like it").send_keys(Keys.ENTER)
    page.shows(".one .tabs", "Ground 2")
    page.button("Discard changes").send_keys(Keys.ENTER)
    page.shows(".toast", "What was changed is left out.")
    page.button("Undo").send_keys(Keys.ENTER)
    page.button("Change it").send_keys(Keys.ENTER)
    page.shows(".one .tabs", "Ground 2")


def test_a_table_comes_in_from_a_spreadsheet_or_by_pasting(page: Page, tmp_path: Path) -> None:
    changing(page)
    file = tmp_path / "ground.csv"
    file.write_text("up to,2,3,4,5,6\n5 lb,1.00,1.00,1.00,1.00,oops\n")
    page.one("input[aria-label='Table as CSV']").send_keys(str(file))
    page.shows(".one .says", "row 2, column 6")
    file.write_text("up to,2,3,4,5,6\n5 lb,1.00,1.00,1.00,1.00,1.25\n9 lb,2.00,2.00,2.00,2.00,2.25\n")
    page.one("input[aria-label='Table as CSV']").send_keys(str(file))
    page.shows(".toast", "version 2")
    changing(page)
    assert page.driver.find_element("id", "t-services[0].charges[0].rows[1][5]").get_attribute("value") == "2.25"
    page.driver.execute_script(
        "const data = new DataTransfer(); data.setData('text', arguments[1]);"
        "const paste = {clipboardData: data, bubbles: true, cancelable: true};"
        "arguments[0].dispatchEvent(new ClipboardEvent('paste', paste))",
        page.driver.find_element("id", "t-services[0].charges[0].rows[1][0]"),
        "9 lb\t2\t2\t2\t2\t2.75\n20 lb\t3\t3\t3\t3\t3.50\n",
    )
    pasted = "t-services[0].charges[0].rows[2][5]"
    page.until(lambda: page.driver.find_element("id", pasted).get_attribute("value") == "3.50")


def test_a_carrier_is_begun_on_the_screen(page: Page) -> None:
    page.open("/tariffs", ".carriers")
    page.one("summary").click()
    page.fill("begin-carrier", "Mossgate Carts")
    page.press(Keys.ENTER)
    page.shows(".one", "placeholder prices")
    assert page.axe() == []
    # What is pasted with a fault stays, and the sentence names its row.
    page.one("#own-table-0").send_keys("up to,near,middle,far", Keys.ENTER, "70 lb,7.77,8.88")
    page.button("Save its prices").send_keys(Keys.ENTER)
    page.shows(".one [role=alert]", "row 2")
    page.one("#own-table-0").send_keys(",9.99")
    page.button("Save its prices").send_keys(Keys.ENTER)
    page.shows(".toast", "Parcel of Mossgate Carts has its own prices now.")
    page.until(lambda: not page.all("#own-table-0"))
    page.fill("try-weight", "2 lb")
    page.press(Keys.ENTER)
    page.shows(".tried", "9.99")
    # A cell is still changed on the screen.
    page.button("Change it").click()
    page.shows(".one .tabs", "Parcel")
    cell(page, "t-services[0].charges[0].rows[0][3]", "11.11")
    page.until(lambda: page.button("Save as a new version").is_enabled())
    page.button("Save as a new version").send_keys(Keys.ENTER)
    page.shows(".toast", "Mossgate Carts is kept as version 3.")


def test_fuel_is_changed_in_one_place_and_that_undone(page: Page) -> None:
    page.open("/tariffs", ".carriers")
    page.one("details:has(#fuel-0) summary").click()
    page.fill("fuel-0", "13.25")
    page.press(Keys.ENTER)
    page.shows(".toast", "Fuel of Oddbarrow is 13.25 % now.")
    page.shows("details:has(#fuel-0) summary", "Oddbarrow 13.25 %")
    page.button("Undo").click()
    page.shows("details:has(#fuel-0) summary", "Oddbarrow 12.5 %")
    page.fill("fuel-0", "much")
    page.press(Keys.ENTER)
    page.shows("details:has(#fuel-0)", "percent: read 'much', not a number")


def test_coming_prices_are_added_and_parcels_priced_by_both(page: Page) -> None:
    opened(page)
    page.button("Add coming prices").click()
    page.until(lambda: page.all("#coming-percent"))
    assert page.axe() == []
    page.fill("coming-percent", "10")
    page.press(Keys.ENTER)
    page.shows(".toast", "Oddbarrow has prices from")
    page.until(lambda: [one.click() or one for one in page.all("summary") if "Compare two versions" in one.text])
    page.fill("compare-parcels", "24 x 12 x 8, 9 lb, 73120\n30 x 30, 22 lb, 86410")
    page.button("Compare").click()
    page.shows("form[aria-label=Compare]", "parcels, line 2")
    page.fill("compare-parcels", "24 x 12 x 8, 9 lb, 73120\n30 x 30 x 10, 22 lb, 86410, residential")
    page.button("Compare").click()
    page.shows(".one", "2 priced by both")
    told = page.text(".one")
    assert "Ground, account: residential surcharge" in told
    assert "(+10.0 %)" in told
    assert page.axe() == []


def test_a_surcharge_is_a_sentence_that_is_filled_in(page: Page) -> None:
    changing(page)
    page.choose(".add [role=combobox]", "surcharge")
    legends = [one.text for one in page.all("legend")]
    n = int(legends[-1].split(".")[0]) - 1
    at = f"t-services[0].charges[{n}]"
    cell(page, f"{at}.what", "hand sorting")
    page.driver.find_element("id", f"{at}.how").click()
    page.until(lambda: page.all("[role=option]"))
    next(one for one in page.all("[role=option]") if one.text == "a price by zone").click()
    for zone, price in enumerate(("5.00", "5.50", "6.00", "6.50", "7.00")):
        cell(page, f"{at}.prices[{zone}]", price)
    page.driver.execute_script("arguments[0].closest('fieldset').querySelector('details').open = true",
                               page.driver.find_element("id", f"{at}.what"))  # fmt: skip
    cell(page, f"{at}.why", "longer than a belt is wide")
    cell(page, f"{at}.code", "sorting")
    page.all("[aria-label='if']")[-1].find_element("css selector", "[role=combobox]").click()
    page.until(lambda: page.all("[role=option]"))
    next(one for one in page.all("[role=option]") if one.text == "longest side over").click()
    page.until(lambda: page.focus == f"{at}.when.longest_side_over")
    page.press("40 in")
    page.shows(".one .says", "Nothing wrong is found in it.")
    page.button("Save as a new version").click()
    page.shows(".toast", "version 2")
    page.shows(".one", "hand sorting: 5.00 to 7.00 by zone, longest side over 40 in")
