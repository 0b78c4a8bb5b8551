"""Broken and hostile files: a clear message, in bounded time and memory."""

from __future__ import annotations

import contextlib
import io
import random
import resource
import subprocess
import sys

import ezdxf
import pytest

from stileblade.errors import ReadingError
from stileblade.outlines.reading.child import read_bounded
from stileblade.outlines.reading.kinds import read_file
from stileblade.outlines.reading.limits import LIMITS
from stileblade.outlines.text.shipped import FOLDER

HEAD = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
MM = f'{HEAD} width="100mm" height="50mm" viewBox="0 0 100 50"'


def svg(body: str) -> bytes:
    return f"<svg {MM}>{body}</svg>".encode()


@pytest.mark.parametrize(
    ("content", "message"),
    [
        (b"", "The file is empty."),
        (b"  \n ", "The file is empty."),
        (b"hello", "This is not an SVG file: it holds no markup."),
        (b"<html><body/></html>", "This is XML, but not SVG: its root is <html>."),
        (f"<svg {MM}><rect".encode(), "The file is broken:"),
        (svg("<image/>"), "There is no painted outline in the file. Left out: pictures of dots"),
        (svg('<path d="M0 0L1"/>'), "L takes 2 numbers at a time"),
        (svg('<path d="M0 0L1e308 1Z"/>'), "a number is too large"),
        (svg('<path d="M0 0L1 NaNZ"/>'), "not understood"),
        (svg('<g id="a"><use href="#a"/></g>'), "'#a' refers to itself."),
        (b"\x89PNG\r\n\x1a\n" + bytes(200), "This is a picture of dots; it has no outlines."),
        (b"%PDF-1.7", "PDF and PostScript files are not read."),
        (b"OTTO" + bytes(50), "This is no font that can be read."),
        (b"wOF2" + bytes(500), "This is no font that can be read."),
        (b"  0\nSECTION\n  2\nENTITIES\n  0\nENDSEC\n", "There is no line in the file"),
        (b"AutoCAD Binary DXF\r\n\x1a\x00\xff\xfe\x00" + bytes(90), "The DXF file cannot be read"),
    ],
)
def test_bad_files_say_what_is_wrong(content: bytes, message: str) -> None:
    with pytest.raises(ReadingError) as caught:
        read_bounded(content)
    assert message in caught.value.message
    assert caught.value.hint or "broken" in caught.value.message


def bomb(levels: int) -> bytes:
    entities = '<!ENTITY e0 "aaaaaaaaaa">' + "".join(
        f'<!ENTITY e{i + 1} "{f"&e{i};" * 10}">' for i in range(levels)
    )
    return (
        f"<!DOCTYPE svg [{entities}]><svg {MM}><text>&e{levels};</text>"
        '<rect width="5" height="5"/></svg>'
    ).encode()


def outside(what: str) -> bytes:
    return (
        f'<!DOCTYPE svg [<!ENTITY x SYSTEM "{what}">]><svg {MM}><text>&x;</text>'
        '<rect width="5" height="5"/></svg>'
    ).encode()


def block_bomb() -> bytes:
    """Blocks of ten of the one before, nine deep: a thousand million lines."""
    document = ezdxf.new("R2010")
    inner = document.blocks.new("b0")
    inner.add_line((0, 0), (1, 1))
    for level in range(1, 10):
        block = document.blocks.new(f"b{level}")
        for i in range(10):
            block.add_blockref(f"b{level - 1}", (i, 0))
    document.modelspace().add_blockref("b9", (0, 0))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


USES = "".join(f'<g id="u{i + 1}">{f"""<use href="#u{i}"/>""" * 10}</g>' for i in range(9))
HOSTILE = {
    "entity bomb": bomb(9),
    "file entity": outside("file:///etc/passwd"),
    "network entity": outside("http://127.0.0.1:9/x"),
    "nesting": svg(f"{'<g>' * 10_000}{'</g>' * 10_000}"),
    "many elements": svg("<g/>" * 100_000),
    "use bomb": svg(f'<defs><rect id="u0" width="5" height="5"/>{USES}</defs><use href="#u9"/>'),
    "million segments": svg(f'<path d="M0 0{"L1 1 2 0" * 500_000}Z"/>'),
    "50 MB": b" " * 50_000_000,
    "dashes": svg('<path stroke="red" fill="none" stroke-dasharray="1e-9" d="M0 0H100"/>'),
    "selectors": svg(
        f"<style>{'g ' * 20_000}{{fill:red}}</style>{'<g>' * 250}<rect/>{'</g>' * 250}"
    ),
    "blocks in blocks": block_bomb(),
}


