"""Jobs over the API: laid out in processes of their own, moved by hand, written, cut."""

from __future__ import annotations

import io
import time
import zipfile
from collections.abc import Iterator
from importlib import import_module
from typing import Any

import pytest
from django.apps import apps
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from server.jobs import running
from server.jobs.models import Job, Run
from server.jobs.running import RUNNER
from stileblade.machine.shipped import PLOTTER
from tests.conftest import design_of

pytestmark = pytest.mark.django_db(transaction=True)
BLANK = {"kind": "blank"}
A6 = {"name": "ISO A6", "width": 105, "height": 148,
      "envelope": {"name": "C6", "width": 114, "height": 162}}  # fmt: skip
WINDOW = {"kind": "window", "outline": {"kind": "circle", "diameter": 60}}


@pytest.fixture
def client() -> Iterator[Client]:
    client = Client()
    client.force_login(User.objects.create_user("designer"))
    yield client
    RUNNER.end()


def sent(client: Client, method: str, path: str, data: Any = None) -> Any:
    """Status and answer. The tests' database lies in memory, where a table that a thread writes to is locked
    without waiting: such requests are sent again."""
    for _ in range(50):
        response = getattr(client, method)(path, data, content_type="application/json")
        if response.status_code != 503:
            break
        time.sleep(0.1)
    return response.status_code, response.json()


def design(client: Client, *steps: dict[str, Any], name: str = "Card") -> int:
    document = design_of(*steps).model_dump(mode="json") | {"name": name}
    document["card"]["size"] = A6
    status, said = sent(client, "post", "/api/designs", {"document": document})
    assert status == 200, said
    return int(said["id"])


def done(client: Client, run: dict[str, Any], *, within: float = 60) -> dict[str, Any]:
    end = time.monotonic() + within
    while run["state"] in ("waiting", "running") and time.monotonic() < end:
        time.sleep(0.1)
        run = sent(client, "get", f"/api/runs/{run['id']}")[1]
    return run


def job_of(client: Client, *designs: dict[str, int], **change: Any) -> dict[str, Any]:
    """A job, laid out."""
    _, job = sent(client, "post", "/api/jobs", {"name": "Shop", "designs": list(designs)})
    if change:
        status, job = sent(client, "patch", f"/api/jobs/{job['id']}", change)
        assert status == 200, job
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert done(client, run)["state"] == "done"
    return dict(client.get(f"/api/jobs/{job['id']}").json())


def test_a_job_is_laid_out_and_follows_its_designs(client: Client) -> None:
    """Two bases of ISO A6, 210 x 148, on A4 without an edge: at a gap of 2 mm one on each sheet, and it is
    said that 1 mm would save one (148 + 1 + 148 = 297)."""
    number = design(client, BLANK, name="Whale")
    options = {"gap_mm": 2, "edge_mm": 0, "formats": {"paper": [210, 297]}}
    job = job_of(client, {"design": number, "count": 2}, options=options)
    assert [len(s["pieces"]) for s in job["layout"]["sheets"]] == [1, 1]
    assert any("with a gap of 1 mm" in said for said in job["layout"]["advice"])
    assert job["changed"] == []
    document = client.get(f"/api/designs/{number}").json()
    changed = document["document"] | {"name": "Whale, larger"}
    sent(
        client,
        "put",
        f"/api/designs/{number}",
        {"document": changed, "revision": document["revision"]},
    )
    assert client.get(f"/api/jobs/{job['id']}").json()["changed"] == ["Whale, larger"]
    assert client.get("/api/jobs").json()[0]["changed"] == ["Whale, larger"]


def test_pieces_are_moved_only_where_they_may_lie(client: Client) -> None:
    number = design(client, BLANK, WINDOW)
    job = job_of(client, {"design": number, "count": 2}, options={"formats": {"paper": [297, 420]}},
                 machine="flatbed")  # fmt: skip
    (sheet,) = job["layout"]["sheets"]
    first, second = sheet["pieces"]
    near = {**second, "x": first["x"], "y": first["y"] + first["height"] + 1.25}
    move = {"sheet": 0, "index": 1, "to": 0, "piece": near}
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/near", move)
    assert (status, said["allowed"], said["away"]) == (200, False, 1.25)
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/place", move)
    assert status == 422
    assert said["title"] == "It is 1.25 mm from Base: 2 mm are asked for."
    apart = {**near, "y": near["y"] + 0.75, "locked": True}
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/place", move | {"piece": apart})
    assert status == 200, said
    assert said["layout"]["sheets"][0]["pieces"][1]["y"] == pytest.approx(apart["y"])
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert done(client, run)["state"] == "done"
    again = client.get(f"/api/jobs/{job['id']}").json()["layout"]["sheets"]
    locked = [p for s in again for p in s["pieces"] if p["locked"]]
    assert [(p["x"], p["y"]) for p in locked] == [(apart["x"], pytest.approx(apart["y"]))]


