"""A figure aimed at, what is said before files are saved, and the design itself as a file."""

from __future__ import annotations

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.bench import Bench


def test_a_hinge_is_aimed_at_and_kept(page: Page) -> None:
    """A circle of 100 with a lap of 3: a hinge of 24.31. 40 is aimed at, by the lap, and kept: when the
    circle is smaller the lap follows."""
    bench = Bench(page)
    bench.new(size="A7", figure="Circle")
    bench.type("Diameter", "100")
    bench.add("mirror")
    expect(bench.reading("Hinge")).to_have_text(re.compile("24.31 mm"))
    page.locator(".readings").get_by_role("button", name="24.31 mm").click()
    dialog = page.get_by_role("dialog", name="Aim at a figure")
    dialog.get_by_label("Aim", exact=True).fill("40")
    dialog.get_by_label("Aim", exact=True).press("Enter")
    dialog.get_by_role("button", name="Find the values").click()
    lap = dialog.locator(".proposal").filter(has_text="Mirror: lap")
    expect(lap).to_contain_text("Hinge 40")
    dialog.get_by_text("Keep the aim").click()
    lap.click()
    dialog.wait_for(state="hidden")
    expect(bench.reading("Hinge")).to_have_text(re.compile(r"40(\.\d+)? mm"))
    page.locator("[data-step]").first.click()
    bench.type("Diameter", "80")
    expect(page.get_by_text("A kept aim was reached again")).to_be_visible()
    expect(bench.reading("Hinge")).to_have_text(re.compile(r"40(\.\d+)? mm"))
    page.get_by_role("button", name="Undo").click()
    bench.settled()
    expect(bench.checks().filter(has_text="the aim is at least 40 mm")).to_have_count(1)


def test_what_will_go_wrong_is_said_before_files_are_saved(page: Page, tmp_path: Path) -> None:
    bench = Bench(page)
    bench.new(size="A2", way="Accordion")
    page.get_by_role("button", name="Cut files").click()
    dialog = page.get_by_role("dialog", name="Cut files")
    expect(dialog.get_by_role("alert")).to_contain_text("does not go on a sheet")
    expect(dialog.locator("svg.finding")).to_have_count(1)
    with page.expect_download() as download:
        dialog.get_by_role("button", name="Save the design itself").click()
    kept = tmp_path / download.value.suggested_filename
    download.value.save_as(kept)
    assert json.loads(kept.read_text())["card"]["folding"]["kind"] == "accordion"
    dialog.get_by_role("radio", name=re.compile("SVG")).click()
    with page.expect_download() as download:
        dialog.get_by_role("button", name="Save all the same").click()
    saved = tmp_path / download.value.suggested_filename
    download.value.save_as(saved)
    assert "does not go on a sheet" in saved.read_text()
    # the design is opened again from its file, as one of its own
    dialog.wait_for(state="hidden")
    first = page.url
    page.get_by_role("link", name="Stileblade").first.click()
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Open a design file").click()
    chooser.value.set_files(kept)
    page.wait_for_url(re.compile(r"/designs?/\d+|/bench/\d+"))
    page.wait_for_selector("[data-testid=flat-path]")
    assert page.url != first
    expect(bench.reading("Open")).to_have_text("431.8 × 139.7 mm")
    wrong = tmp_path / "wrong.json"
    wrong.write_text("{ not a design")
    page.get_by_role("link", name="Stileblade").first.click()
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Open a design file").click()
    chooser.value.set_files(wrong)
    expect(page.get_by_text("is no design: it cannot be read as JSON")).to_be_visible()


def test_an_envelope_is_taken_from_the_readings(page: Page) -> None:
    bench = Bench(page)
    bench.new(size="A2", way="Accordion")
    page.locator(".envelopes").get_by_role("button", name=re.compile("^C6")).click()
    expect(bench.checks().filter(has_text="of room in the A2 envelope")).to_have_count(0)
    expect(bench.reading("Room")).to_contain_text("4.85 × 21.1 mm")
    page.get_by_role("button", name="picture", exact=True).click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="SVG").click()
    assert download.value.suggested_filename == "New-card-folded.svg"
