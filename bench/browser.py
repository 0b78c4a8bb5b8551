"""From an edit to its picture, in the browser, against the running application."""

from __future__ import annotations

import json
import statistics
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, sync_playwright

from bench.evaluation import document
from bench.shapes import figure_300, outline_20000
from demo.chromium import launch
from demo.running import Running

EDITS = 30
_CREATE = """async (document) => {
    const token = document_cookie()
    function document_cookie() { return window.document.cookie.match(/csrftoken=([^;]*)/)[1] }
    const answer = await fetch('/api/designs', {
        method: 'POST', headers: {'Content-Type': 'application/json', 'X-CSRFToken': token},
        body: JSON.stringify({document}),
    })
    return (await answer.json()).id
}"""
# typed, taken by Enter, and timed until the frame after the new outline is in the page
_EDIT = """async (text) => {
    const input = [...document.querySelectorAll('[aria-label="Step in hand"] input')]
        .find((i) => i.getAttribute('aria-label') === 'Lap')
    const path = document.querySelector('[data-testid=flat-path]')
    input.focus()
    input.value = text
    input.dispatchEvent(new Event('input', {bubbles: true}))
    const started = performance.now()
    const changed = new Promise((done) => {
        const seen = new MutationObserver(() => { seen.disconnect(); done() })
        seen.observe(path, {attributes: true, attributeFilter: ['d']})
    })
    input.dispatchEvent(new KeyboardEvent('keydown', {key: 'Enter', bubbles: true}))
    await changed
    await new Promise((done) => requestAnimationFrame(() => setTimeout(done)))
    return performance.now() - started
}"""
_EDIT_FIRST = _EDIT.replace("'Lap'", "'Margin'")


def measure(
    page: Page, data: dict[str, Any], title: str, script: str, values: list[str]
) -> list[float]:
    number = page.evaluate(_CREATE, data)
    page.goto(f"{page.url.split('/designs')[0].rstrip('/')}/designs/{number}")
    page.wait_for_selector("[data-testid=flat-path]")
    page.locator("[data-step]", has_text=title).click()
    page.wait_for_timeout(1500)
    times = []
    for value in values:
        times.append(page.evaluate(script, value))
        page.wait_for_timeout(400)
    return times


def report() -> None:
    print(f"{'edit to picture in the browser, ms':44}{'median':>8}{'p95':>8}{'aim':>8}")
    figure, outline = figure_300(), outline_20000()
    laps = [f"{12 + 0.1 * k:.1f}" for k in range(1, EDITS + 1)]
    margins = [f"{2.5 + 0.02 * k:.2f}" for k in range(1, EDITS + 1)]
    cases = (
        ("figure of 300 cubics: lap", document(figure), "Mirror", _EDIT, laps, 100),
        ("20,000-vertex outline: lap", document(outline), "Mirror", _EDIT, laps, 300),
        ("20,000-vertex outline: surround", document(outline, grow=2.5), "Surround", _EDIT_FIRST,
         margins, 700),
    )  # fmt: skip
    with (
        tempfile.TemporaryDirectory() as folder,
        Running(Path(folder)) as running,
        sync_playwright() as p,
    ):
        browser = launch(p)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for name, data, title, script, values, aim in cases:
            page.goto(running.address)
            page.wait_for_load_state("networkidle")
            times = measure(page, json.loads(json.dumps(data)), title, script, values)
            p95 = statistics.quantiles(times, n=20)[-1]
            print(f"{name:44}{statistics.median(times):8.0f}{p95:8.0f}{aim:8}")
        browser.close()
