"""``make soak``: eight people edit and save at random for ten minutes, while one of them sends the
worst documents, the server is killed and started again, and its disk fills (a limit on file size,
no disk is filled). Printed in the end: what was acknowledged, lost, torn, how long saves took, and how
long evaluations of ordinary cards took beside a heavy one and without it.

Exit status 1 where an acknowledged save was lost, or an ordinary card took more than twice as long.
"""

from __future__ import annotations

import http.cookiejar
import json
import os
import random
import resource
import signal
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from pathlib import Path
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.request import HTTPCookieProcessor, Request, build_opener

from tests.attack.documents import DOCUMENTS
from tests.conftest import design_of

ROOT = Path(__file__).resolve().parents[1]
PEOPLE = 8
SAVES_A_SECOND = 20.0
PHASE = 25.0
"""Seconds between one event and the next."""


def free_port() -> int:
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


class Server:
    """The application, killed and started again on the same port and data."""

    def __init__(self, data: Path) -> None:
        self.data, self.port = data, free_port()
        self.process: subprocess.Popen[bytes] | None = None
        self.start()

    def start(self, most_bytes: int | None = None) -> None:
        def limit() -> None:
            signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
            if most_bytes is not None:
                resource.setrlimit(resource.RLIMIT_FSIZE, (most_bytes, most_bytes))

        self.process = subprocess.Popen(
            [sys.executable, "manage.py", "serve", "--port", str(self.port)],
            cwd=ROOT,
            env={**os.environ, "STILEBLADE_DATA": str(self.data), "STILEBLADE_DEMO": "0"},
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            preexec_fn=limit,
        )

    def kill(self) -> None:
        assert self.process
        self.process.kill()
        self.process.wait()

    def end(self) -> None:
        assert self.process
        self.process.terminate()
        self.process.wait(30)


class Person(threading.Thread):
    """Saves a design of its own with a count in its name, and evaluates it."""

    def __init__(
        self, number: int, port: int, ended: threading.Event, heavy: threading.Event
    ) -> None:
        super().__init__(daemon=True)
        self.number, self.port, self.ended, self.heavy = number, port, ended, heavy
        self.lots = random.Random(number)
        self.acknowledged = 0
        self.tried = 0
        self.answers: Counter[str] = Counter()
        self.saves: list[float] = []
        self.evaluations: dict[bool, list[float]] = {False: [], True: []}
        self.design = self.revision = 0
        jar = http.cookiejar.CookieJar()
        self.jar, self.opener = jar, build_opener(HTTPCookieProcessor(jar))

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        token = next((c.value for c in self.jar if c.name == "csrftoken"), "") or ""
        request = Request(
            f"http://127.0.0.1:{self.port}/api{path}",
            data=None if body is None else json.dumps(body).encode(),
            method=method,
            headers={"Content-Type": "application/json", "X-CSRFToken": token},
        )
        try:
            with self.opener.open(request, timeout=60) as answer:
                return answer.status, json.loads(answer.read())
        except HTTPError as error:
            return error.code, None
        except (URLError, OSError, ValueError):
            return 0, None

    def signed_in(self) -> None:
        while not self.ended.is_set():
            self.ask("GET", "/session")
            wish = {"name": f"person{self.number}", "password": "paper-and-ink"}
            if self.ask("POST", "/session", wish)[0] == 200:
                return
            time.sleep(0.5)

    def document(self, name: str) -> Any:
        size = round(self.lots.uniform(10, 60), 1)
        window = {"kind": "window", "id": "w", "outline": {"kind": "circle", "diameter": size}}
        data = design_of({"kind": "blank", "id": "a"}, window).model_dump(mode="json")
        return {**data, "name": name}

    def run(self) -> None:
        self.signed_in()
        while not self.design and not self.ended.is_set():
            status, made = self.ask("POST", "/designs", {"document": self.document("0")})
            if status == 200:
                self.design, self.revision = made["id"], made["revision"]
        while not self.ended.is_set():
            self.edit()
            time.sleep(self.lots.expovariate(SAVES_A_SECOND / PEOPLE))

    def edit(self) -> None:
        self.tried += 1
        document = self.document(str(self.tried))
        began = time.monotonic()
        body = {"document": document, "revision": self.revision}
        status, saved = self.ask("PUT", f"/designs/{self.design}", body)
        self.answers[f"save {status}"] += 1
        if status == 200:
            self.saves.append(time.monotonic() - began)
            self.acknowledged, self.revision = self.tried, saved["revision"]
        elif status == 409 or status == 0:  # an answer was lost: go on from what is there
            status, there = self.ask("GET", f"/designs/{self.design}")
            if status == 200:
                self.revision = there["revision"]
        if self.lots.random() < 0.3:
            heavy = self.heavy.is_set()
            began = time.monotonic()
            status, _ = self.ask("POST", "/evaluate", {"document": document, "piece": "base"})
            self.answers[f"evaluate {status}"] += 1
            if status == 200 and heavy == self.heavy.is_set():
                self.evaluations[heavy].append(time.monotonic() - began)


