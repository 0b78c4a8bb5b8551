"""The shelf's artworks: kept, changed, replaced, counted, binned; files read."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from server.shelf.models import Artwork
from stileblade.outlines.text.shipped import FOLDER
from tests.server.conftest import Api

SAIL = {
    "name": "Sail",
    "scale": 2.0,
    "layers": [{"paths": ["M0 0H20V10Z"], "colour": "#a5573c"}],
}
JIB = {"name": "Jib", "layers": [{"paths": ["M0 0H30V30Z"]}, {"paths": ["M0 0H5V5Z"]}]}


def keep(api: Api, drawing: dict[str, Any], **more: Any) -> dict[str, Any]:
    status, row = api("POST", "/artworks", {"drawing": drawing, **more})
    assert status == 200
    return row


def upload(api: Api, name: str, content: bytes, **more: str) -> tuple[int, Any]:
    response = api.client.post(
        "/api/read-file",
        {"file": SimpleUploadedFile(name, content), **more},
        headers={"x-csrftoken": api.token},
    )
    return response.status_code, json.loads(response.content)


def test_an_artwork_is_kept_with_its_layers_and_size_as_read(designer: Api, other: Api) -> None:
    row = keep(designer, SAIL, tags=[" Sea ", "sea", "Boats  and more"], source="sail.svg")
    assert (row["width"], row["height"]) == (40, 20)
    assert row["tags"] == ["sea", "boats and more"]
    assert row["picture"]["layers"][0]["colour"] == "#a5573c"
    assert row["picture"]["layers"][0]["contours"] == 1
    assert row["artwork"]["layers"][0]["path"] == "M0 0H20V10Z"
    # the same outlines again are the same artwork, named anew
    again = keep(designer, {**SAIL, "name": "Mainsail"})
    assert (again["id"], again["name"]) == (row["id"], "Mainsail")
    assert other("GET", "/artworks")[1] == []
    assert other("GET", f"/artworks/{row['id']}")[0] == 404
    assert other("PATCH", f"/artworks/{row['id']}", {"name": "Mine"})[0] == 404


@pytest.mark.parametrize(
    "drawing",
    [
        {**SAIL, "layers": []},
        {**SAIL, "layers": [{"paths": []}]},
        {**SAIL, "layers": [{"paths": ["M0 0L"]}]},
        {**SAIL, "layers": [{"paths": ["M0 0L5 5Z"]}]},
        {**SAIL, "layers": [{"paths": ["M0 0H5V5Z"], "colour": "red"}]},
        {**SAIL, "scale": 0},
        {**SAIL, "scale": 1e300},
    ],
)
def test_what_is_no_artwork_is_refused(designer: Api, drawing: dict[str, Any]) -> None:
    assert designer("POST", "/artworks", {"drawing": drawing})[0] == 422
    assert Artwork.objects.count() == 0


def test_uses_are_counted_and_told_and_a_replacement_keeps_them(designer: Api, blank: Any) -> None:
    row = keep(designer, SAIL)
    keep(designer, JIB)
    steps = [{"kind": "artwork", "ref": row["key"]}]
    document = {**blank, "name": "Regatta", "artworks": {row["key"]: row["artwork"]}}
    document["pieces"] = [{**blank["pieces"][0], "steps": steps}]
    number = designer("POST", "/designs", {"document": document})[1]["id"]
    uses = {a["name"]: a["uses"] for a in designer("GET", "/artworks")[1]}
    assert uses == {"Sail": 1, "Jib": 0}
    path = f"/artworks/{row['id']}"
    assert designer("GET", f"{path}/uses")[1] == [{"id": number, "name": "Regatta"}]

    larger = {**SAIL, "name": "ignored", "scale": 3.0}
    status, done = designer("PATCH", path, {"drawing": larger, "source": "new.svg"})
    assert status == 200
    assert (done["name"], done["width"], done["source"]) == ("Sail", 60, "new.svg")
    assert done["earlier"] == [row["key"]]
    assert done["uses"] == 1
    # what another has already cannot come in place
    status, problem = designer("PATCH", path, {"drawing": JIB})
    assert (status, problem["title"]) == (422, "These outlines are on the shelf already.")
    designer("PATCH", f"/designs/{number}", {"binned": True})
    assert designer("GET", f"{path}/uses")[1] == []


def test_names_tags_and_the_bin(designer: Api) -> None:
    row = keep(designer, SAIL)
    path = f"/artworks/{row['id']}"
    assert designer("PATCH", path, {"name": "Topsail"})[1]["artwork"]["name"] == "Topsail"
    assert designer("PATCH", path, {"tags": ["a", "b"]})[1]["tags"] == ["a", "b"]
    assert designer("DELETE", path)[0] == 404  # only from the bin
    assert designer("PATCH", path, {"binned": True})[1]["binned"] is True
    assert designer("PATCH", path, {"binned": False})[1]["binned"] is False
    designer("PATCH", path, {"binned": True})
    assert designer("DELETE", path)[0] == 200
    assert Artwork.objects.count() == 0


def test_an_uploaded_file_is_read_and_nothing_is_kept(designer: Api) -> None:
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">'
    status, found = upload(
        designer, "sail.svg", svg + b'<circle id="sun" cx="20" cy="20" r="10"/></svg>'
    )
    assert (status, found["kind"], found["shapes"][0]["name"]) == (200, "svg", "Sun")
    scale = found["sizes"][0]["scale"]
    assert found["shapes"][0]["area"] * scale**2 == pytest.approx(314.1593, abs=1e-3)
    layer = {"name": "Sun", "colour": "#000000", "shapes": [0], "page": False, "shade": False}
    assert found["layers"] == [layer]
    assert Artwork.objects.count() == 0
    status, problem = upload(designer, "x.svg", b"no svg")
    assert (status, problem["title"]) == (422, "This is not an SVG file: it holds no markup.")
    font = (FOLDER / "alfa-slab-one.woff2").read_bytes()
    status, found = upload(designer, "slab.woff2", font, text="Oho")
    assert (status, found["kind"], found["shapes"][0]["openings"]) == (200, "font", 2)


def test_a_word_in_every_shipped_font(designer: Api) -> None:
    status, found = designer("GET", "/words?text=B%C3%B6%E6%B5%B7")
    assert status == 200
    assert len(found) >= 4
    assert {f["missing"] for f in found} == {"海"}
    # one of them makes no islands, the others do
    assert [f["font"] for f in found if not f["islands"]] == ["stardos-stencil"]
    assert all(f["box"][3] - f["box"][1] > 15 for f in found)
