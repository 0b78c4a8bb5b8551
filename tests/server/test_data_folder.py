"""Faults of the data folder: one sentence and status 2 at the start, words instead of failures while
the server runs, copies of seven days, and a demo that goes on where it was ended."""

from __future__ import annotations

import http.client
import json
import os
import resource
import signal
import socket
import sqlite3
import subprocess
import sys
import threading
import time
from contextlib import closing
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import DatabaseError, connection
from django.test import Client as Browser
from django.utils import timezone

from demo.running import Running
from server.config import backups
from server.config.data import (
    DATABASE,
    DataTrouble,
    days_of_backups,
    looked_over,
    place_of,
    prepared,
    secret_key,
    taken,
)
from server.designs import actions
from server.designs.keeping import MOST_REFUSED, OFTEN
from server.jobs.models import Job, Offcut, OwnMachine
from server.shelf.models import StockPaper
from tests.server.conftest import Api
from tests.server.over_http import Client

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
    assert days_of_backups(tmp_path) == [f"2026-11-{day:02}" for day in range(9, 2, -1)]
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


def test_the_page_itself_needs_no_database(client: Browser, settings: Any) -> None:
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


def test_an_empty_database_is_not_taken_as_new_where_there_are_copies(tmp_path: Path) -> None:
    with closing(database(tmp_path)) as base:
        base.execute("CREATE TABLE kept (day)")
    backups.back_up(tmp_path, "2026-11-05")
    for empty in (b"", None):
        (tmp_path / DATABASE).unlink()
        if empty is not None:
            (tmp_path / DATABASE).write_bytes(empty)
        words = said(manage(tmp_path, "serve", "--port", "0"))
        assert "there is a copy of 2026-11-05" in words
        assert "restore 2026-11-05" in words
        (tmp_path / DATABASE).touch()
    # nor is a copy made of it, which would let a good one go in time
    with pytest.raises(sqlite3.DatabaseError, match="empty"):
        backups.back_up(tmp_path, "2026-11-06")
    assert days_of_backups(tmp_path) == ["2026-11-05"]
    backups.restore(tmp_path, "2026-11-05")
    looked_over(tmp_path, KNOWN)


def test_a_copy_made_after_the_clock_was_set_back_stays(tmp_path: Path) -> None:
    with closing(database(tmp_path)) as base:
        base.execute("CREATE TABLE kept (day)")
    for number, day in enumerate(range(1, 8)):
        path = backups.back_up(tmp_path, f"2026-11-{day:02}")
        os.utime(path, (number, number))
    backups.back_up(tmp_path, "2025-03-01")
    days = days_of_backups(tmp_path)
    assert len(days) == 7
    assert "2025-03-01" in days
    assert "2026-11-01" not in days


def test_a_version_that_was_refused_stays_when_the_clock_is_set_back(
    designer: Api, blank: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    path = f"/designs/{designer('POST', '/designs', {'document': blank})[1]['id']}"
    assert designer("PUT", path, {"document": {**blank, "name": "new"}, "revision": 1})[0] == 200
    for number in range(MOST_REFUSED + OFTEN):
        late = {"document": {**blank, "name": f"late {number}"}, "revision": 1}
        assert designer("PUT", path, late)[0] == 409
    monkeypatch.setattr(timezone, "now", lambda: datetime(2020, 1, 1, tzinfo=UTC))
    for _ in range(OFTEN):
        status, refused = designer(
            "PUT", path, {"document": {**blank, "name": "last"}, "revision": 1}
        )
        assert status == 409
        kept = designer("GET", f"{path}/versions/{refused['kept']}")
        assert kept[0] == 200
        assert kept[1]["document"]["name"] == "last"
    newest = designer("GET", f"{path}/versions")[1][0]
    assert newest["kept"] == refused["kept"]


def test_a_lost_key_signs_people_out_and_nothing_else(tmp_path: Path) -> None:
    """Designs open after signing in again, and drafts in a browser are still known as of this server."""
    key = secret_key(tmp_path)
    place = place_of(tmp_path, key)
    (tmp_path / "secret-key").unlink()
    other = secret_key(tmp_path)
    assert other != key
    assert place_of(tmp_path, other) == place
    assert place_of(tmp_path / "..", key) == place  # as it was made before it was kept
    (tmp_path.parent / "place").unlink()


def test_a_folder_that_turns_read_only_is_said_and_read_on(
    designer: Api, blank: dict[str, Any]
) -> None:
    """SQLite's own refusal, as of a disk that was mounted anew."""
    number = designer("POST", "/designs", {"document": blank})[1]["id"]
    body = {"document": {**blank, "name": "New"}, "revision": 1}
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA query_only=ON")
        try:
            status, problem = designer("PUT", f"/designs/{number}", body)
            read = designer("GET", f"/designs/{number}")
        finally:
            cursor.execute("PRAGMA query_only=OFF")
    assert (status, problem["type"]) == (503, "stileblade:not-kept")
    assert "its disk is read only" in problem["title"]
    assert (read[0], read[1]["document"]["name"]) == (200, blank["name"])
    assert designer("PUT", f"/designs/{number}", body)[0] == 200


def test_asked_to_end_it_ends_soon_with_the_saves_that_go_on(
    tmp_path: Path, blank: dict[str, Any]
) -> None:
    """Each save that was answered is there, and none is there half."""
    with Running(tmp_path) as running:
        clients = [Client(running.address) for _ in range(8)]
        made = [c.ask("POST", "/designs", {"document": blank})[1] for c in clients]
        answered = [0] * len(clients)

        def save(place: int) -> None:
            revision = made[place]["revision"]
            for count in range(1, 1000):
                body = {"document": {**blank, "name": f"n{count}"}, "revision": revision}
                try:
                    status, answer = clients[place].ask(
                        "PUT", f"/designs/{made[place]['id']}", body
                    )
                except (OSError, http.client.HTTPException, ValueError):
                    return
                if status != 200:
                    return
                revision, answered[place] = answer["revision"], count

        threads = [threading.Thread(target=save, args=(n,)) for n in range(len(clients))]
        for thread in threads:
            thread.start()
        time.sleep(1.5)
        began = time.monotonic()
        assert running.end() == 0
        assert time.monotonic() - began < 10
        for thread in threads:
            thread.join()
    assert min(answered) > 0
    with closing(database(tmp_path)) as base:
        for design, last in zip(made, answered, strict=True):
            row = base.execute(
                "SELECT name, document FROM designs_design WHERE id = ?", (design["id"],)
            )
            name, document = row.fetchone()
            assert int(name[1:]) >= last
            assert json.loads(document)["name"] == name