def test_a_layout_that_is_begun_anew_has_not_failed(client: Client) -> None:
    number = design(client, BLANK, WINDOW)
    _, job = sent(
        client, "post", "/api/jobs", {"name": "Shop", "designs": [{"design": number, "count": 9}]}
    )
    _, first = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    _, second = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert done(client, second)["state"] == "done"
    assert client.get(f"/api/runs/{first['id']}").json()["state"] == "replaced"


def laid(client: Client, number: int) -> dict[str, Any]:
    """The job, laid out anew."""
    _, run = sent(client, "post", f"/api/jobs/{number}/lay")
    assert done(client, run)["state"] == "done"
    return dict(client.get(f"/api/jobs/{number}").json())


def test_a_layout_is_given_up_for_the_one_before(client: Client) -> None:
    job = job_of(client, {"design": design(client, BLANK), "count": 4})
    path = f"/api/jobs/{job['id']}"
    assert job["sheets_before"] is None
    status, said = sent(client, "post", f"{path}/back")
    assert (status, said["title"]) == (422, "There is no layout before this one.")
    options = {**job["options"], "gap_mm": 3}
    sent(client, "patch", path, {"options": options})
    wide = laid(client, job["id"])
    assert wide["layout"] != job["layout"]
    assert wide["sheets_before"] == len(job["layout"]["sheets"])
    _, back = sent(client, "post", f"{path}/back")
    assert back["layout"] == job["layout"]
    assert back["options"] == job["options"]
    assert back["changed"] == []
    assert back["sheets_before"] == len(wide["layout"]["sheets"])
    _, again = sent(client, "post", f"{path}/back")
    assert (again["layout"], again["options"]) == (wide["layout"], wide["options"])


def test_a_layout_that_is_going_on_is_not_taken_after_going_back(client: Client) -> None:
    job = job_of(client, {"design": design(client, BLANK, WINDOW), "count": 2})
    path = f"/api/jobs/{job['id']}"
    laid(client, job["id"])
    _, run = sent(client, "post", f"{path}/lay")
    _, back = sent(client, "post", f"{path}/back")
    assert done(client, run)["state"] == "replaced"
    assert client.get(path).json()["revision"] == back["revision"]


def test_a_spoiled_piece_is_made_once_more_from_an_offcut(client: Client) -> None:
    number = design(client, BLANK, name="Whale")
    job = job_of(client, {"design": number, "count": 1})
    path = f"/api/jobs/{job['id']}"
    _, offcut = sent(client, "post", f"{path}/offcuts", {"sheet": 0})
    piece = job["layout"]["sheets"][0]["pieces"][0]
    _, again = sent(client, "post", f"{path}/once-more", {"sheet": 0, "index": 0})
    name = job["layout"]["parts"][piece["part"]]["name"]
    assert again["name"] == f"Shop: Whale, {name} once more"
    assert [d["pieces"] for d in again["designs"]] == [[piece["part"].split(".")[1]]]
    assert again["offcuts"] == [offcut["id"]]
    (sheet,) = laid(client, again["id"])["layout"]["sheets"]
    assert len(sheet["pieces"]) == 1
    assert len(sheet["taken"]) == 1
    _, card = sent(client, "post", f"{path}/once-more", {"sheet": 0, "index": 0, "card": True})
    assert card["designs"][0]["pieces"] == []
    status, said = sent(client, "post", f"{path}/once-more", {"sheet": 0, "index": 99})
    assert (status, said["title"]) == (422, "That piece is not in this job.")


