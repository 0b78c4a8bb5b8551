"""The demo scenario: the cards of a small harbour museum's shop, for the demo designer."""

from __future__ import annotations

import json

from django.conf import settings

from server.accounts.people import demo_user
from server.designs import actions
from server.designs.models import Design
from server.shelf.actions import keep_outline, papers_of
from stileblade.build.document import DrawnOutline, load_design


def load_demo() -> int:
    """The demo designs and their outlines, if there are none yet; how many were loaded."""
    user = demo_user()
    papers_of(user)
    if Design.objects.filter(owner=user).exists():
        return 0
    paths = sorted((settings.BASE_DIR / "demo" / "designs").glob("*.json"), reverse=True)
    kept: set[str] = set()
    for path in paths:
        data = json.loads(path.read_text())
        actions.create(user, data)
        for key, drawn in load_design(data).outlines.items():
            if key not in kept:
                keep_outline(user, DrawnOutline(name=drawn.name, path=drawn.path, rule=drawn.rule))
                kept.add(key)
    return len(paths)
