"""Faults of the data folder: one sentence and status 2 at the start, words instead of failures while
the server runs, copies of seven days, and a demo that goes on where it was ended."""

from __future__ import annotations

import json
import os
import resource
import signal
import socket
import sqlite3
import subprocess
import sys
import time
from contextlib import closing
from datetime import date
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import DatabaseError
from django.test import Client

from server.config import backups
from server.config.data import DATABASE, DataTrouble, looked_over, prepared, secret_key, taken
from server.designs import actions
from server.jobs.models import Job, Offcut, OwnMachine
from server.shelf.models import StockPaper
from tests.server.conftest import Api

ROOT = Path(__file__).resolve().parents[2]
KNOWN = {("designs", "0001_initial")}


def manage(
    data: Path, *words: str, before: Any = None, **more: str
) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "manage.py", *words],
        cwd=ROOT,
        env={**os.environ, "STILEBLADE_DATA": str(data), "STILEBLADE_DEMO": "0", **more},
        capture_output=True,
        text=True,
        timeout=120,
        preexec_fn=before,
    )


def full_disk() -> None:
    """No file may be written to: as on a full disk, but without one."""
    signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))


def database(data: Path) -> sqlite3.Connection:
    return sqlite3.connect(data / DATABASE)


def said(done: subprocess.CompletedProcess[str]) -> str:
    assert done.returncode == 2, done.stderr
    assert "Traceback" not in done.stderr
    assert done.stderr.count("\n") == 1
    return done.stderr


def test_a_folder_that_is_none(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("")
    words = said(manage(tmp_path / "file", "serve", "--port", "0"))
    assert "is no folder" in words
    assert "STILEBLADE_DATA" in words


def test_a_full_disk_at_the_first_start_leaves_no_empty_key(tmp_path: Path) -> None:
    assert "the disk is full" in said(manage(tmp_path, "serve", "--port", "0", before=full_disk))
    assert not (tmp_path / "secret-key").exists()
    assert secret_key(tmp_path) == secret_key(tmp_path)
    assert len(secret_key(tmp_path)) > 50


def test_a_full_disk_at_a_later_start(tmp_path: Path) -> None:
    secret_key(tmp_path)
    assert "the disk is full" in said(manage(tmp_path, "serve", "--port", "0", before=full_disk))


def test_an_empty_key_is_made_anew(tmp_path: Path) -> None:
    (tmp_path / "secret-key").write_text("")
    assert len(secret_key(tmp_path)) > 50


def test_a_broken_database_is_left_as_it_is(tmp_path: Path) -> None:
    broken = b"SQLite format 3\0" + b"broken" * 2000
    (tmp_path / DATABASE).write_bytes(broken)
    words = said(manage(tmp_path, "serve", "--port", "0"))
    assert "is broken" in words
    assert "restore" in words
    assert (tmp_path / DATABASE).read_bytes() == broken


def test_a_database_of_a_newer_version_is_left_as_it_is(tmp_path: Path) -> None:
    with closing(database(tmp_path)) as base:
        base.execute("CREATE TABLE django_migrations (app, name)")
        base.execute("INSERT INTO django_migrations VALUES ('designs', '0999_later')")
        base.commit()
    words = said(manage(tmp_path, "serve", "--port", "0"))
    assert "newer version" in words
    assert "0999_later" in words


def test_the_folder_and_what_is_in_it_are_its_owners_alone(tmp_path: Path) -> None:
    data = tmp_path / "data"
    prepared(data)
    secret_key(data)
    looked_over(data, KNOWN)
    assert data.stat().st_mode & 0o077 == 0
    assert [p.name for p in data.iterdir() if p.stat().st_mode & 0o077] == []
    (data / DATABASE).chmod(0o644)
    looked_over(data, KNOWN)
    assert (data / DATABASE).stat().st_mode & 0o077 == 0


def test_copies_of_the_last_seven_days_and_one_brought_back(tmp_path: Path) -> None:
    for day in range(1, 10):
        with closing(database(tmp_path)) as base:
            base.execute("CREATE TABLE IF NOT EXISTS kept (day)")
            base.execute("INSERT INTO kept VALUES (?)", (day,))
            base.commit()
        backups.back_up(tmp_path, f"2026-11-{day:02}")
    assert backups.days(tmp_path) == [f"2026-11-{day:02}" for day in range(9, 2, -1)]
    (tmp_path / DATABASE).write_bytes(b"broken")
    aside = backups.restore(tmp_path, "2026-11-05")
    assert aside.read_bytes() == b"broken"
    with closing(database(tmp_path)) as base:
        assert base.execute("SELECT count(*) FROM kept").fetchone() == (5,)
    with pytest.raises(DataTrouble, match="Copies there are"):
        backups.restore(tmp_path, "2025-01-01")


def test_a_copy_that_cannot_be_written_leaves_the_earlier_one(
    tmp_path: Path, monkeypatch: Any
) -> None:
    with closing(database(tmp_path)) as base:
        base.execute("CREATE TABLE kept (day)")
    path = backups.back_up(tmp_path, "2026-11-01")
    before = path.read_bytes()

    def no_room(*words: Any, **more: Any) -> Any:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "open", no_room)
    with pytest.raises(OSError, match="No space"):
        backups.back_up(tmp_path, "2026-11-01")
    assert path.read_bytes() == before