def test_spares_are_made_besides(client: Client) -> None:
    number = design(client, BLANK)
    job = job_of(client, {"design": number, "count": 5, "spare_share": 0.1})
    assert sum(len(s["pieces"]) for s in job["layout"]["sheets"]) == 6
    assert job["changed"] == []
    wanted = [{"design": number, "count": 5, "spares": 3}]
    _, changed = sent(client, "patch", f"/api/jobs/{job['id']}", {"designs": wanted})
    assert changed["changed"] == ["Card"]
    laid_out = laid(client, job["id"])["layout"]["sheets"]
    assert sum(len(s["pieces"]) for s in laid_out) == 8


def test_a_design_is_in_a_job_once(client: Client) -> None:
    number = design(client, BLANK)
    twice = [{"design": number, "count": 2}, {"design": number, "count": 3}]
    _, job = sent(client, "post", "/api/jobs", {"name": "Shop", "designs": twice})
    assert [d["count"] for d in job["designs"]] == [5]
    twice[1]["spares"] = 1
    status, said = sent(client, "post", "/api/jobs", {"name": "Shop", "designs": twice})
    assert (status, said["title"]) == (422, "A design is in this job twice.")


def test_files_passes_and_the_cutter(client: Client) -> None:
    number = design(client, BLANK, WINDOW, name="Lighthouse")
    job = job_of(client, {"design": number, "count": 1})
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "hpgl"})
    run = done(client, run)
    content = b"".join(client.get(f"/api/runs/{run['id']}/file"))
    archive = zipfile.ZipFile(io.BytesIO(content))
    names = archive.namelist()
    assert names[0] == "contents.html"
    assert b"<p>1 sheet, " in archive.read("contents.html")
    assert names[1].startswith("Shop-sheet-1-")
    assert names[1].endswith("-all.hpgl")
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/passes", {"sheet": 0})
    (setup,) = done(client, run)["result"]["setups"]
    assert [p["name"] for p in setup["passes"]] == ["score", "inner cuts", "outer cuts"]
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/cut", {"sheet": 0, "format": "hpgl"})
    found = done(client, run)["result"]
    assert found["faults"] == []
    assert [p["meant"]["piece"] for p in found["loose"] if p["meant"]] == ["Base"]
    assert "meant" not in found
    worn = {"sheet": 0, "of_run": run["id"], "conditions": {"worn": 1, "seed": 3}}
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/cut", worn)
    assert done(client, run)["result"]["missing"] == 1


def test_any_file_can_be_sent_to_the_cutter(client: Client) -> None:
    ring = b"IN;SP1;PU800,400;PD800,1200,1600,1200,1600,400,800,400;PU;SP0;"
    file = SimpleUploadedFile("from-elsewhere.hpgl", ring)
    run = client.post("/api/cut-file", {"file": file, "machine": "plotter"}).json()
    (piece,) = done(client, run)["result"]["loose"]
    assert piece["area_mm2"] == pytest.approx(400)
    file = SimpleUploadedFile("word.txt", b"hello")
    run = done(client, client.post("/api/cut-file", {"file": file, "machine": "plotter"}).json())
    assert run["state"] == "failed"
    assert run["said"] == "This is in no language that the machine understands."


def test_a_file_from_elsewhere_is_compared_with_a_sheet_of_ones_own(client: Client) -> None:
    number = design(client, BLANK, WINDOW, name="Lighthouse")
    job = job_of(client, {"design": number, "count": 1})
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/cut", {"sheet": 0, "format": "gcode"})
    right = b"".join(client.get(f"/api/runs/{done(client, run)['id']}/file"))
    slit = right.replace(b"M2", b"G0 X60 Y60\nM3\nG1 X90 Y60\nM5\nM2")
    form = {"machine": job["machine"], "job": job["id"], "sheet": 0}
    for content, codes in ((right, []), (slit, ["extra"])):
        file = SimpleUploadedFile("from-elsewhere.gcode", content)
        run = done(client, client.post("/api/cut-file", {"file": file, **form}).json())
        assert [f["code"] for f in run["result"]["faults"]] == codes
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "gcode"})
    saved = b"".join(client.get(f"/api/runs/{done(client, run)['id']}/file"))
    archive = zipfile.ZipFile(io.BytesIO(saved))
    own = next(archive.read(n) for n in archive.namelist() if n.endswith(".sheet.json"))
    cases = ((right, own, []), (slit, own, ["extra"]), (right, b"[]", None), (right, b"{", None))
    for content, sheet, found in cases:
        both = {
            "file": SimpleUploadedFile("from-elsewhere.gcode", content),
            "sheet_file": SimpleUploadedFile("a.sheet.json", sheet),
        }
        run = done(client, client.post("/api/cut-file", {**both, "machine": "plotter"}).json())
        if found is None:
            assert (run["state"], run["said"][:14]) == ("failed", "a.sheet.json: ")
        else:
            assert [f["code"] for f in run["result"]["faults"]] == found
    file = SimpleUploadedFile("from-elsewhere.gcode", right)
    none = client.post("/api/cut-file", {"file": file, **form, "sheet": 7})
    assert none.status_code == 422
    assert none.json()["title"] == "There is no sheet 8."
    other = client.post("/api/cut-file", {"file": file, **form, "job": 10**6})
    assert other.status_code == 404