def spent() -> float:
    """Seconds of the processor, here and in what was started: others at work do not count."""
    used = (resource.getrusage(who) for who in (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN))
    return sum(u.ru_utime + u.ru_stime for u in used)


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_files_are_refused_in_bounded_time(name: str) -> None:
    started = spent()
    with pytest.raises(ReadingError) as caught:
        read_bounded(HOSTILE[name])
    assert spent() - started < LIMITS.seconds + 4
    assert "root:" not in str(caught.value)
    assert len(caught.value.message) < 400


def test_a_path_that_is_too_long_is_not_just_left_out() -> None:
    """Nobody takes for the whole drawing what is left beside it."""
    long = f'<path d="M0 0h9v9z"/><path d="M0 0{"l1 1" * 400_000}"/>'
    with pytest.raises(ReadingError) as caught:
        read_bounded(svg(long))
    assert caught.value.message == "The path has more than 300,000 segments."
    assert caught.value.hint.startswith("Simplify")


def test_memory_is_bounded() -> None:
    """A reading process that asks for a gigabyte does not get it."""
    code = (
        "from stileblade.outlines.reading.child import bound_memory\n"
        "import numpy as np\n"
        "bound_memory()\n"
        "np.ones(50_000_000 // 8)\n"
        "print('small')\n"
        "np.ones(1_000_000_000 // 8)\n"
        "print('large')\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert done.stdout == "small\n"
    assert "MemoryError" in done.stderr


def test_scripts_and_handlers_never_come_out() -> None:
    answer = read_bounded(
        f'<svg {MM} onload="alert(1)"><script>alert(2)</script>'
        '<rect id="&lt;b&gt;" width="5" height="5" onclick="x()"/></svg>'.encode()
    )
    text = repr(answer)
    assert "alert" not in text
    assert "onclick" not in text
    assert answer["shapes"][0]["path"].startswith("M")


def test_harmless_internal_entities_of_old_programs_still_read() -> None:
    content = (
        f'<!DOCTYPE svg [<!ENTITY c "red">]><svg {MM}><rect fill="&c;" width="5" height="5"/></svg>'
    ).encode()
    assert read_bounded(content)["layers"][0]["colour"] == "#ff0000"


def drawing() -> bytes:
    return svg(
        '<style>g .a{fill:red}</style><g transform="translate(1,2) rotate(3)" clip-path="url(#k)">'
        '<path d="M0 0C1 2 3 4 5 6A5 5 0 1 0 9 9Z" style="fill:#123;fill-rule:evenodd"/>'
        '<use href="#a"/><rect id="a" class="a" width="5%" height="3mm" rx="1"/></g>'
        '<path fill="none" stroke="red" stroke-dasharray="3 1" d="M1 1Q9 9 20 3T30 9"/>'
        '<clipPath id="k"><circle r="30"/></clipPath><text x="9" y="9">Aa</text>'
    )


def dxf() -> bytes:
    document = ezdxf.new("R2010", units=4)
    space = document.modelspace()
    space.add_lwpolyline([(0, 0, 0.3), (50, 0, 0), (50, 30, -0.5)], format="xyb", close=True)
    space.add_spline([(0, 0), (5, 9), (9, 3), (20, 20)])
    space.add_circle((9, 9), 4)
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


SEEDS = {
    "svg": drawing,
    "dxf": dxf,
    "font": (FOLDER / "alfa-slab-one.woff2").read_bytes,
}


@pytest.mark.parametrize("kind", SEEDS)
def test_mutated_files_end_in_an_outline_or_a_message(kind: str) -> None:
    """Bytes changed, dropped and doubled at random, for a few seconds of the processor."""
    base = SEEDS[kind]()
    chance = random.Random(5)
    until = spent() + 2.5
    tried = read = 0
    while spent() < until:
        content = bytearray(base)
        for _ in range(chance.randint(1, 6)):
            at = chance.randrange(len(content))
            what = chance.random()
            if what < 0.5:
                content[at] = chance.randrange(32, 127)
            elif what < 0.75:
                del content[at : at + chance.randint(1, 9)]
            else:
                content[at:at] = content[at : at + chance.randint(1, 30)]
        tried += 1
        # nothing but a reading error may come out
        with contextlib.suppress(ReadingError):
            assert read_file(bytes(content)).as_data()["shapes"]
            read += 1
    assert tried > 20
    assert read or kind == "font"


def test_names_are_cut_short_and_come_out_as_text() -> None:
    name = "<img src=x onerror=1>" * 20
    escaped = name.replace("<", "&lt;").replace(">", "&gt;")
    answer = read_bounded(svg(f'<rect id="{escaped}" width="5" height="5"/>'))
    assert answer["shapes"][0]["name"] == name[:60]
