"""Artwork of several layers: read, regrouped, made a card of, replaced on the shelf."""

from __future__ import annotations

import json
import math
import re
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

from stileblade.geometry.curves.transforms import scaling
from stileblade.outlines.reading.kinds import read_file
from tests.e2e.bench import Bench

# a disc of r = 50 with openings of 3.14 and 19.6 mm^2, a sail and a flag on it, and the page
LAYERED = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120">'
    '<rect width="120" height="120" fill="#fff"/>'
    '<path id="disc" fill="#2f5d7b" fill-rule="evenodd" d="M10 60A50 50 0 1 0 110 60A50 50 0 1 0 '
    "10 60ZM40 80A1 1 0 0 0 42 80A1 1 0 0 0 40 80ZM70 80A2.5 2.5 0 0 0 75 80A2.5 2.5 0 0 0 70 80Z"
    '"/><path id="sail" fill="#e6d5b0" d="M58 30L58 66L36 66Z"/>'
    '<path id="flag" fill="#c46f4e" d="M62 30L80 36L62 42Z"/></svg>'
)


def drop(page: Page, name: str, content: str) -> None:
    """A file let go over the page, once that is there."""
    expect(page.locator("main article, main .size-tile, .flat").first).to_be_visible()
    page.evaluate(
        """([name, content]) => {
            const data = new DataTransfer()
            data.items.add(new File([content], name))
            for (const kind of ['dragenter', 'dragover', 'drop'])
                document.body.dispatchEvent(
                    new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: data }))
        }""",
        [name, content],
    )


def told(page: Page, name: str) -> Locator:
    row = page.locator(".told div", has=page.get_by_text(name, exact=True))
    return row.locator("dd")


def test_from_a_layered_drawing_to_a_card_and_back(page: Page, tmp_path: Path) -> None:
    """The foot is flat for 40 mm where r - sqrt(r^2 - 20^2) = 4.174 mm are cut off the disc."""
    bench = Bench(page)
    bench.new(size="ISO A5")
    drop(page, "regatta.svg", LAYERED)
    reading = page.get_by_role("dialog", name="Read: regatta.svg")
    expect(reading.locator(".sums")).to_contain_text("100 × 100 mm")
    expect(reading.locator(".sums")).to_contain_text("3 layers")
    expect(reading.get_by_role("checkbox", name="Bring Page along")).not_to_be_checked()

    # sail and flag become one layer
    reading.get_by_role("button", name="Choose Sail").click()
    reading.get_by_role("button", name="Choose Flag").click()
    reading.get_by_role("button", name="Put together").click()
    expect(reading.locator(".sums")).to_contain_text("2 layers")
    reading.get_by_role("button", name="start the piece with it").click()
    expect(reading).to_have_count(0)
    expect(page.locator("[data-step]").first).to_contain_text("Artwork")
    expect(page.get_by_test_id("artwork-layers").locator("path")).to_have_count(2)

    # its profile at its own size, openings not yet filled
    bench.choose("Fit to", "its size as read")
    bench.field("Openings filled").locator("..").click()
    expect(told(page, "Now high")).to_have_text("100 mm")
    bench.add("fill openings")
    bench.choose("Fill", "below an area")
    expect(bench.field("Smaller than")).to_have_value("4")
    expect(told(page, "Filled")).to_have_text("1")
    expect(told(page, "Left open")).to_have_text("1")

    # the foot flat for 40 mm
    bench.add("trim foot")
    bench.choose("Place by", "a flat run")
    expect(bench.field("Flat run")).to_have_value("40")
    expect(told(page, "Height lost")).to_have_text("4.17 mm")
    expect(told(page, "Flat run")).to_have_text("40 mm")
    bench.add("mirror")
    bench.type("Lap", "8")
    bench.settled()

    cut = 50 - math.sqrt(50**2 - 20**2)
    path = bench.export("SVG", tmp_path)
    found = read_file(path.read_bytes())
    (shape,) = found.shapes
    k = found.sizes[0].scale
    box = shape.region.transformed(scaling(k, k)).bounds
    assert (box.width, box.height) == pytest.approx((192, 100 - cut), abs=1e-3)
    openings = [c.area * k * k for c in shape.region.openings]
    assert openings == [pytest.approx(math.pi * 2.5**2, abs=1e-3)] * 2

    # and in the application, by dropping it there
    page.goto("/shelf")
    drop(page, path.name, path.read_text())
    back = page.get_by_role("dialog", name=f"Read: {path.name}")
    expect(back.locator(".sums")).to_contain_text("192 × 95.83 mm")
    expect(back.locator(".sums")).to_contain_text("2 openings")
    expect(back.locator(".sums")).to_contain_text("1 open line")
    expect(back.get_by_role("radio", name="edges to cut along")).to_be_checked()
    back.get_by_role("radio", name="strips as wide as drawn").locator("..").click()
    expect(back.locator(".sums")).to_contain_text("192.2 × 96.03 mm")