def test_a_layout_that_the_server_broke_off_is_begun_again(client: Client) -> None:
    """As a restart leaves it: the run says that it is running, and nobody works on it."""
    number = design(client, BLANK)
    _, job = sent(
        client, "post", "/api/jobs", {"name": "Shop", "designs": [{"design": number, "count": 1}]}
    )
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    RUNNER.end()
    Job.objects.update(layout={})
    Run.objects.update(state="running", begun=1)
    assert done(client, client.get(f"/api/runs/{run['id']}").json())["state"] == "done"
    assert Job.objects.get().layout["sheets"]
    Run.objects.update(state="running", begun=running.MOST_BEGUN)
    run = client.get(f"/api/runs/{run['id']}").json()
    assert (run["state"], run["said"]) == ("failed", "It was broken off each time.")


def test_what_is_somebody_elses_is_not_there(client: Client) -> None:
    number = design(client, BLANK)
    job = job_of(client, {"design": number, "count": 1})
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "svg"})
    done(client, run)
    other = Client()
    other.force_login(User.objects.create_user("other"))
    assert other.get("/api/jobs").json() == []
    for path in (f"/api/jobs/{job['id']}", f"/api/runs/{run['id']}", f"/api/runs/{run['id']}/file"):
        assert other.get(path).status_code == 404
    status, said = sent(
        other, "post", "/api/jobs", {"name": "Mine", "designs": [{"design": number, "count": 1}]}
    )
    assert (status, said["title"]) == (422, "A design of this job is not there.")


def test_an_offcut_is_used_before_a_new_sheet(client: Client) -> None:
    """A strip of a sheet is left; what the second job lays there keeps its gap from what was used."""
    number = design(
        client, {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    )
    first = job_of(client, {"design": number, "count": 1})
    _, offcut = sent(client, "post", f"/api/jobs/{first['id']}/offcuts", {"sheet": 0})
    second = job_of(client, {"design": number, "count": 1}, offcuts=[offcut["id"]])
    (sheet,) = second["layout"]["sheets"]
    (piece,) = sheet["pieces"]
    assert len(sheet["taken"]) == 1
    assert piece["y"] >= 5 + 40 + 2 or piece["x"] >= 5 + 60 + 2


def test_a_job_without_designs_or_with_bad_values_is_told_so(client: Client) -> None:
    _, job = sent(client, "post", "/api/jobs", {"name": "Empty"})
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert (status, said["title"]) == (422, "There is no design in this job.")
    status, said = sent(client, "patch", f"/api/jobs/{job['id']}", {"machine": "press"})
    assert (status, said["title"]) == (422, "The machine 'press' is none of plotter, flatbed.")
    status, _ = sent(client, "patch", f"/api/jobs/{job['id']}", {"options": {"gap_mm": -1}})
    assert status == 422
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/cut", {"sheet": 0})
    assert (status, said["title"]) == (422, "This job is not laid out yet.")


def test_machines_of_ones_own(client: Client) -> None:
    """A larger bed takes a sheet that the plotter's does not; somebody else has it not."""
    number = design(client, BLANK)
    _, job = sent(
        client, "post", "/api/jobs", {"name": "J", "designs": [{"design": number, "count": 1}]}
    )
    large = {"options": {"formats": {"paper": [600, 600]}}, "machine": "plotter"}
    sent(client, "patch", f"/api/jobs/{job['id']}", large)
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert "larger than the bed of" in done(client, run)["said"]
    plotter = PLOTTER.model_dump(mode="json")
    mine = plotter | {"name": "mine", "title": "Mine", "bed_width": 700}
    assert sent(client, "post", "/api/machines", mine)[0] == 200
    assert [m["name"] for m in client.get("/api/machines").json()] == ["plotter", "flatbed", "mine"]
    assert sent(client, "patch", f"/api/jobs/{job['id']}", {"machine": "mine"})[0] == 200
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert done(client, run)["state"] == "done"
    status, said = sent(client, "post", "/api/machines", plotter)
    assert (status, said["hint"]) == (422, "Give yours another name.")
    status, _ = sent(client, "post", "/api/machines", mine | {"tools": []})
    assert status == 422
    other = Client()
    other.force_login(User.objects.create_user("another"))
    assert len(other.get("/api/machines").json()) == 2
    client.delete("/api/machines/mine")
    assert client.get(f"/api/jobs/{job['id']}").json()["machine"] == "plotter"


def test_pieces_that_grew_since_they_were_laid_out_are_not_cut_over_each_other(
    client: Client,
) -> None:
    """Two windows' waste aside: bases of 60 x 40 become 60 x 50, and would lie over each other."""
    rectangle = {"kind": "figure", "outline": {"kind": "rectangle", "width": 60, "height": 40}}
    number = design(client, rectangle)
    job = job_of(client, {"design": number, "count": 8})
    now = client.get(f"/api/designs/{number}").json()
    now["document"]["pieces"][0]["steps"][0]["outline"]["height"] = 50
    sent(
        client,
        "put",
        f"/api/designs/{number}",
        {"document": now["document"], "revision": now["revision"]},
    )
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "svg"})
    run = done(client, run)
    assert run["state"] == "failed"
    assert "too near to each other now" in run["said"]
    assert run["hint"] == "Lay it out again."
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert done(client, run)["state"] == "done"
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "svg"})
    assert done(client, run)["state"] == "done"


