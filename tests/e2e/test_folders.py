"""The designs page with folders, and several designs at once."""

from __future__ import annotations

import json
import re
import zipfile
from pathlib import Path

from playwright.sync_api import Page, expect


def test_several_designs_into_a_folder_onto_sheets_and_into_files(
    page: Page, tmp_path: Path
) -> None:
    page.goto("/")
    names = ["Harbour wall", "Row of beach huts"]
    for name in names:
        page.get_by_label(f"Choose {name}", exact=True).check()
    bar = page.get_by_role("toolbar", name="2 designs chosen")
    with page.expect_download() as waiting:
        bar.get_by_role("button", name="Save as files").click()
    waiting.value.save_as(tmp_path / "designs.zip")
    with zipfile.ZipFile(tmp_path / "designs.zip") as archive:
        found = [json.loads(archive.read(n))["name"] for n in archive.namelist()]
    assert sorted(found) == names
    bar.get_by_role("button", name="Into a folder …").click()
    dialog = page.get_by_role("dialog", name="2 designs into a folder")
    dialog.get_by_label("Folder", exact=True).fill("Walls")
    page.keyboard.press("Enter")
    expect(bar).to_have_count(0)
    folders = page.get_by_role("navigation", name="Folders")
    folders.get_by_role("button", name=re.compile("^Walls")).click()
    expect(page.locator("main article")).to_have_count(2)
    # it is looked into again after reloading; from there both onto sheets
    page.reload()
    expect(page.locator("main article")).to_have_count(2)
    page.get_by_label("Choose Harbour wall", exact=True).check()
    page.get_by_role("button", name="Choose all 2").click()
    page.get_by_role("button", name="Lay out on sheets").click()
    page.wait_for_url(re.compile(r"/jobs/\d+$"))
    for name in names:
        expect(page.get_by_role("button", name=f"Take {name} out")).to_be_visible()
    # out of the folder again: it is gone with its last design
    page.goto("/")
    for name in names:
        page.get_by_role("button", name=f"Actions for {name}", exact=True).click()
        page.get_by_role("menuitem", name="Into a folder …").click()
        page.get_by_label("Folder", exact=True).fill("")
        page.get_by_role("button", name="Take out of its folder").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        page.wait_for_timeout(400)
    expect(folders).to_have_count(0)
    assert page.locator("main article").count() > 2
