"""The core from the command line, as other programs call it."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from stileblade.design.document import VERSION
from stileblade.formats.files import file_name
from tests.conftest import design_of

DEMO = sorted((Path(__file__).parents[1] / "demo" / "designs").glob("*.json"))
CIRCLE = {"kind": "figure", "outline": {"kind": "circle", "diameter": 110}}


def run(*arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "stileblade", *arguments],
        capture_output=True, text=True, check=False,
    )  # fmt: skip


@pytest.fixture
def saved(tmp_path: Path) -> Any:
    def save(*steps: dict[str, Any], **card: Any) -> str:
        path = tmp_path / "design.json"
        path.write_text(design_of(*steps, **card).model_dump_json())
        return str(path)

    return save


def test_evaluate_prints_sizes_folds_and_findings(saved: Any) -> None:
    """r = 55 with lap 3 mirrored to the right: 217 open, 108.5 closed, hinge 25.515."""
    done = run("evaluate", saved(CIRCLE, {"kind": "mirror", "towards": "right", "lap": 3}))
    assert done.returncode == 0
    data = json.loads(done.stdout)
    assert (data["card"]["open_mm"], data["card"]["closed_mm"]) == ([217, 110], [108.5, 110])
    (piece,) = data["pieces"]
    assert piece["name"] == "Base"
    assert piece["bounds_mm"] == [0.0, 0.0, 217.0, 110.0]
    assert (piece["contours"], piece["openings"], piece["nodes"]) == (1, 0, 2)
    (fold,) = piece["folds"]
    assert fold["hinge_mm"] == pytest.approx(25.515, abs=1e-3)
    assert fold["made"] == "score"
    (span,) = fold["spans"]
    assert span["from"][0] == span["to"][0] == 108.5
    assert span["length_mm"] == fold["hinge_mm"]
    assert span["direction"] == "mountain"
    assert piece["path"].startswith("M")
    assert {f["code"] for f in data["findings"]} == {"mirror.reversed", "foot.rocks"}
    assert set(data["findings"][0]) >= {"code", "severity", "message", "piece", "value"}


def test_check_exits_with_one_where_it_will_fail(saved: Any) -> None:
    passed = run("check", saved({"kind": "blank"}))
    assert (passed.returncode, json.loads(passed.stdout)) == (0, [])
    failed = run("check", saved(CIRCLE, {"kind": "mirror", "lap": 0}))
    assert failed.returncode == 1
    assert json.loads(failed.stdout)[0]["severity"] == "error"


@pytest.mark.parametrize("kind", ["svg", "dxf", "pdf", "png"])
def test_export_writes_files_named_after_design_and_piece(
    saved: Any, tmp_path: Path, kind: str
) -> None:
    done = run("export", saved({"kind": "blank"}), "--format", kind, "--out", str(tmp_path / "out"))
    assert done.returncode == 0
    (path,) = json.loads(done.stdout)
    assert Path(path).name == f"New-card-Base.{kind}"
    assert Path(path).stat().st_size > 200


def test_export_takes_choices_by_name(saved: Any, tmp_path: Path) -> None:
    out = ("--format", "pdf", "--out", str(tmp_path))
    done = run("export", saved({"kind": "blank"}), *out, "--option", "page=own")
    assert done.returncode == 0
    wrong = run("export", saved({"kind": "blank"}), *out, "--option", "page=a9")
    assert wrong.returncode == 2
    assert "--option" in wrong.stderr


def test_errors_go_to_standard_error_with_status_two(saved: Any, tmp_path: Path) -> None:
    later = tmp_path / "later.json"
    later.write_text('{"version": 9}')
    for arguments, message in (
        (("evaluate", str(tmp_path / "none.json")), "No such file"),
        (("check", str(later)), "version 9"),
        (("export", saved(), "--format", "svg", "--out", str(tmp_path)), "has no paper"),
    ):
        done = run(*arguments)
        assert (done.returncode, done.stdout) == (2, "")
        assert message in done.stderr
    assert run("emboss").returncode == 2


def test_schema_tells_all_kinds() -> None:
    data = json.loads(run("schema").stdout)
    assert {"blank", "mirror", "window"} <= set(data["steps"])
    assert {"circle", "heart", "drawn"} <= set(data["figures"])
    assert data["document"]["properties"]["version"]["const"] == VERSION


@pytest.mark.parametrize("path", DEMO, ids=lambda p: p.stem)
def test_demo_designs_evaluate(path: Path) -> None:
    done = run("evaluate", str(path))
    assert done.returncode == 0, done.stderr
    assert json.loads(done.stdout)["pieces"][0]["area_mm2"] > 1000


def test_among_the_demo_designs_one_passes_and_one_has_findings() -> None:
    codes = {p.stem: run("check", str(p)) for p in DEMO}
    assert any(json.loads(d.stdout) == [] for d in codes.values())
    assert any(d.returncode == 1 for d in codes.values())


@pytest.mark.parametrize(
    ("content", "status"),
    [
        ("IN;SP1;PU0,0;PD400,0,400,400,0,0;PU;SP0;", 0),
        ("IN;SP1;PU0,0;PD400,0,400,400,0,0;PU;PU0,0;PD400,0,400,400,0,0;PU;SP0;", 1),
        ("IN;SP1;QX5;PU0,0;PD400,0;PU;", 2),
        ("hello", 2),
    ],
)
def test_the_cutters_exit_status(tmp_path: Path, content: str, status: int) -> None:
    """1 for a fault, 2 for what the machine refuses."""
    file = tmp_path / "sheet.plt"
    file.write_text(content)
    assert run("cut", str(file)).returncode == status


def test_file_names_are_never_paths() -> None:
    assert file_name("../../etc/passwd") == "etc-passwd"
    assert file_name("Möwe & Wal / 2") == "Möwe-Wal-2"
    assert file_name("///") == "piece"
