"""``make bench``: figures of one run, to be compared within it and not with other machines."""

from __future__ import annotations

from bench import browser, evaluation, folding, geometry, reading

if __name__ == "__main__":
    geometry.report()
    print()
    evaluation.report()
    print()
    folding.report()
    print()
    reading.report()
    print()
    browser.report()