def test_openings_are_picked_by_pointing_and_by_keys(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="ISO A5")
    drop(page, "regatta.svg", LAYERED)
    page.get_by_role("button", name="start the piece with it").click()
    bench.field("Openings filled").locator("..").click()
    bench.add("fill openings")
    expect(told(page, "Filled")).to_have_text("2")
    openings = page.locator(".picks").get_by_role("checkbox")
    expect(openings).to_have_count(2)
    # the tiny one is enlarged: its ring can be hit although it is 2 mm wide
    box = openings.last.locator(".ring").bounding_box()
    assert box is not None
    assert box["width"] >= 24
    openings.last.click()
    expect(told(page, "Left open")).to_have_text("1")
    expect(openings.last).to_have_attribute("aria-checked", "false")
    openings.first.press("Enter")
    expect(told(page, "Left open")).to_have_text("2")
    # the list does the same, and a new size keeps the picks
    page.get_by_label("Openings", exact=True).get_by_role("button").first.click()
    expect(told(page, "Left open")).to_have_text("1")
    bench.pick("Artwork")
    bench.choose("Fit to", "a width")
    bench.type("Width", "61")
    bench.pick("Fill openings")
    expect(told(page, "Left open")).to_have_text("1")


def test_the_shelf_is_searched_tagged_renamed_replaced_and_binned(page: Page) -> None:
    page.goto("/shelf")
    tiles = page.get_by_role("article")
    expect(tiles).not_to_have_count(0)
    drop(page, "gala.svg", LAYERED.replace("L80 36", "L84 36"))
    reading = page.get_by_role("dialog", name="Read: gala.svg")
    reading.get_by_label("Tags").fill("summer, sea")
    reading.get_by_role("button", name="Keep on the shelf").click()
    mine = page.get_by_role("article", name="Gala", exact=True)
    expect(mine).to_contain_text("100 × 100 mm as read")
    expect(mine).to_contain_text("in no design")
    page.get_by_role("button", name="summer").first.click()
    expect(tiles).to_have_count(1)
    page.get_by_role("button", name="summer").first.click()

    def more(action: str, name: str = "Gala") -> None:
        page.get_by_role("button", name=f"More for {name}", exact=True).click()
        page.get_by_role("menuitem", name=re.compile(action)).click()

    more("Rename")
    page.get_by_role("textbox", name="New name").or_(page.locator(".el-message-box input")).fill(
        "Harbour gala"
    )
    page.get_by_role("button", name="Save").click()
    page.get_by_label("Search the shelf").fill("gala harbour")
    expect(tiles).to_have_count(1)

    # a card of it
    more("Start a card", "Harbour gala")
    expect(page.get_by_label("Name of the card")).to_have_value("Harbour gala")
    Bench(page).begin("One half")
    page.get_by_role("button", name="Build it").click()
    bench = Bench(page)
    bench.opened()
    bench.settled()
    number = bench.number

    # replaced by a larger drawing: the design keeps the old one until it is told otherwise
    page.goto("/shelf")
    expect(page.get_by_role("article", name="Harbour gala")).to_contain_text("in one design")
    with page.expect_file_chooser() as chooser:
        more("Replace", "Harbour gala")
    chooser.value.set_files(
        {
            "name": "new.svg",
            "mimeType": "image/svg+xml",
            "buffer": LAYERED.replace("A50 50", "A55 55").replace("M10 60", "M5 60")
            .replace("110 60", "115 60").replace("10 60Z", "5 60Z").encode(),
        }
    )  # fmt: skip
    page.get_by_role("button", name="Replace “Harbour gala”").click()
    expect(page.get_by_role("article", name="Harbour gala")).to_contain_text("110 × 110 mm")
    bench.open(number)
    bench.choose("Fit to", "its size as read")
    expect(told(page, "Now wide")).to_have_text("100 mm")
    page.get_by_role("button", name="Use them here").click()
    expect(told(page, "Now wide")).to_have_text("110 mm")
    bench.settled()

    page.goto("/shelf")
    more("Where it is used", "Harbour gala")
    expect(page.get_by_role("link", name="Harbour gala")).to_be_visible()
    page.keyboard.press("Escape")
    more("Put in the bin", "Harbour gala")
    expect(page.get_by_role("article", name="Harbour gala")).to_have_count(0)
    page.get_by_role("button", name="Open the bin").click()
    more("Put back", "Harbour gala")
    page.get_by_role("button", name="Back to the shelf").click()
    expect(page.get_by_role("article", name="Harbour gala")).to_be_visible()


