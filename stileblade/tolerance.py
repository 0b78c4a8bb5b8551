"""Every tolerance of the geometry, in one place, each with its reason. Lengths in mm."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Tolerance:
    grid: float = 2.0**-20
    """Vertices handed to the kernel are rounded to this: about a nanometre, and exact in binary,
    so that a vertex that comes back from the kernel is found again by equality."""

    reach: float = 2047.0
    """Largest coordinate: two rounded coordinates must fit one 64-bit key."""

    flatten: float = 0.004
    """Largest distance of a flattened edge from its curve. The kernel only decides what meets
    what; the curves come back by tracing, so this bounds what tiny crossings may be missed."""

    flatten_strokes: float = 0.016
    """The same for ways that a pen runs along: they are far more than outlines are, and what
    their sides meet within this lies in the width of the pen."""

    conode: float = 1e-3
    """A corner this close to another outline's edge lies on it."""

    on_edge: float = 5e-5
    """How far a crossing computed by the kernel may lie from the edge it came from."""

    crossing: float = 0.05
    """Refining a crossing on the true curves may move it by this; more, and it is a touch."""

    grazing: float = 1.0
    """The same along a line that meets an outline at a flat angle."""

    leftover: float = 0.02
    """Shorter pieces that a cut leaves of a segment are taken away."""

    coincident: float = 3e-3
    """Two curves that stay this close along a run are taken for one."""

    sliver: float = 0.01
    """A ring with a smaller mean width is no paper and no opening."""

    shaving: float = 0.05
    """Nor is one with a smaller mean width than this if it is no larger than ``shaving_area``."""

    shaving_area: float = 0.1
    """mm^2."""

    straight: float = 4e-6
    """Two lines that join with the corner this near to their chord are one line."""

    fit: float = 0.008
    """Fitted parallel curves stay this close to the true ones."""

    longer: float = 1e-3
    """Curves that stand for many short ones stay this close to them."""

    on_circle: float = 1e-3
    """An arc whose end is off its circle by more is none."""

    one_place: float = 0.004
    """Ends of neighbours' parallels this close are one place: the source's joint is smooth but for
    rounding."""

    point: float = 1e-4
    """A parallel whose ends are this close is a point."""

    gap: float = 0.01
    """Two runs of an offset whose corner is off their curves by more are bridged."""

    moved: float = 0.01
    """A joint that a search has moved farther from the kernel's own corner is looked at again."""

    on_curve: float = 0.006
    """A place of the kernel's polygon this near to a curve is on it: its own flattening, and a
    little."""

    aside: float = 1e4
    """Outlines that are looked up together lie this far apart: further than any reaches."""

    touch: float = 0.02
    """What lies this near the table or the fold touches it."""


TOLERANCE = Tolerance()
