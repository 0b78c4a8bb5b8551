"""The server and the people of ``make soak``: those who edit, and those whose work weighs on the server."""

from __future__ import annotations

import http.cookiejar
import json
import os
import random
import resource
import signal
import socket
import subprocess
import sys
import threading
import time
from collections import Counter
from enum import Enum
from http.client import HTTPException
from pathlib import Path
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.request import HTTPCookieProcessor, Request, build_opener

from tests.attack.documents import DOCUMENTS
from tests.conftest import design_of

ROOT = Path(__file__).resolve().parents[1]
PEOPLE = 8
SAVES_A_SECOND = 8.0
KILL_EVERY = 2.8
"""Seconds; of six kills one is the server's."""
FAR = (
    b"IN;SP1;PU0,0;PD"
    + b",".join(b"%d,%d" % (i % 2 * 12800, i * 20) for i in range(1100))
    + b";PU;SP0;"
)
NEAR = b"IN;SP1;PU400,400;PD2400,400,2400,2400,400,2400,400,400;PU;SP0;"


class Part(Enum):
    ALONE = "alone"
    BESIDE = "beside everything"
    KILLS = "with kills"


def free_port() -> int:
    """Not one of those that are given to connections: somebody who knocks while the server is down could be
    given its own port, be connected with themselves, and hold it."""
    for port in range(20000, 30000):
        with socket.socket() as found:
            try:
                found.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port
    raise OSError("no port is free")


class Server:
    """The application, killed and started again on the same port and data."""

    def __init__(self, data: Path) -> None:
        self.data, self.port = data, free_port()
        self.process: subprocess.Popen[bytes] | None = None
        self.kills: Counter[str] = Counter()
        self.start()

    def start(self, most_bytes: int | None = None) -> None:
        def limit() -> None:
            signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
            if most_bytes is not None:
                resource.setrlimit(resource.RLIMIT_FSIZE, (most_bytes, most_bytes))

        with self.log.open("ab") as log:
            self.process = subprocess.Popen(
                [sys.executable, "manage.py", "serve", "--port", str(self.port)],
                cwd=ROOT,
                env={**os.environ, "STILEBLADE_DATA": str(self.data), "STILEBLADE_DEMO": "0"},
                stdout=subprocess.DEVNULL,
                stderr=log,
                preexec_fn=limit,
            )

    @property
    def log(self) -> Path:
        return self.data / "server.log"

    def tracebacks(self) -> list[str]:
        """What went wrong in it, each kind once: the last lines of its tracebacks."""
        found: dict[str, None] = {}
        parts = self.log.read_text("utf-8", "replace").split("Traceback (most recent call last):")
        for part in parts[1:]:
            lines = [line for line in part.splitlines() if line.strip()]
            ended = next((i for i, line in enumerate(lines) if not line.startswith(" ")), 0)
            found["\n".join(lines[max(0, ended - 4) : ended + 1])] = None
        return list(found)

    def last_words(self) -> str:
        """The end of what it said when it ended by itself; nothing where it runs."""
        if self.process is None or self.process.poll() is None:
            return ""
        return "\n".join(self.log.read_text("utf-8", "replace").splitlines()[-12:])

    def kill(self) -> None:
        assert self.process
        self.process.kill()
        self.process.wait()
        self.kills["server"] += 1

    def processes(self) -> list[int]:
        """The server's own and all that it has begun, workers and runs among them."""
        assert self.process
        found = [self.process.pid]
        for number in found:
            path = Path(f"/proc/{number}/task/{number}/children")
            try:
                found += [int(child) for child in path.read_text().split()]
            except OSError:
                continue
        return found

    def kill_a_worker(self, chance: random.Random) -> None:
        workers = self.processes()[1:]
        if not workers:
            return
        try:
            os.kill(chance.choice(workers), signal.SIGKILL)
            self.kills["worker"] += 1
        except ProcessLookupError:
            pass

    def memory(self) -> int:
        """Bytes that its processes have to themselves."""
        total = 0
        for number in self.processes():
            try:
                rollup = Path(f"/proc/{number}/smaps_rollup").read_text()
            except OSError:
                continue
            lines = (line.split() for line in rollup.splitlines())
            total += sum(int(li[1]) * 1024 for li in lines if li[0].startswith("Private_"))
        return total

    def disk(self) -> int:
        return sum(path.stat().st_size for path in self.data.glob("stileblade.sqlite3*"))

    def end(self) -> float:
        """Seconds until it had ended."""
        assert self.process
        began = time.monotonic()
        self.process.terminate()
        self.process.wait(30)
        return time.monotonic() - began


