"""What people say finds the step that they mean, with the figures that they say."""

from __future__ import annotations

import pytest

from stileblade.design.document import Design
from stileblade.steps.said_values import LONGEST
from stileblade.steps.searching import search
from stileblade.steps.step import STEPS, Step
from stileblade.units import Unit

assert Design  # all kinds of steps are known

SAID = """
bigger: fit | enlarge: fit | make it larger: fit | scale it down: fit | resize to 90 mm: fit | stretch it wider: fit
width 100: fit | 5 mm bigger: grow | grow 4 mm: grow | make it 3mm thicker: grow | offset: grow | outset 2: grow
shrink the outline: grow | surround: grow | margin round the shape: grow | border round the figure 3 mm: grow
round opening: window | circle: window | oval: window | arch: window | heart: window | star: window
square window: window | hole: window | opening: window | cut a hole in the front: window | porthole: window
peephole: window | aperture 60 mm: window | oval window: window | cutout: window | see through: window
crop: slice | trim: slice | straight bottom: slice | flat foot: slice | cut off the top: slice | trim the foot: slice
flatten the bottom: slice | chop off the tip: slice | level: slice | shorten it: slice
emboss line: border-line | stitch: border-line | stitched line: border-line | dashed line: border-line
sewing: border-line | border: border-line|grow | frame: border-line|window | thread holes: border-line
dotted border: border-line | embossed frame: border-line | line around the edge: border-line
pricked holes: border-line | sew round the window: border-line
pocket: slot-ladder|window|lock|weld | lock: lock | keep it shut: lock | closure: lock | tuck flap: lock | latch: lock
pop up: forward-step | popup box: forward-step | stage: forward-step | box standing forward: forward-step
stand: standing-figure | figure standing up: standing-figure | cut half round and fold up: standing-figure
hole for ribbon: hang-hole | hang it up: hang-hole | eyelet: hang-hole | punch hole: hang-hole | hook: hang-hole
string hole: hang-hole
corner: soften | rounded corners: soften | round corners 5 mm: soften | smooth the corners: soften
no sharp corners: soften | radius 3: soften
wavy: shaped-edge | torn: shaped-edge | torn edge: shaped-edge | scallops: shaped-edge | scalloped edge: shaped-edge
zigzag: shaped-edge | deckle edge: shaped-edge | waves along the bottom: shaped-edge | lace edge: shaped-edge
fancy border edge: shaped-edge
letter: lettering | handwriting: lettering | write text: lettering | greeting: lettering | name: lettering
happy birthday: lettering | pen text: lettering | date: lettering | sign with pen: lettering
mirror: mirror | double it: mirror | make it a card: mirror | fold along the left side: mirror | weld to its copy: mirror
reflect: mirror | two halves: mirror | lap 8: mirror | hinge 30 mm: mirror|tab
score line: fold-line | fold here: fold-line | perforated line: fold-line | tear off strip: fold-line
coupon: fold-line | diagonal fold: fold-line | score at 45 degrees: fold-line | fold in the middle: fold-line
double score: crease | spine: crease | make the fold perforated: crease
join a shape: weld | add a shape: weld | merge: weld | attach a tail: weld | unite: weld | weld: weld
glue shapes together: weld
notch: cut-away | bite out of the edge: cut-away | subtract: cut-away | thumb notch: cut-away
close holes: fill | fill the openings: fill | remove tiny holes: fill | outer outline alone: fill
flip: flip | reverse: flip | other way round: flip | upside down: flip | left for right: flip
rotate: turn | tilt: turn | turn 30: turn | lean by 5 degrees: turn | straighten: turn
stencil: stencil | cut out a word: stencil | bridges: stencil | letters that do not fall out: stencil
bars: grille | lantern: grille | crossed bars: grille | ship's wheel: grille | spokes: grille
slits: slot-ladder | row of slots: slot-ladder | column of 8 slots: slot-ladder
stick out over the edge: overhang | peek over the edge: overhang | stand out beyond the edge: overhang
split: split | cut in two: split | separate: split | two pieces: split
halves fall apart: tab | join the halves: tab | hinge tab: tab | more hinge: tab
beak: v-fold | mouth: v-fold | v fold 45 deg: v-fold
sketch: drawn-figure | draw a shape with a pen: drawn-figure | score a shape: drawn-figure
show through the window: seen-through | line up with the window: seen-through
crease the layer: at-folds | front cut to a shape: stencil-edge | panel ends in a shape: stencil-edge
"""
"""What is said, and the step that is meant, or steps where either would do."""

ELSEWHERE = """
hugely larger: fit | widen it: fit | enlarging: fit | scaling: fit | blown up to 120 mm: fit
circular opening: window | heart shaped hole: window | elliptical window: window | windwo: window | arched window: window
triangular cutout: window | starfish hole: window
trimming: slice | cropped: slice | straigt bottom: slice | chopping the foot: slice
stiched line: border-line | embossing: border-line | sewin lines: border-line | dashes: border-line
roundd corners: soften | softer corners: soften | rounder corners: soften
scalopped edge: shaped-edge | waviness: shaped-edge | ripping edges: shaped-edge | zig zag edge: shaped-edge
rotating: turn | tilted: turn | rotation of 12 degrees: turn
mirroring: mirror | doubled: mirror | mirrord: mirror
flipping: flip | reversed: flip
perforating line: fold-line | scored diagonally: fold-line
welding on a tail: weld | joined shape: weld | merging: weld
notched: cut-away | closing holes: fill | grilles: grille | letterin: lettering | stenciled word: stencil
overhanging figure: overhang | splitting: split
"""
"""Said in words that stand in no step's file: other forms, other spellings, other words beside."""


