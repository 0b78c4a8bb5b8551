"""Folders, and what is done with several designs at once."""

from __future__ import annotations

import io
import json
import zipfile
from typing import Any

import pytest

from tests.conftest import design_of
from tests.server.conftest import Api


def made(api: Api, *names: str) -> list[int]:
    found = []
    for name in names:
        document = design_of({"kind": "blank"}).model_dump(mode="json") | {"name": name}
        found.append(api("POST", "/designs", {"document": document})[1]["id"])
    return found


def entries(api: Api, *, binned: bool = False) -> dict[int, dict[str, Any]]:
    return {e["id"]: e for e in api("GET", f"/designs?binned={str(binned).lower()}")[1]}


def several(api: Api, what: str, **wish: object) -> tuple[int, Any]:
    return api("POST", f"/designs/several/{what}", wish)


def test_designs_are_put_into_folders_and_out_again(designer: Api) -> None:
    one, two, three = made(designer, "One", "Two", "Three")
    answer = several(designer, "mark", designs=[one, two], marks={"folder": "Autumn"})
    assert answer == (200, {"count": 2})
    known = entries(designer)
    assert [known[n]["folder"] for n in (one, two, three)] == ["Autumn", "Autumn", ""]
    # a copy stays where its design is; a renamed design stays there, too
    designer("POST", f"/designs/{one}/copy")
    (copy,) = set(entries(designer)) - {one, two, three}
    assert entries(designer)[copy]["folder"] == "Autumn"
    designer("PATCH", f"/designs/{one}", {"name": "First"})
    assert entries(designer)[one]["folder"] == "Autumn"
    designer("PATCH", f"/designs/{two}", {"folder": ""})
    assert entries(designer)[two]["folder"] == ""


def test_several_are_copied_binned_and_restored(designer: Api) -> None:
    one, two = made(designer, "One", "Two")
    assert several(designer, "copy", designs=[one, two]) == (200, {"count": 2})
    names = sorted(e["name"] for e in entries(designer).values())
    assert names == ["One", "One copy", "Two", "Two copy"]
    several(designer, "copy", designs=[one], as_template=True)
    assert [e["name"] for e in entries(designer).values() if e["template"]] == ["One"]
    several(designer, "mark", designs=[one, two], marks={"binned": True})
    assert set(entries(designer, binned=True)) == {one, two}
    several(designer, "mark", designs=[one, two], marks={"binned": False})
    assert {one, two} <= set(entries(designer))


def test_several_are_saved_as_files(designer: Api) -> None:
    """Each by its name, two of one name apart; one alone is no ZIP."""
    numbers = made(designer, "Boat", "Boat", "Wal & Boot")
    status, answer = several(designer, "files", designs=numbers)
    assert (status, answer.headers["Content-Type"]) == (200, "application/zip")
    with zipfile.ZipFile(io.BytesIO(b"".join(answer.streaming_content))) as archive:
        names = archive.namelist()
        assert len(set(names)) == 3
        found = [json.loads(archive.read(n))["name"] for n in names]
    assert found == ["Boat", "Boat", "Wal & Boot"]
    status, alone = several(designer, "files", designs=numbers[:1])
    assert alone["name"] == "Boat"


@pytest.mark.parametrize("what", ["mark", "copy", "files"])
def test_all_or_none_and_only_ones_own(designer: Api, other: Api, what: str) -> None:
    one, two = made(designer, "One", "Two")
    (theirs,) = made(other, "Theirs")
    more = {"marks": {"binned": True, "folder": "Mine"}} if what == "mark" else {}
    assert several(designer, what, designs=[one, theirs], **more)[0] == 404
    assert several(designer, what, designs=[one, 2**31 - 1], **more)[0] == 404
    assert several(designer, what, designs=[], **more)[0] == 422
    assert set(entries(designer)) == {one, two}
    assert entries(designer)[one]["folder"] == ""
    assert set(entries(other)) == {theirs}


@pytest.mark.parametrize("folder", ["x" * 61, ["a"], 7])
def test_a_folder_is_called_as_designs_are(designer: Api, folder: object) -> None:
    (one,) = made(designer, "One")
    assert several(designer, "mark", designs=[one], marks={"folder": folder})[0] == 422
