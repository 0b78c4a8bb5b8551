"""What a person does on the bench, in words."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Locator, Page, expect


def select(field: Locator) -> None:
    """Opens a list; its input lies under what is shown of it."""
    field.locator(
        "xpath=ancestor::*[contains(concat(' ', @class, ' '), ' el-select__wrapper ')][1]"
    ).click()


class Bench:
    def __init__(self, page: Page) -> None:
        self.page = page

    @property
    def number(self) -> str:
        return self.page.url.rpartition("/")[2]

    def settled(self) -> None:
        """All that was asked for is computed and saved."""
        expect(self.page.get_by_test_id("save-state")).to_contain_text("saved")
        self.page.wait_for_load_state("networkidle")

    def new(self, *, size: str = "A2", way: str = "Side fold", figure: str | None = None) -> None:
        page = self.page
        page.goto("/new")
        page.get_by_role("radio", name=re.compile(rf"^{re.escape(size)}\s")).first.click()
        page.get_by_role("radio", name=way, exact=True).click()
        if figure:
            self.choose_figure()
            page.get_by_role("dialog").get_by_role("button", name=re.compile(rf"^{figure}")).click()
            self.begin("One half", own_size=True)
        page.get_by_role("button", name="Build it").click()
        self.opened()

    def choose_figure(self) -> None:
        """The picker, on the page of a new card."""
        self.page.get_by_role("button", name=re.compile("choose another")).click()

    def begin(self, way: str, *, own_size: bool = False) -> None:
        """What a new card begins with, and the size that its figure gets."""
        if own_size:
            select(self.page.get_by_label("Size of the figure"))
            self.page.get_by_role("option", name="its own", exact=True).click()
        self.page.get_by_role("radio", name=way, exact=True).click()
        expect(self.page.get_by_role("button", name="Build it")).to_be_enabled()

    def open(self, number: str) -> None:
        self.page.goto(f"/designs/{number}")
        self.opened()

    def opened(self) -> None:
        self.page.wait_for_url(re.compile(r"/designs/\d+$"))
        expect(self.page.get_by_test_id("flat-path")).to_be_visible()

    def add(self, words: str) -> None:
        """A step by the search, with the keyboard alone."""
        steps = self.page.locator("[data-step]")
        count = steps.count()
        self.page.keyboard.press("Escape")  # out of a field, where / is a fraction
        self.page.keyboard.press("/")
        search = self.page.get_by_label("Search steps")
        expect(search).to_be_focused()
        search.fill(words)
        search.press("Enter")
        expect(steps).to_have_count(count + 1)
        expect(self.page.get_by_role("dialog")).to_have_count(0)

    def pick(self, title: str, nth: int = 0) -> None:
        self.page.locator("[data-step]", has_text=title).nth(nth).click()

    def field(self, label: str) -> Locator:
        pane = self.page.get_by_label("Step in hand")
        return pane.get_by_label(label, exact=True).first

    def type(self, label: str, text: str) -> None:
        self.field(label).fill(text)
        self.field(label).press("Enter")

    def choose(self, label: str, option: str) -> None:
        select(self.field(label))
        self.page.get_by_role("option", name=option, exact=True).click()

    def value(self, label: str) -> str:
        return self.field(label).input_value()

    def checks(self) -> Locator:
        self.page.get_by_role("tab", name=re.compile("Checks")).click()
        return self.page.locator(".checks li")

    def reading(self, name: str) -> Locator:
        self.page.get_by_role("tab", name="Readings").click()
        row = self.page.locator(".readings div", has=self.page.get_by_text(name, exact=True))
        return row.locator("dd .figure")

    def drag(self, handle: str, dx: float, dy: float, *, steps: int = 12) -> None:
        """A handle dragged by the pointer, in pixels."""
        box = self.page.locator(f"[data-handle='{handle}'] >> css=.grip, .cross").first
        frame = box.bounding_box()
        assert frame is not None
        x, y = frame["x"] + frame["width"] / 2, frame["y"] + frame["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(x + dx, y + dy, steps=steps)
        self.page.mouse.up()

    def export(self, kind: str, folder: Path) -> Path:
        """A file of the piece in hand alone."""
        self.page.get_by_role("button", name="Cut files").click()
        dialog = self.page.get_by_role("dialog", name="Cut files")
        dialog.get_by_role("radio", name=re.compile(kind)).click()
        which = dialog.get_by_label("Pieces", exact=True)
        if which.count():
            select(which.first)
            self.page.get_by_role("option", name="this piece", exact=True).click()
        with self.page.expect_download() as download:
            dialog.get_by_role("button", name=re.compile("^Save( all the same)?$")).click()
        dialog.wait_for(state="hidden")
        path = folder / download.value.suggested_filename
        download.value.save_as(path)
        return path
