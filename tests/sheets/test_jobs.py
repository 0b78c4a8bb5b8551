"""Jobs as files, from the command line: laid out, written, cut, and what is wrong with them."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest

from stileblade.__main__ import main
from stileblade.machine.shipped import PLOTTER
from stileblade.sheets.job import JobOptions, stocks_of
from stileblade.sheets.laying import form_of, lay_job
from tests.conftest import design_of
from tests.sheets.jobs import DESIGNS, card

A6 = {"name": "ISO A6", "width": 105, "height": 148,
      "envelope": {"name": "C6", "width": 114, "height": 162}}  # fmt: skip


@pytest.fixture
def job(tmp_path: Path) -> Path:
    """Two bases of ISO A6 on A3."""
    document = design_of({"kind": "blank"}).model_dump(mode="json")
    document["card"]["size"] = A6
    (tmp_path / "designs").mkdir()
    (tmp_path / "designs" / "card.json").write_text(json.dumps(document))
    path = tmp_path / "job.json"
    path.write_text(
        json.dumps(
            {
                "designs": [{"file": "designs/card.json", "count": 2}],
                "gap_mm": 2, "edge_mm": 5, "formats": {"paper": [297, 420]},
            }
        )
    )  # fmt: skip
    return path


def ran(capsys: pytest.CaptureFixture[str], *arguments: object) -> tuple[int, Any, str]:
    status = main([str(a) for a in arguments])
    said = capsys.readouterr()
    return status, json.loads(said.out) if said.out else None, said.err


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "hpgl", "gcode"])
def test_sheets_and_cut(capsys: pytest.CaptureFixture[str], job: Path, kind: str) -> None:
    """Two of 210 x 148 on A3: 2 x 31,080 of 124,740 mm^2, 49.83 %."""
    out = job.parent / "out"
    status, data, _ = ran(
        capsys, "sheets", job, "--machine", "flatbed", "--out", out, "--format", kind
    )
    assert status == 0
    (sheet,) = data["sheets"]
    assert (sheet["paper"], sheet["format_mm"], sheet["use"]) == ("paper", [297, 420], 0.4983)
    assert data["bound"] == 1
    assert len(sheet["pieces"]) == 2
    assert {"design", "piece", "x_mm", "y_mm", "turn_deg", "flipped"} <= set(sheet["pieces"][0])
    assert {p["turn_deg"] for p in sheet["pieces"]} <= {0, 90, 180, 270}
    (file,) = sheet["files"]
    assert Path(file).exists()
    assert Path(file).name.startswith("job-sheet-1-")
    if kind == "pdf":
        return
    status, found, _ = ran(capsys, "cut", file, "--machine", "flatbed", "--meant", sheet["meant"])
    assert (status, found["faults"]) == (0, [])
    assert [p["meant"]["piece"] for p in found["loose"]] == ["Base"] * 2
    assert max(p["meant"]["deviation_mm"] for p in found["loose"]) <= 0.03
    assert sum(p["area_mm2"] for p in found["loose"]) == pytest.approx(2 * 210 * 148, abs=15)
    status, found, _ = ran(capsys, "cut", file, "--machine", "flatbed")
    assert [p["meant"] for p in found["loose"]] == [None] * 2


def test_the_same_job_gives_the_same_bytes(capsys: pytest.CaptureFixture[str], job: Path) -> None:
    contents = []
    for number in (1, 2):
        out = job.parent / f"out{number}"
        ran(
            capsys,
            "sheets",
            job,
            "--out",
            out,
            "--format",
            "gcode",
            "--each-pass",
            "--machine",
            "flatbed",
        )
        contents.append({p.name: p.read_bytes() for p in sorted(out.iterdir())})
    assert contents[0] == contents[1]
    assert [n for n in contents[0] if n.endswith(".gcode")] == [
        "job-sheet-1-Card-stock-1-score.gcode", "job-sheet-1-Card-stock-6-cut-outer.gcode",
    ]  # fmt: skip


def test_a_fault_ends_with_status_1(capsys: pytest.CaptureFixture[str], job: Path) -> None:
    out = job.parent / "out"
    _, data, _ = ran(
        capsys, "sheets", job, "--out", out, "--format", "hpgl", "--machine", "flatbed"
    )
    path = Path(data["sheets"][0]["files"][0])
    path.write_bytes(path.read_bytes().replace(b"SP3", b"SP1"))
    status, found, _ = ran(
        capsys, "cut", path, "--machine", "flatbed", "--meant", data["sheets"][0]["meant"]
    )
    assert (status, [f["code"] for f in found["faults"]]) == (1, ["score-cut"])
    assert found["faults"][0]["message"] == "Cut through: all 2 lines to be scored."


WRONG: dict[str, tuple[dict[str, Any], str]] = {
    "gone": ({"designs": [{"file": "designs/gone.json"}]}, "gone.json: No such file or directory."),
    "none": ({"designs": []}, "job.json: designs: "),
    "count": ({"designs": [{"file": "designs/card.json", "count": 0}]}, "job.json: designs.0.count: "),
    "name": ({"designs": [{"file": "designs/card.json"}], "gaps": 2}, "job.json: gaps: "),
    "format": ({"designs": [{"file": "designs/card.json"}], "formats": {"paper": [100, 100]}},
               "New card: Base is 210.0 x 148.0 mm and fits on no sheet of"),
    "bed": ({"designs": [{"file": "designs/card.json"}], "formats": {"paper": [900, 900]}},
            "are larger than the bed of"),
    "edge": ({"designs": [{"file": "designs/card.json"}], "edge_mm": 160}, "leaves nothing of"),
}  # fmt: skip


@pytest.mark.parametrize("name", WRONG)
def test_what_is_wrong_with_a_job_is_said(
    capsys: pytest.CaptureFixture[str], job: Path, name: str
) -> None:
    data, said = WRONG[name]
    job.write_text(json.dumps(data))
    status, _, error = ran(capsys, "sheets", job, "--out", job.parent / "out")
    assert status == 2
    assert said in error


def test_papers_of_one_kind_are_shared_between_designs() -> None:
    """Each paper of the demo's designs is one stock, by whatever key a design has it."""
    cards = [card(DESIGNS[0], 2, "0"), card(DESIGNS[1], 1, "1")]
    stocks = stocks_of(cards, JobOptions())
    names = [s.paper.name for s in stocks]
    assert len(names) == len(set(names))
    count = sum(w.count for s in stocks for w in s.pieces)
    assert count == sum(c.count * len(c.evaluation.pieces) for c in cards)


def test_pieces_lie_where_it_is_said() -> None:
    """A piece's lines on the sheet are its own, turned and moved: their box begins at x_mm, y_mm."""
    laid = lay_job(
        "j", stocks_of([card(DESIGNS[1], 2)], JobOptions()), JobOptions(), PLOTTER, advise=False
    )
    for sheet in laid.sheets:
        for lying in sheet.lying:
            lines = [line for some in lying.lines.values() for line in some if line.closed]
            left = min(float(line.segments.start[:, 0].min()) for line in lines)
            assert left >= lying.placed.x - 0.01
            assert abs(float(abs(lying.matrix[:, :2]).sum()) - 2) < 1e-9


def test_the_edge_is_that_of_paper_and_machine_if_none_is_given() -> None:
    (stock, *_) = stocks_of([card(DESIGNS[1])], JobOptions())
    wide = PLOTTER.model_copy(update={"edge": 12.5})
    assert form_of(stock, JobOptions(), wide).edge == 12.5
    assert form_of(stock, JobOptions(edge_mm=3), wide).edge == 3
