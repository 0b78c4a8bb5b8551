"""Which reader a file is for: its content says, not its name."""

from __future__ import annotations

from stileblade.errors import ReadingError
from stileblade.outlines.reading.found import Found, Lines

_FONTS = (b"\x00\x01\x00\x00", b"OTTO", b"true", b"wOFF", b"wOF2", b"ttcf")


def read_file(content: bytes, text: str = "", lines: Lines = "auto") -> Found:
    """What is found in an SVG, DXF or font file; ``text`` is set in a font,
    ``lines`` says how an SVG drawing of lines alone is understood.

    Readers are loaded as they are needed: each brings libraries that take a while.
    """
    if not content.strip():
        raise ReadingError("The file is empty.", hint="Choose another file.")
    if content[:4] in _FONTS:
        from stileblade.outlines.reading.fontfile import read_font

        return read_font(content, text)
    if _is_dxf(content):
        from stileblade.outlines.reading.dxf import read_dxf

        return read_dxf(content)
    if content[:5] == b"%PDF-" or content[:4] == b"%!PS":
        raise ReadingError(
            "PDF and PostScript files are not read.", hint="Export the drawing as SVG."
        )
    if (
        content[:8] == b"\x89PNG\r\n\x1a\n"
        or content[:3] == b"\xff\xd8\xff"
        or content[:4] == b"GIF8"
    ):
        raise ReadingError(
            "This is a picture of dots; it has no outlines.",
            hint="Trace it in a drawing program, and save it as SVG.",
        )
    from stileblade.outlines.reading.svg.painted import read_svg

    return read_svg(content, lines)


def _is_dxf(content: bytes) -> bool:
    if content.startswith(b"AutoCAD Binary DXF"):
        return True
    head = content[:4000].lstrip(b"\xef\xbb\xbf").replace(b"\r\n", b"\n").replace(b"\r", b"\n")
    rows = [row.strip() for row in head.split(b"\n")[:400]]
    while rows[:1] == [b"999"]:  # comments
        rows = rows[2:]
    return rows[:2] == [b"0", b"SECTION"]
