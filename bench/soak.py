"""``make soak``: a day's trouble in MINUTES=30. Eight people edit and save, two of them in two tabs of one design; others lay
out jobs, send files to the cutter, evaluate the worst documents, try passwords, and open connections that they
never use. Meanwhile workers and the server are killed, and the disk fills (a limit on file size; no disk is filled).

Three parts: people alone (their usual times), everything beside but no kills, and everything with kills. Printed in
the end: what was acknowledged and lost, runs that never ended, times beside against usual ones, memory and disk.

Exit status 1 where something acknowledged was lost, a run never ended, an answer was a failure of the program's own,
somebody's usual time more than doubled, or memory or disk kept growing.
"""

from __future__ import annotations

import os
import random
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from bench.soak_people import (
    KILL_EVERY,
    PEOPLE,
    ROOT,
    Cutter,
    Day,
    Editor,
    Guesser,
    Heavy,
    Layouts,
    Lingerer,
    Part,
    Person,
    Runs,
    Server,
)

GROWTH = 1.25
"""By so much memory and disk may be larger at the end than in the middle of a part."""


def make_accounts(data: Path, names: list[str]) -> None:
    code = (
        "from django.contrib.auth.models import User\n"
        f"for name in {names!r}: User.objects.create_user(name, password='paper-and-ink')\n"
    )
    environment = {**os.environ, "STILEBLADE_DATA": str(data), "STILEBLADE_DEMO": "0"}
    for words in (["migrate", "--verbosity", "0"], ["shell", "--verbosity", "0", "-c", code]):
        subprocess.run([sys.executable, "manage.py", *words], cwd=ROOT, env=environment, check=True)


def lost(editors: list[Editor]) -> int:
    """Acknowledged saves that are neither the newest version nor before it, and refused ones that were said to be kept
    and are not, of the newest twenty of each design."""
    count = 0
    for editor in editors:
        status, there = editor.ask("GET", f"/designs/{editor.design}")
        tab = "b" if editor.first is not None else "a"
        kept = [there["document"]["name"]] if status == 200 else []
        status, versions = editor.ask("GET", f"/designs/{editor.design}/versions")
        known = {v["kept"] for v in versions} if status == 200 else set()
        for number in sorted(known, reverse=True)[:60]:
            status, version = editor.ask("GET", f"/designs/{editor.design}/versions/{number}")
            if status == 200:
                kept.append(version["document"]["name"])
        newest = max((int(name[1:]) for name in kept if name[0] == tab), default=0)
        if newest < editor.acknowledged:
            print(f"  {editor.name}: {editor.acknowledged} acknowledged, {newest} kept")
            count += editor.acknowledged - newest
        tabs = [e for e in editors if e.design == editor.design]
        refused = sorted((n for e in tabs for n in e.refused), reverse=True)[:20]
        for number in refused if editor.first is None else ():
            if number not in known:
                print(f"  {editor.name}: the refused version {number} is not kept")
                count += 1
    return count


def percentile(values: list[float], share: float) -> float:
    return sorted(values)[int(share * (len(values) - 1))] if values else float("nan")


def chaos(server: Server, until: float) -> int:
    """Kills until then, and three times a full disk; how often that was."""
    chance, fills = random.Random(1), 0
    fill_at = [until - share * (until - time.monotonic()) for share in (0.8, 0.5, 0.2)]
    number = 0
    while time.monotonic() < until:
        time.sleep(KILL_EVERY)
        number += 1
        if fill_at and time.monotonic() > fill_at[0]:
            fill_at.pop(0)
            server.kill()  # starts again on a disk with hardly any room left
            server.start(most_bytes=server.disk() + 200_000)
            fills += 1
            time.sleep(3 * KILL_EVERY)
            server.kill()
            server.start()
        elif number % 6 == 0:
            server.kill()
            server.start()
        else:
            server.kill_a_worker(chance)
    return fills


def watched(measure: Callable[[], int], seconds: float) -> list[int]:
    """What was measured every two seconds."""
    found, until = [], time.monotonic() + seconds
    while time.monotonic() < until:
        found.append(measure())
        time.sleep(2)
    return found