def test_the_commands_of_the_data_folder(tmp_path: Path) -> None:
    assert "no copies" in manage(tmp_path, "restore").stdout
    assert manage(tmp_path, "migrate", "--verbosity", "0").returncode == 0
    assert "Copied to" in manage(tmp_path, "backup").stdout
    assert manage(tmp_path, "restore").stdout.strip() == date.today().isoformat()
    assert "kept as" in manage(tmp_path, "restore", date.today().isoformat()).stdout
    wrong = manage(tmp_path, "restore", "2001-01-01")
    assert wrong.returncode == 2


def test_all_of_a_persons_work_as_files(
    designer: Api, blank: dict[str, Any], tmp_path: Path
) -> None:
    StockPaper.objects.create(owner=User.objects.get(), data={"name": "Sea green"})
    for name in ("Whale", "Tide / tables"):
        designer("POST", "/designs", {"document": {**blank, "name": name}})
    number = designer("POST", "/designs", {"document": {**blank, "name": "Gone"}})[1]["id"]
    designer("PATCH", f"/designs/{number}", {"binned": True})
    owner = User.objects.get()
    Job.objects.create(owner=owner, name="Shop", designs=[{"design": number, "count": 3}])
    OwnMachine.objects.create(owner=owner, name="mine", data={"title": "Mine"})
    Offcut.objects.create(
        owner=owner, name="Rest", paper="Sand", width=90, height=60, taken=["M0 0Z"]
    )
    call_command("export_work", "designer", tmp_path / "out")
    files = sorted(p.name.rsplit("-", 1)[0] for p in (tmp_path / "out" / "designs").iterdir())
    assert files == ["Tide-tables", "Whale"]
    assert len(list((tmp_path / "out" / "designs in the bin").iterdir())) == 1
    kept = json.loads(next((tmp_path / "out" / "designs").glob("Whale*")).read_text())
    assert kept["name"] == "Whale"
    papers = json.loads((tmp_path / "out" / "papers.json").read_text())
    assert [p["name"] for p in papers] == ["Sea green"]
    (job,) = (tmp_path / "out" / "jobs").iterdir()
    assert json.loads(job.read_text())["designs"] == [{"design": number, "count": 3}]
    assert json.loads((tmp_path / "out" / "machines.json").read_text()) == [{"title": "Mine"}]
    (offcut,) = json.loads((tmp_path / "out" / "offcuts.json").read_text())
    assert (offcut["paper"], offcut["width"], offcut["taken"]) == ("Sand", 90, ["M0 0Z"])