class Day:
    """What everybody has in common."""

    def __init__(self, server: Server) -> None:
        self.server = server
        self.part = Part.ALONE
        self.ended = threading.Event()
        self.answers: Counter[str] = Counter()
        self.times: dict[tuple[str, Part], list[float]] = {}
        self._guard = threading.Lock()

    def note(self, what: str, status: int, seconds: float, part: Part) -> None:
        with self._guard:
            self.answers[f"{what} {status}"] += 1
            if status == 200 and part is self.part:
                self.times.setdefault((what, part), []).append(seconds)


class Person(threading.Thread):
    """Signed in by name, with a session of their own."""

    def __init__(self, day: Day, name: str) -> None:
        super().__init__(daemon=True, name=name)
        self.day, self.chance = day, random.Random(name)
        self._jar = http.cookiejar.CookieJar()
        self._opener = build_opener(HTTPCookieProcessor(self._jar))

    def ask(
        self, method: str, path: str, body: Any = None, *, what: str = "", form: bytes | None = None
    ) -> tuple[int, Any]:
        token = next((c.value for c in self._jar if c.name == "csrftoken"), "") or ""
        kind = "multipart/form-data; boundary=soak" if form else "application/json"
        sent = form if form else None if body is None else json.dumps(body).encode()
        request = Request(
            f"http://127.0.0.1:{self.day.server.port}/api{path}",
            data=sent,
            method=method,
            headers={"Content-Type": kind, "X-CSRFToken": token},
        )
        part, began = self.day.part, time.monotonic()
        status, answer = self._answer(request)
        if what:
            self.day.note(what, status, time.monotonic() - began, part)
        return status, answer

    def _answer(self, request: Request) -> tuple[int, Any]:
        try:
            with self._opener.open(request, timeout=90) as answer:
                return answer.status, json.loads(answer.read())
        except HTTPError as error:
            try:
                return error.code, json.loads(error.read())
            except (ValueError, OSError, HTTPException):
                return error.code, None
        except (URLError, OSError, ValueError, HTTPException):
            time.sleep(0.1)  # the server is being started
            return 0, None

    def sign_in(self) -> None:
        while not self.day.ended.is_set():
            self.ask("GET", "/session")
            wish = {"name": self.name, "password": "paper-and-ink"}
            if self.ask("POST", "/session", wish)[0] == 200:
                return
            time.sleep(0.5)

    def run(self) -> None:
        self.sign_in()
        self.prepare()
        while not self.day.ended.is_set():
            self.act()

    def prepare(self) -> None:
        """What is done once."""

    def act(self) -> None:
        raise NotImplementedError

    def until(self, method: str, path: str, body: Any) -> Any:
        """The answer, asked for again until there is one."""
        while not self.day.ended.is_set():
            status, answer = self.ask(method, path, body)
            if status == 200:
                return answer
            time.sleep(0.5)
        return None


class Editor(Person):
    """Saves a design with a count in its name, and evaluates it. Two tabs of one design share its number, and each
    goes on from what the other saved."""

    def __init__(self, day: Day, name: str, first: Editor | None = None) -> None:
        super().__init__(day, name)
        self.first = first
        self.design = self.revision = 0
        self.tried = self.acknowledged = 0
        self.refused: dict[int, str] = {}

    def document(self, name: str) -> Any:
        size = round(self.chance.uniform(10, 60), 1)
        window = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": size}}
        data = design_of({"kind": "blank", "id": "a"}, window).model_dump(mode="json")
        return {**data, "name": name}

    def sign_in(self) -> None:
        if self.first is not None:  # the same person in another tab
            while not self.first.design and not self.day.ended.is_set():
                time.sleep(0.1)
            self._jar, self._opener = self.first._jar, self.first._opener
            return
        super().sign_in()

    def prepare(self) -> None:
        if self.first is not None:
            self.design = self.first.design
            return
        made = self.until("POST", "/designs", {"document": self.document("0")})
        if made:
            self.design, self.revision = made["id"], made["revision"]

    def act(self) -> None:
        self.tried += 1
        tab = "b" if self.first is not None else "a"
        document = self.document(f"{tab}{self.tried}")
        body = {"document": document, "revision": self.revision}
        status, saved = self.ask("PUT", f"/designs/{self.design}", body, what="save")
        if status == 200:
            self.acknowledged, self.revision = self.tried, saved["revision"]
        elif status == 409:
            self.revision = saved["revision"]
            self.refused[saved["kept"]] = document["name"]
        elif status == 0:  # an answer was lost: go on from what is there
            status, there = self.ask("GET", f"/designs/{self.design}")
            if status == 200:
                self.revision = there["revision"]
        if self.chance.random() < 0.3:
            wish = {"document": document, "piece": "base"}
            self.ask("POST", "/evaluate", wish, what="evaluate")
        time.sleep(self.chance.expovariate(SAVES_A_SECOND / PEOPLE))