def test_a_size_that_the_file_does_not_say_is_asked_for(page: Page) -> None:
    page.goto("/shelf")
    drop(page, "plain.svg", LAYERED.replace('width="120mm" height="120mm" ', ""))
    reading = page.get_by_role("dialog", name="Read: plain.svg")
    asked = reading.get_by_role("radiogroup", name="How large is it?")
    expect(asked.get_by_role("radio")).to_have_count(3)
    expect(reading.locator(".sums")).to_contain_text("26.46 × 26.46 mm")
    asked.get_by_role("radio", name=re.compile("a unit is 1 mm")).click()
    expect(reading.locator(".sums")).to_contain_text("100 × 100 mm")
    reading.get_by_label("Width of the drawing").fill("2in")
    reading.get_by_label("Width of the drawing").press("Enter")
    expect(reading.locator(".sums")).to_contain_text("50.8 × 50.8 mm")


def test_a_word_of_ones_own_in_a_shipped_font_and_a_font_file(page: Page) -> None:
    fonts = Path(__file__).parents[2] / "stileblade" / "outlines" / "fonts"
    bench = Bench(page)
    page.goto("/new")
    bench.choose_figure()
    words = page.get_by_role("region", name="Words")
    words.get_by_label("Word or letter").fill("Möwe")
    words.get_by_role("button", name=re.compile("“Möwe” in slab")).click()
    expect(page.get_by_label("The card to begin with")).to_contain_text("separate parts")
    bench.begin("One half", own_size=True)
    page.get_by_role("button", name="Build it").click()
    bench.opened()
    expect(bench.field("Text")).to_have_value("Möwe")
    bench.type("Text", "Shell 海")
    expect(page.get_by_role("alert")).to_contain_text("The font has no 海")
    bench.type("Text", "Shell")
    bench.settled()

    page.goto("/shelf")
    page.get_by_label("Drawing or font file").set_input_files(fonts / "pacifico.woff2")
    reading = page.get_by_role("dialog", name=re.compile("Read: pacifico"))
    reading.get_by_label("Word or letter").fill("Buoy")
    reading.get_by_label("Word or letter").press("Enter")
    expect(reading.get_by_label("Name", exact=True)).to_have_value("Buoy")
    reading.get_by_label("Height of capitals").fill("30")
    reading.get_by_label("Height of capitals").press("Enter")
    reading.get_by_role("button", name="Keep on the shelf").click()
    expect(page.get_by_role("article", name="Buoy")).to_contain_text("one layer")
    kept = page.request.get("/api/artworks").json()
    assert json.dumps(kept).count('"Buoy"') >= 2