def grown(values: list[int]) -> float:
    """The last fifth against the middle one."""
    fifth = max(1, len(values) // 5)
    middle = values[2 * fifth : 3 * fifth] or values
    return statistics.median(values[-fifth:]) / max(1.0, statistics.median(middle))


def soak(minutes: float) -> int:
    seconds = 60 * minutes
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder)
        names = [f"person{n}" for n in range(PEOPLE)]
        heavy = ["heavy0", "heavy1", "cutter0", "cutter1", "layouts"]
        make_accounts(data, names + heavy)
        server = Server(data)
        day = Day(server)
        editors = [Editor(day, name) for name in names]
        editors += [Editor(day, f"{e.name} in another tab", e) for e in editors[:2]]
        runs: list[Runs] = [Cutter(day, "cutter0"), Cutter(day, "cutter1"), Layouts(day, "layouts")]
        others: list[Person] = [Heavy(day, "heavy0"), Heavy(day, "heavy1")]
        others += [*runs, Guesser(day, "guesser"), Lingerer(day, "lingerer")]
        everybody: list[Person] = [*editors, *others]
        for person in everybody:
            person.start()
        time.sleep(min(20.0, seconds / 10))  # signed in, and warm
        day.times.clear()
        time.sleep(seconds * 0.1)
        day.part = Part.KILLS
        fills = chaos(server, time.monotonic() + seconds * 0.7)
        time.sleep(8)  # started again
        day.part = Part.BESIDE
        sizes: list[tuple[int, int]] = []
        watched(lambda: sizes.append((server.memory(), server.disk())) or 0, seconds * 0.2)  # type: ignore[func-returns-value]
        day.ended.set()
        for person in everybody:
            person.join(100)
        words = server.last_words()
        if words:
            print(
                f"the server has ended by itself (status {server.process and server.process.returncode}):\n{words}"
            )
        gone = lost(editors)
        endless = sum(run.never_ended() for run in runs)
        took = server.end()
        for text in server.tracebacks():
            print(text)
    return report(day, editors, runs, sizes, (gone, endless, fills, took), minutes)


def report(
    day: Day, editors: list[Editor], runs: list[Runs], sizes: list[tuple[int, int]],
    counts: tuple[int, int, int, float], minutes: float,
) -> int:  # fmt: skip
    """Prints all of it; 1 where something is not as it was promised."""
    gone, endless, fills, took = counts
    kills = day.server.kills
    print(
        f"{minutes:g} minutes, {kills['server']} kills of the server, {kills['worker']} of workers, {fills} full disks"
    )
    print(f"answers {dict(sorted(day.answers.items()))}")
    acknowledged = sum(e.acknowledged for e in editors)
    refused = sum(len(e.refused) for e in editors)
    print(
        f"saves tried {sum(e.tried for e in editors)}, the last acknowledged {acknowledged}, kept as refused {refused}, lost {gone}"
    )
    print(
        f"runs begun {sum(len(r.begun) for r in runs)}, never ended {endless}; ended by SIGTERM in {took:.1f} s"
    )
    failures = {a: n for a, n in day.answers.items() if a.split()[-1] in ("500", "501", "502")}
    slowed = False
    for what in ("save", "evaluate"):
        alone, beside = (day.times.get((what, p), []) for p in (Part.ALONE, Part.BESIDE))
        usual, now = percentile(alone, 0.5), percentile(beside, 0.5)
        # a twentieth of a second is nothing that anybody notices
        slowed |= now > max(2 * usual, usual + 0.05)
        print(
            f"{what}: alone {usual:.3f} s (p95 {percentile(alone, 0.95):.3f}), beside everything {now:.3f} s"
            f" (p95 {percentile(beside, 0.95):.3f}), {now / usual:.2f} times"
        )
    memory, disk = (grown([size[i] for size in sizes]) for i in (0, 1))
    print(
        f"memory {sizes[-1][0] / 1e6:.0f} MB, {memory:.2f} times the middle; disk {sizes[-1][1] / 1e6:.1f} MB,"
        f" {disk:.2f} times"
    )
    if failures:
        print(f"failures of the program's own: {failures}")
    bad = gone or endless or failures or slowed or memory > GROWTH or disk > GROWTH or took > 10
    return int(bool(bad))


if __name__ == "__main__":
    sys.exit(soak(float(sys.argv[1]) if len(sys.argv) > 1 else 30))