def test_two_papers_of_one_name_are_two_stocks(client: Client) -> None:
    numbers = []
    for thickness in (0.2, 0.4):
        document = design_of(BLANK).model_dump(mode="json")
        document["papers"][0] |= {"name": "Card", "thickness": thickness}
        numbers.append(sent(client, "post", "/api/designs", {"document": document})[1]["id"])
    job = job_of(client, *({"design": n, "count": 1} for n in numbers))
    first, second = job["layout"]["sheets"]
    assert first["paper"] == second["paper"] == "Card"
    assert first["stock"] != second["stock"]
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/files", {"format": "hpgl"})
    run = done(client, run)
    content = b"".join(client.get(f"/api/runs/{run['id']}/file"))
    names = zipfile.ZipFile(io.BytesIO(content)).namelist()
    assert sum(n.endswith(".hpgl") for n in names) == 2
    move = {"sheet": 0, "index": 0, "to": 1, "piece": first["pieces"][0]}
    status, said = sent(client, "post", f"/api/jobs/{job['id']}/place", move)
    assert (status, said["title"]) == (422, "Sheet 2 is of another paper, Card.")


def test_a_job_that_is_removed_while_it_is_laid_out_leaves_nothing(client: Client) -> None:
    number = design(client, BLANK)
    _, job = sent(
        client, "post", "/api/jobs", {"name": "J", "designs": [{"design": number, "count": 1}]}
    )
    _, run = sent(client, "post", f"/api/jobs/{job['id']}/lay")
    assert sent(client, "delete", f"/api/jobs/{job['id']}")[0] == 200
    end = time.monotonic() + 30
    while RUNNER.is_here(run["id"]) and time.monotonic() < end:
        time.sleep(0.1)
    assert not Run.objects.exists()
    assert not Job.objects.exists()


def test_jobs_that_were_kept_before_stay_as_they_were_laid_out(client: Client) -> None:
    """Options that were never written get what was usual then; what was chosen stays."""
    owner = User.objects.get(username="designer")
    never = Job.objects.create(owner=owner, name="Never changed")
    chosen = Job.objects.create(
        owner=owner, name="Chosen", options={"with_grain": True, "gap_mm": 3}
    )
    keep = import_module("server.jobs.migrations.0002_options_as_they_were").keep
    keep(apps, None)
    never.refresh_from_db()
    chosen.refresh_from_db()
    assert never.options == {"with_grain": False, "inside": "meant"}
    assert chosen.options == {"with_grain": True, "inside": "meant", "gap_mm": 3}
