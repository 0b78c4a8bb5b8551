"""The data folder: the database and the secret key. What is wrong with it is said in one sentence
before anything else starts."""

from __future__ import annotations

import errno
import fcntl
import hashlib
import os
import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

DATABASE = "stileblade.sqlite3"
_KEY = "secret-key"
_LOCK = "server.lock"
_PLACE = "place"
BACKUPS = "backups"
_SAID = {
    errno.ENOSPC: "the disk is full",
    errno.EDQUOT: "the disk is full",
    errno.EFBIG: "the disk is full",
    errno.EROFS: "it is on a disk that is read only",
    errno.EACCES: "it may not be written to",
    errno.EPERM: "it may not be written to",
    errno.ENOTDIR: "it is no folder",
    errno.EEXIST: "it is no folder",
}


class DataTrouble(Exception):
    """The data folder cannot be used; the message says why, and what to do."""


@contextmanager
def _said(folder: Path) -> Iterator[None]:
    try:
        yield
    except OSError as error:
        why = _SAID.get(error.errno or 0, (error.strerror or "it cannot be used").lower())
        raise DataTrouble(
            f"The data folder {folder} cannot be used: {why}. Mend that, or name another folder"
            " with STILEBLADE_DATA."
        ) from error


def prepared(folder: Path) -> None:
    """Makes the folder, its owner's alone, where there is none yet."""
    with _said(folder):
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)


def secret_key(folder: Path) -> str:
    """Made once for each data folder. It is written beside its place and then put there: a disk that
    is full leaves none, instead of an empty one."""
    path = folder / _KEY
    with _said(folder):
        try:
            kept = path.read_text().strip()
        except FileNotFoundError:
            kept = ""
        if kept:
            return kept
        new = path.with_name(f"{_KEY}.{os.getpid()}")
        try:
            with open(os.open(new, os.O_CREAT | os.O_TRUNC | os.O_WRONLY, 0o600), "w") as file:
                file.write(secrets.token_urlsafe(50))
                file.flush()
                os.fsync(file.fileno())
            try:
                if path.exists():
                    path.unlink()  # an empty one of before
                os.link(new, path)
            except FileExistsError:
                pass  # another process was quicker
        finally:
            new.unlink(missing_ok=True)
        return path.read_text()


def place_of(folder: Path, key: str) -> str:
    """What tells this data folder from others, to drafts that wait in a browser. Made of the first secret key, and
    the same when that is lost."""
    path = folder / _PLACE
    with _said(folder):
        try:
            if kept := path.read_text().strip():
                return kept
        except FileNotFoundError:
            pass
        place = hashlib.blake2b(key.encode(), digest_size=6).hexdigest()
        new = path.with_name(f"{_PLACE}.{os.getpid()}")
        try:
            with open(os.open(new, os.O_CREAT | os.O_TRUNC | os.O_WRONLY, 0o600), "w") as file:
                file.write(place)
                file.flush()
                os.fsync(file.fileno())
            new.replace(path)
        finally:
            new.unlink(missing_ok=True)
    return place


def taken(folder: Path) -> int:
    """Takes the folder for this process until it ends, however it ends; the descriptor that holds it. ``DataTrouble`` where
    another server has it."""
    with _said(folder):
        held = os.open(folder / _LOCK, os.O_CREAT | os.O_RDWR | os.O_CLOEXEC, 0o600)
        try:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            process = os.pread(held, 20, 0).decode("ascii", "replace").strip()
            os.close(held)
            raise DataTrouble(
                f"Another server, process {process or 'unknown'}, has the data folder {folder}. End that one, or name"
                " another folder with STILEBLADE_DATA."
            ) from None
        os.ftruncate(held, 0)
        os.pwrite(held, f"{os.getpid()}\n".encode(), 0)
    return held


def days_of_backups(folder: Path) -> list[str]:
    """The days of which there are copies of the database, the newest first."""
    copies = (folder / BACKUPS).glob("stileblade-*.sqlite3")
    return sorted((p.stem.removeprefix("stileblade-") for p in copies), reverse=True)


def looked_over(folder: Path, known: set[tuple[str, str]]) -> None:
    """``DataTrouble`` where the database is broken, of a newer program, or cannot be written.

    ``known`` are the migrations (app, name) of this program.
    """
    path = folder / DATABASE
    with _said(folder):
        probe = folder / f".written-{os.getpid()}"
        try:
            probe.write_bytes(b"\0" * 4096)
        finally:
            probe.unlink(missing_ok=True)
        for file in folder.glob(f"{DATABASE}*"):  # the log and its index as well
            file.chmod(0o600)
        if not path.exists() or not path.stat().st_size:
            if copies := days_of_backups(folder):
                raise DataTrouble(
                    f"The database {path} is empty, but there is a copy of {copies[0]}. Bring it back with"
                    f" 'manage.py restore {copies[0]}', or move the folder 'backups' away to begin anew."
                )
            os.close(os.open(path, os.O_CREAT | os.O_WRONLY, 0o600))
            return
    try:
        with closing(sqlite3.connect(path, timeout=20)) as base:
            answer = base.execute("PRAGMA quick_check(1)").fetchone()[0]
            if answer != "ok":
                raise sqlite3.DatabaseError(answer)
            tables = {row[0] for row in base.execute("SELECT name FROM sqlite_master")}
            applied: set[tuple[str, str]] = set()
            if "django_migrations" in tables:
                applied = set(base.execute("SELECT app, name FROM django_migrations"))
    except sqlite3.OperationalError as error:
        raise DataTrouble(
            f"The database {path} cannot be opened: {error}. Mend that, or name another folder"
            " with STILEBLADE_DATA."
        ) from error
    except sqlite3.DatabaseError as error:
        raise DataTrouble(
            f"The database {path} is broken ({error}). It is left as it is: bring back a copy with"
            " 'manage.py restore', which lists the days that there are."
        ) from error
    apps = {app for app, _ in known}
    newer = sorted(f"{app} {name}" for app, name in applied - known if app in apps)
    if newer:
        raise DataTrouble(
            f"The database {path} was written by a newer version of this program ({newer[-1]})."
            " It is left as it is: start the newer version, or name another folder with"
            " STILEBLADE_DATA."
        )