def test_a_file_dropped_on_the_designs_begins_a_card(page: Page) -> None:
    """And one dropped on "New card" is what that starts with."""
    page.goto("/")
    drop(page, "quay.svg", LAYERED)
    reading = page.get_by_role("dialog", name="Read: quay.svg")
    reading.get_by_role("button", name="Keep, and start a card with it").click()
    page.wait_for_url(re.compile(r"/new\?artwork=\d+$"))
    expect(page.get_by_role("textbox", name="Name of the card")).to_have_value("Quay")
    expect(page.get_by_role("radio", name="Shaped", exact=True)).to_be_checked()
    which = page.get_by_role("button", name=re.compile("choose another"))
    expect(which).to_contain_text("Quay")
    # another one dropped here takes its place
    drop(page, "pier.svg", LAYERED)
    reading = page.get_by_role("dialog", name="Read: pier.svg")
    reading.get_by_role("button", name="Keep, and start with it").click()
    expect(which).to_contain_text("Pier")
    bench = Bench(page)
    bench.begin("One half")
    page.get_by_role("button", name="Build it").click()
    bench.opened()
    expect(page.locator("[data-step]").first).to_contain_text("Artwork")
    expect(page.get_by_test_id("artwork-layers").locator("path")).to_have_count(3)


def test_many_colours_on_a_few_papers_become_pieces_and_follow_the_size(page: Page) -> None:
    """A drawing of 25 colours is read on 8 papers, begun with, made into pieces by one press, and taken along to another
    size."""
    spots = "".join(
        f'<circle cx="{14 + 18 * (i % 6)}" cy="{14 + 17 * (i // 6)}" r="5" fill="#{40 + 8 * i:02x}70{200 - 7 * i:02x}"/>'
        for i in range(24)
    )
    drawing = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80">'
        f'<rect x="2" y="2" width="116" height="76" rx="3" fill="#d8c8a0"/>{spots}</svg>'
    )
    page.goto("/")
    drop(page, "shells.svg", drawing)
    reading = page.get_by_role("dialog", name="Read: shells.svg")
    expect(reading).to_contain_text("The drawing has 25 colours")
    papers = reading.get_by_role("radiogroup", name="Number of papers")
    rows = reading.locator(".layers li")
    expect(papers.get_by_role("radio", name="8 papers")).to_be_checked()
    expect(rows).to_have_count(8)
    papers.get_by_text("as drawn").click()
    expect(rows).to_have_count(25)
    papers.get_by_text("4 papers").click()
    expect(rows).to_have_count(4)
    reading.get_by_role("button", name="Keep, and start a card with it").click()
    page.wait_for_url(re.compile(r"/new\?artwork=\d+$"))
    page.get_by_role("button", name="Build it").click()
    bench = Bench(page)
    bench.opened()
    bar = page.get_by_role("status").filter(has_text="shown on the paper and")
    expect(bar).to_contain_text("in no file")
    bar.get_by_role("button", name="make pieces of them, and an insert").click()
    expect(bar).to_have_count(0)
    bench.settled()
    document = page.request.get(f"/api/designs/{bench.number}").json()["document"]
    assert len(document["pieces"]) == 6
    page.get_by_role("button", name="Undo").click()
    expect(bar).to_have_count(1)
    bar.get_by_role("button", name="leave it so").click()
    expect(bar).to_have_count(0)
    bench.settled()
    document = page.request.get(f"/api/designs/{bench.number}").json()["document"]
    assert [a["code"] for a in document["accepted"]] == ["artwork.drawn"]

    bench.pick("Artwork")
    bench.choose("Fit to", "a width")
    wide = float(bench.value("Width"))
    assert wide == pytest.approx(107.95, abs=0.1), "it begins with the present measure"
    page.locator(".tile .pick").first.click()
    page.locator(".size-pane .el-select").first.click()
    page.get_by_role("option", name="A7", exact=True).click()
    along = page.get_by_role("button", name=re.compile("Take them along: 1.176"))
    along.click()
    expect(along).to_have_count(0)
    bench.pick("Artwork")
    assert float(bench.value("Width")) == pytest.approx(wide * 127 / 107.95, abs=0.1)
