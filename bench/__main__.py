"""``make bench``: figures of one run, to be compared within it and not with other machines."""

from __future__ import annotations

from bench import (
    aims,
    browser,
    evaluation,
    folding,
    geometry,
    judging,
    nesting,
    reading,
    starting,
    whole,
)

if __name__ == "__main__":
    starting.report()
    print()
    geometry.report()
    print()
    evaluation.report()
    print()
    folding.report()
    print()
    whole.report()
    print()
    nesting.report()
    print()
    judging.report()
    print()
    aims.report()
    print()
    reading.report()
    print()
    browser.report()