class Heavy(Person):
    """Sends the worst documents while the event is set."""

    def run(self) -> None:
        self.signed_in()
        names = list(DOCUMENTS)
        while not self.ended.is_set():
            if not self.heavy.wait(0.5):
                continue
            document = DOCUMENTS[self.lots.choice(names)]()
            status, _ = self.ask("POST", "/evaluate", {"document": document, "piece": "base"})
            self.answers[f"evaluate {status}"] += 1


def accounts(data: Path) -> None:
    names = [f"person{n}" for n in range(PEOPLE + 1)]
    code = (
        "from django.contrib.auth.models import User\n"
        f"for name in {names!r}: User.objects.create_user(name, password='paper-and-ink')\n"
    )
    environment = {**os.environ, "STILEBLADE_DATA": str(data), "STILEBLADE_DEMO": "0"}
    for words in (["migrate", "--verbosity", "0"], ["shell", "--verbosity", "0", "-c", code]):
        subprocess.run([sys.executable, "manage.py", *words], cwd=ROOT, env=environment, check=True)


def lost(people: list[Person]) -> int:
    """Acknowledged saves that are not there, neither as the newest version nor after it."""
    count = 0
    for person in people:
        status, there = person.ask("GET", f"/designs/{person.design}")
        kept = int(there["document"]["name"]) if status == 200 else -1
        if kept < person.acknowledged:
            print(f"  person {person.number}: {person.acknowledged} acknowledged, {kept} kept")
            count += person.acknowledged - kept
    return count


def percentile(values: list[float], share: float) -> float:
    return sorted(values)[int(share * (len(values) - 1))] if values else float("nan")


def soak(minutes: float) -> int:
    kills = fills = 0
    ended, heavy = threading.Event(), threading.Event()
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        accounts(data)
        server = Server(data)
        people = [Person(n, server.port, ended, heavy) for n in range(PEOPLE)]
        worst = Heavy(PEOPLE, server.port, ended, heavy)
        for person in (*people, worst):
            person.start()
        until = time.monotonic() + minutes * 60
        events = 0
        while time.monotonic() < until:
            time.sleep(PHASE)
            events += 1
            if events % 4 == 0:
                server.kill()
                kills += 1
                server.start()
            elif events % 4 == 2:
                server.kill()  # starts again on a disk with hardly any room left
                largest = max(p.stat().st_size for p in data.glob("stileblade.sqlite3*"))
                server.start(most_bytes=largest + 200_000)
                fills += 1
                time.sleep(PHASE / 2)
                server.kill()
                server.start()
            elif heavy.is_set():
                heavy.clear()
            else:
                heavy.set()
        heavy.clear()
        time.sleep(3)
        ended.set()
        for person in (*people, worst):
            person.join(90)
        while people[0].ask("GET", "/session")[0] != 200:  # it may have been killed just now
            time.sleep(0.5)
        gone = lost(people)
        server.end()
    answers: Counter[str] = sum((p.answers for p in people), Counter())
    saves = [s for p in people for s in p.saves]
    quiet, beside = ([e for p in people for e in p.evaluations[h]] for h in (False, True))
    print(f"{minutes:g} minutes, {kills} kills, {fills} times a full disk")
    print(f"answers {dict(sorted(answers.items()))}, the heavy one {dict(worst.answers)}")
    print(f"saves acknowledged {len(saves)}, lost {gone}")
    print(f"  median {statistics.median(saves):.3f} s, p95 {percentile(saves, 0.95):.3f} s")
    print(
        f"evaluations alone: median {percentile(quiet, 0.5):.3f}, p95 {percentile(quiet, 0.95):.3f} s"
    )
    print(
        f"  beside the worst: {percentile(beside, 0.5):.3f}, p95 {percentile(beside, 0.95):.3f} s"
    )
    slowed = percentile(beside, 0.5) > 2 * percentile(quiet, 0.5) if quiet and beside else False
    return int(gone > 0 or slowed)


if __name__ == "__main__":
    sys.exit(soak(float(sys.argv[1]) if len(sys.argv) > 1 else 10))