@pytest.mark.parametrize(
    ("fault", "words"),
    [("database or disk is full", "disk is full"), ("attempt to write a readonly database", "read only"),
     ("database is locked", "too much"), ("no such table: designs", "does not answer")],
)  # fmt: skip
def test_a_fault_while_it_runs_is_said_and_nothing_is_lost(
    designer: Api, blank: dict[str, Any], monkeypatch: Any, fault: str, words: str
) -> None:
    number = designer("POST", "/designs", {"document": blank})[1]["id"]

    def failing(*given: Any, **more: Any) -> Any:
        raise DatabaseError(fault)

    monkeypatch.setattr(actions, "save", failing)
    body = {"document": {**blank, "name": "New"}, "revision": 1}
    status, problem = designer("PUT", f"/designs/{number}", body)
    assert (status, problem["type"]) == (503, "stileblade:not-kept")
    assert words in problem["title"]
    assert "stays in this browser" in problem["hint"]
    monkeypatch.undo()
    assert designer("PUT", f"/designs/{number}", body)[0] == 200


def test_the_page_itself_needs_no_database(client: Client, settings: Any) -> None:
    settings.DEMO = True  # without the database that a test has to ask for
    assert client.get("/designs/1").status_code in (200, 503)


def test_a_demo_that_was_ended_while_it_was_made_goes_on(tmp_path: Path) -> None:
    environment = {**os.environ, "STILEBLADE_DATA": str(tmp_path), "STILEBLADE_DEMO": "1"}
    words = [sys.executable, "manage.py", "serve", "--port", "0"]
    started = subprocess.Popen(
        words, cwd=ROOT, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT
    )
    try:
        until = time.monotonic() + 60
        while not _tables(tmp_path) and time.monotonic() < until:
            time.sleep(0.02)
        time.sleep(0.3)
    finally:
        started.kill()
        started.wait()
    from demo.running import Running

    with Running(tmp_path), closing(database(tmp_path)) as base:
        count = base.execute("SELECT count(*) FROM designs_design").fetchone()[0]
    assert count == len(list((ROOT / "demo" / "designs").glob("*.json")))


def _tables(data: Path) -> bool:
    try:
        with closing(database(data)) as base:
            names = {row[0] for row in base.execute("SELECT name FROM sqlite_master")}
            return "shelf_ownsize" in names
    except sqlite3.Error:
        return False


def test_the_settings_behind_https_pass_djangos_own_check(tmp_path: Path) -> None:
    done = manage(
        tmp_path, "check", "--deploy", "--fail-level", "WARNING",
        STILEBLADE_HTTPS="1", STILEBLADE_HOSTS="cards.example",
    )  # fmt: skip
    assert done.returncode == 0, done.stderr


def test_a_second_server_on_one_data_folder_does_not_start(tmp_path: Path) -> None:
    """One sentence with the first one's process and status 2; ended, however, its folder is free."""
    held = taken(tmp_path)
    words = said(manage(tmp_path, "serve", "--port", "0"))
    assert f"Another server, process {os.getpid()}, has the data folder" in words
    with pytest.raises(DataTrouble, match="Another server"):
        taken(tmp_path)
    os.close(held)
    os.close(taken(tmp_path))
    # killed without a word, it leaves the folder as well
    code = "import sys, time; from pathlib import Path; from server.config.data import taken; " \
        "taken(Path(sys.argv[1])); print('held', flush=True); time.sleep(60)"  # fmt: skip
    first = subprocess.Popen(
        [sys.executable, "-c", code, str(tmp_path)], cwd=ROOT, stdout=subprocess.PIPE, text=True
    )
    assert first.stdout is not None
    assert first.stdout.readline() == "held\n"
    with pytest.raises(DataTrouble, match=f"process {first.pid}"):
        taken(tmp_path)
    first.kill()
    first.wait()
    os.close(taken(tmp_path))


def test_a_port_that_is_taken_is_said_before_anything_is_prepared(tmp_path: Path) -> None:
    with socket.create_server(("127.0.0.1", 0)) as other:
        port = str(other.getsockname()[1])
        done = manage(tmp_path, "serve", "--port", port, STILEBLADE_DEMO="1")
    assert done.returncode == 1
    assert f"Port {port} cannot be used" in done.stderr
    assert not (tmp_path / DATABASE).exists()