def table(text: str) -> list[tuple[str, set[str]]]:
    rows = [row.rsplit(":", 1) for row in text.replace(" | ", "\n").strip().splitlines()]
    return [(said.strip(), set(kinds.strip().split("|"))) for said, kinds in rows]


def missed(rows: list[tuple[str, set[str]]]) -> list[str]:
    """Of a piece that is begun, so without what begins one."""
    found = []
    for said, kinds in rows:
        hits = [h.kind for h in search(said) if STEPS[h.kind].starts_with is None]
        if not hits or hits[0] not in kinds:
            found.append(f"{said}: {hits[:2]}, meant was {kinds}")
    return found


def test_what_people_say_finds_the_step_first() -> None:
    rows = table(SAID)
    assert len(rows) >= 150
    assert len(missed(rows)) <= len(rows) - 140 * len(rows) / 150, missed(rows)


def test_and_so_does_what_is_in_no_file() -> None:
    rows = table(ELSEWHERE)
    files = {w for k in STEPS for w in " ".join((k.title, k.words, *k.sayings)).lower().split()}
    assert len(rows) >= 40
    assert all(set(said.split()) - files for said, _ in rows)
    assert len(missed(rows)) <= 2, missed(rows)


def first(text: str, unit: Unit = Unit.MM) -> tuple[str, dict[str, object]]:
    hit = next(h for h in search(text, unit) if STEPS[h.kind].starts_with is None)
    return hit.kind, dict(hit.values)


@pytest.mark.parametrize(
    ("said", "kind", "values"),
    [
        ("grow 4 mm", "grow", {"margin": 4.0}),
        ("mirror to the left lap 5", "mirror", {"towards": "left", "lap": 5.0}),
        ("turn 30", "turn", {"angle": 30.0}),
        ("score line at 1/4 in", "fold-line", {"distance": 6.35}),
        ("score line at 1 1/2 in", "fold-line", {"distance": 38.1}),
        ("round corners 5,5 mm", "soften", {"radius": 5.5}),
        ("8 slots", "slot-ladder", {"count": 8}),
        ("v fold 45 degrees", "v-fold", {"angle": 45.0}),
    ],
)
def test_figures_are_put_as_values(said: str, kind: str, values: dict[str, object]) -> None:
    assert first(said) == (kind, values)


def test_a_figure_is_taken_with_its_size() -> None:
    assert first("round window 60") == (
        "window",
        {"outline": {"kind": "circle", "diameter": 60.0}},
    )
    kind, values = first("heart window 2 in")
    assert kind == "window"
    assert values["outline"] == {"kind": "heart", "width": 50.8, "height": 46.45}
    kind, values = first("window 60 x 40")
    assert kind == "window"
    outline = values["outline"]
    assert isinstance(outline, dict)
    assert (outline["kind"], outline["width"], outline["height"]) == ("rectangle", 60.0, 40.0)


def test_a_figure_without_a_unit_is_in_the_units_of_the_design() -> None:
    assert first("grow 1/4", Unit.IN) == ("grow", {"margin": 6.35})


def test_in_is_an_inch_only_where_it_can_be() -> None:
    assert first("round window 60 in the front")[1] == {
        "outline": {"kind": "circle", "diameter": 60}
    }
    assert first("2 in round window")[1] == {"outline": {"kind": "circle", "diameter": 50.8}}
    assert first("border for the A6 card") == ("border-line", {})


def test_a_figure_that_cannot_be_is_left_out() -> None:
    """A radius is above 0 and at most 100; what else was said stays."""
    assert first("stitched line 5000 mm") == ("border-line", {"how": "stitch"})
    assert first("radius 0") == ("soften", {})
    assert first("round corners 5000 mm") == ("soften", {})


@pytest.mark.parametrize("kind", list(STEPS), ids=lambda k: k.__name__)
def test_steps_name_values_that_they_have(kind: type[Step]) -> None:
    assert set(kind.takes) <= kind.model_fields.keys()


@pytest.mark.parametrize("kind", list(STEPS), ids=lambda k: k.__name__)
def test_each_step_is_found_by_its_title_and_its_own_sayings(kind: type[Step]) -> None:
    name = kind.model_fields["kind"].default
    for said in (kind.title, *kind.sayings):
        hits = [h.kind for h in search(said) if STEPS[h.kind].starts_with == kind.starts_with]
        assert name in hits[:2], said
    assert kind.sayings


@pytest.mark.parametrize(
    "said", ["", " ", "the", "9" * 500, "a " * 500, "ЖЖЖ", "1/0 mm", "\x00", "% & /", '"', "-5 mm"]
)
def test_odd_words_are_no_error(said: str) -> None:
    for hit in search(said):
        assert hit.kind in STEPS.names()


def test_nothing_said_shows_all_and_nonsense_shows_none() -> None:
    assert [h.kind for h in search("")] == list(STEPS.names())
    assert search("qqqqzzzz") == []
    assert search("x" * (LONGEST + 50)) == []
