"""What answers requests works nothing out of outlines: a worker that ends over them is one worker less for a moment, and not
the server for everybody. Held by a contract of imports, and here by routes with the kernel taken away from this process."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import shapely
from django.core.files.uploadedfile import SimpleUploadedFile

from server.computing import asking
from server.computing.pool import Pool
from server.jobs.models import Job
from stileblade.geometry.regions.region import Region
from stileblade.machine.shipped import FLATBED
from stileblade.sheets.job import Card, JobOptions, stocks_of
from stileblade.sheets.kept import kept
from stileblade.sheets.laying import lay_job
from tests.conftest import design_of
from tests.server.conftest import Api, designer, other, quick_passwords
from tests.whole import BLANK, whole

__all__ = ["designer", "other", "quick_passwords"]
pytestmark = pytest.mark.django_db(transaction=True)
SAIL = {"name": "Sail", "layers": [{"paths": ["M0 0H20V10Z"]}]}


@pytest.fixture
def pool(monkeypatch: pytest.MonkeyPatch) -> Iterator[Pool]:
    made = Pool(quick=1, slow=1, more=("tests.attack.odd_jobs",))
    made.start()
    monkeypatch.setattr(asking, "_pool", made)
    monkeypatch.setattr(asking, "_CATALOGUES", {})
    yield made
    made.end()


def zigzag(points: int) -> str:
    """Teeth of growing height along a line, closed: the worst case of leaving corners out."""
    teeth = "".join(f"L{i * 0.01:.2f} {i % 2 * (10 + 10 * i / points):.2f}" for i in range(points))
    return f"M0 -50{teeth}L{points * 0.01:.2f} -50Z"


def laid_job(user: Any) -> Job:
    """A job of two cards, laid out."""
    options = JobOptions()
    card = Card("0", "Card", whole([BLANK], papers=[{"sheet_width": 320, "sheet_height": 450}]), 2)
    stocks = stocks_of([card], options)
    layout = kept(lay_job("job", stocks, options, FLATBED), stocks).model_dump(mode="json")
    return Job.objects.create(owner=user, name="Shop", layout=layout)


def test_no_route_needs_the_kernel_here(
    designer: Api, pool: Pool, monkeypatch: pytest.MonkeyPatch
) -> None:
    from django.contrib.auth.models import User

    job = laid_job(User.objects.get(username="designer"))
    window = {"kind": "window", "outline": {"kind": "circle", "diameter": 30}}
    body = {"document": design_of(BLANK, window).model_dump(mode="json"), "piece": "base"}

    def gone(*_: Any, **__: Any) -> Any:
        raise AssertionError("an outline is worked out in the web process")

    for name in dir(shapely):
        if name.islower() and callable(getattr(shapely, name)):
            monkeypatch.setattr(shapely, name, gone)
    monkeypatch.setattr(Region, "__init__", gone)

    sheet = job.layout["sheets"][0]
    move = {"sheet": 0, "index": 0, "to": 0, "piece": {**sheet["pieces"][0], "locked": True}}
    asked: list[tuple[str, str, Any]] = [
        ("GET", "/catalogue", None),
        ("GET", "/words?text=Ahoy", None),
        ("GET", "/steps?said=round+window+20", None),
        ("POST", "/artworks", {"drawing": SAIL}),
        ("PATCH", "/artworks/{made}", {"drawing": {**SAIL, "layers": [{"paths": ["M0 0H9V9Z"]}]}}),
        ("GET", "/artworks", None),
        ("POST", "/designs", {"document": body["document"]}),
        ("GET", "/designs", None),
        ("GET", "/designs/{made}/summary", None),
        ("POST", "/evaluate", body),
        ("POST", "/cuts", body),
        ("POST", "/placed", body),
        ("POST", "/figures", body),
        ("POST", "/aim", {**body, "figure": "closed.width", "target": 120}),
        ("POST", "/aims", {"document": body["document"]}),
        ("POST", "/offers", {"document": body["document"]}),
        ("POST", "/refold", {"document": body["document"], "cards": [{}], "along": True}),
        ("POST", "/beginnings", {"document": body["document"], "figure": {"kind": "heart"}}),
        ("POST", "/export", {**body, "format": "svg"}),
        ("GET", f"/jobs/{job.pk}", None),
        ("POST", f"/jobs/{job.pk}/near", move),
        ("POST", f"/jobs/{job.pk}/place", move),
    ]
    made = ""
    for method, path, wish in asked:
        status, said = designer(method, path.format(made=made), wish)
        assert status == 200, (path, said)
        made = said["id"] if method == "POST" and "id" in said else made
    assert Job.objects.get(pk=job.pk).layout["sheets"][0]["pieces"][0]["locked"]
    read = designer.client.post(
        "/api/read-file",
        {"file": SimpleUploadedFile("a.svg", Path("demo/outlines/hut.svg").read_bytes())},
        headers={"x-csrftoken": designer.token},
    )
    assert read.status_code == 200


def test_a_zigzag_of_65_000_points_is_kept_and_others_are_answered(
    designer: Api, other: Api, pool: Pool
) -> None:
    """It ended the server for everybody: the kernel calls itself once for each point."""
    drawing = {"name": "Zigzag", "layers": [{"paths": [zigzag(65_000)]}]}
    status, row = designer("POST", "/artworks", {"drawing": drawing})
    assert status == 200, row
    assert row["picture"]["layers"][0]["nodes"] > 60_000
    assert len(json.dumps(row["picture"])) < 2_000_000
    status, again = designer("PATCH", f"/artworks/{row['id']}", {"drawing": SAIL})
    assert (status, again["name"]) == (200, "Zigzag")
    assert other("GET", "/words?text=still+there")[0] == 200


def test_a_worker_that_ends_over_a_drawing_ends_alone(
    designer: Api, pool: Pool, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The job is told apart by its name alone: one that ends its process stands in its place."""
    died = asking.computed("die", person="designer")
    assert not hasattr(died, "content")
    monkeypatch.setattr(
        "server.shelf.artworks.worked_out",
        lambda job, *arguments, person: asking.worked_out("die", person=person),
    )
    status, said = designer("POST", "/artworks", {"drawing": SAIL})
    assert status == 422
    assert said["title"]
    assert designer("GET", "/artworks")[1] == []
    assert designer("GET", "/words?text=still+there")[0] == 200