class Beside(Person):
    """Somebody whose work weighs on the server, except while people are alone."""

    def act(self) -> None:
        if self.day.part is Part.ALONE:
            time.sleep(0.2)
        else:
            self.weigh()

    def weigh(self) -> None:
        raise NotImplementedError


class Heavy(Beside):
    """Has the worst documents evaluated, and everything else computed of them that takes long."""

    def weigh(self) -> None:
        document = DOCUMENTS[self.chance.choice(list(DOCUMENTS))]()
        route, more = self.chance.choice(
            [
                ("/evaluate", {"piece": "base"}),
                ("/offers", {}),
                ("/joins", {"piece": "base", "loss": 5}),
                ("/figures", {"piece": "base"}),
                ("/aim", {"piece": "base", "figure": "closed.width", "target": 90}),
            ]
        )
        self.ask("POST", route, {"document": document, **more}, what=f"heavy {route}")


class Runs(Beside):
    """Begins runs and waits for them; those that are still going on when it ends are looked at then."""

    def __init__(self, day: Day, name: str) -> None:
        super().__init__(day, name)
        self.begun: list[int] = []

    def wait(self, status: int, run: Any, seconds: float) -> None:
        if status != 200:
            time.sleep(1)
            return
        self.begun.append(run["id"])
        until = time.monotonic() + seconds
        while time.monotonic() < until and not self.day.ended.is_set():
            status, seen = self.ask("GET", f"/runs/{run['id']}")
            if status == 404 or (status == 200 and seen["state"] in ("done", "failed")):
                self.day.note("run ended", status, 0.0, self.day.part)
                return
            time.sleep(0.3)

    def never_ended(self) -> int:
        """Of its last runs (older ones are not kept), how many are not done after a while."""
        left = set(self.begun[-10:])
        until = time.monotonic() + 90
        while left and time.monotonic() < until:
            for number in list(left):
                status, seen = self.ask("GET", f"/runs/{number}")
                if status == 404 or (status == 200 and seen["state"] in ("done", "failed")):
                    left.discard(number)
            time.sleep(0.5)
        return len(left)


class Cutter(Runs):
    """Sends files to the cutter: every third one is heavy, with a worn blade."""

    def weigh(self) -> None:
        heavy = self.chance.random() < 0.3
        head = '--soak\r\nContent-Disposition: form-data; name="file"; filename="a.plt"\r\n\r\n'
        content = FAR if heavy else NEAR
        form = head.encode() + content + b"\r\n--soak--\r\n"
        self.wait(*self.ask("POST", "/cut-file", form=form, what="send"), seconds=60)
        if heavy and self.begun:
            wish = {"sheet": 0, "of_run": self.begun[-1], "conditions": {"worn": 1}}
            self.wait(*self.ask("POST", "/jobs/1/cut", wish, what="cut again"), seconds=60)


class Layouts(Runs):
    """Lays a job out, again and again."""

    job = 0

    def prepare(self) -> None:
        data = design_of({"kind": "blank", "id": "a"}).model_dump(mode="json")
        made = self.until("POST", "/designs", {"document": data})
        if made:
            wish = {"name": "Shop", "designs": [{"design": made["id"], "count": 12}]}
            self.job = self.until("POST", "/jobs", wish)["id"]

    def weigh(self) -> None:
        self.wait(*self.ask("POST", f"/jobs/{self.job}/lay", {}, what="lay"), seconds=60)


class Guesser(Beside):
    """Tries passwords without an account, ten at once."""

    def sign_in(self) -> None:
        self.until("GET", "/session", None)

    def weigh(self) -> None:
        guesses = [threading.Thread(target=self.guess) for _ in range(10)]
        for guess in guesses:
            guess.start()
        for guess in guesses:
            guess.join()
        time.sleep(0.5)

    def guess(self) -> None:
        name = f"nobody{self.chance.randrange(10**6)}"
        self.ask("POST", "/session", {"name": name, "password": "guess"}, what="guess")


class Lingerer(Beside):
    """Keeps two hundred connections open on which no request is ever whole."""

    def __init__(self, day: Day, name: str) -> None:
        super().__init__(day, name)
        self._open: list[socket.socket] = []

    def sign_in(self) -> None:
        pass

    def weigh(self) -> None:
        try:
            one = socket.create_connection(
                ("127.0.0.1", self.day.server.port), timeout=5, source_address=("127.0.0.7", 0)
            )
            one.sendall(b"POST /api/designs HTTP/1.1\r\nContent-Length: 5000\r\n\r\n{")
            self._open.append(one)
        except OSError:
            time.sleep(0.5)
        while len(self._open) > 200:
            self._open.pop(0).close()
        time.sleep(0.05)
