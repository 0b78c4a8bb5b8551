"""SVG as a tree, safely: no outside entity, no document type from elsewhere, no network."""

from __future__ import annotations

import gzip
import io
import zlib
from functools import lru_cache

from lxml import etree

from stileblade.errors import ReadingError
from stileblade.outlines.reading.limits import LIMITS
from stileblade.words import say

SVG = "http://www.w3.org/2000/svg"
LINK = "{http://www.w3.org/1999/xlink}href"
SHAPES = ("path", "rect", "circle", "ellipse", "polygon", "polyline", "line")
"""Elements that are outlines by themselves."""


def parse(content: bytes) -> etree._Element:
    """The root of the drawing. ``ReadingError`` says why there is none."""
    if not content.strip():
        raise ReadingError("The file is empty.", hint="Export the drawing again.")
    if content[:2] == b"\x1f\x8b":
        content = _unpacked(content)
    parser = etree.XMLParser(
        resolve_entities="internal",  # type: ignore[arg-type]  # the stubs know only booleans
        no_network=True,
        load_dtd=False,
        huge_tree=False,
        remove_comments=True,
        remove_pis=True,
    )
    try:
        root = etree.fromstring(content, parser)
    except etree.XMLSyntaxError as error:
        raise _in_words(error, content) from error
    if etree.QName(root).localname != "svg":
        raise ReadingError(
            say(
                "This is XML, but not SVG: its root is <{root}>.",
                root=etree.QName(root).localname[:40],
            ),
            hint="Export the drawing as SVG.",
        )
    return root


def _unpacked(content: bytes) -> bytes:
    """A compressed drawing (.svgz), its size bounded while it is unpacked."""
    try:
        with gzip.GzipFile(fileobj=io.BytesIO(content)) as file:
            plain = file.read(LIMITS.bytes + 1)
    except (OSError, EOFError, zlib.error) as error:
        raise ReadingError(
            "The compressed file is broken.", hint="Export it as plain SVG."
        ) from error
    if len(plain) > LIMITS.bytes:
        raise ReadingError(
            say("Unpacked, the file has more than {most:.0f} MB.", most=LIMITS.bytes / 1e6),
            hint="Leave embedded pictures out, or simplify the drawing.",
        )
    return plain


def _in_words(error: etree.XMLSyntaxError, content: bytes) -> ReadingError:
    text = str(error).split("\n")[0]
    if "entity" in text.lower() or "amplification" in text.lower():
        return ReadingError(
            say("The file uses entities that are not read ({what}).", what=text[:120]),
            hint="Save it without a document type.",
        )
    if "<" not in content[:2000].decode("utf-8", "replace"):
        return ReadingError(
            "This is not an SVG file: it holds no markup.", hint="Choose a file ending in .svg."
        )
    return ReadingError(
        say("The file is broken: {what}", what=text[:160]), hint="Export the drawing again."
    )


def local_name(element: etree._Element) -> str:
    """The element's name in SVG's namespace or none; "" for all others."""
    tag = element.tag
    return _local_name(tag) if isinstance(tag, str) else ""


@lru_cache(maxsize=500)
def _local_name(tag: str) -> str:
    name = etree.QName(tag)
    return name.localname if name.namespace in (SVG, None) else ""


def link_of(element: etree._Element) -> str:
    """The id that the element refers to within the file; "" for all other references."""
    link = (element.get("href") or element.get(LINK) or "").strip()
    return link[1:] if link.startswith("#") else ""


def own_attribute(element: etree._Element, name: str) -> str:
    """An attribute that a drawing program adds, by its local name, whoever's prefix it has."""
    for key, value in element.attrib.items():
        named = etree.QName(key)
        if named.namespace and named.localname == name:
            return str(value)
    return ""


def name_of(element: etree._Element) -> str:
    """What the drawing calls an element: by its title, else by its id."""
    for child in element:
        if local_name(child) == "title":
            title = " ".join((child.text or "").split())
            return title or element.get("id", "")
    return element.get("id", "")


def suits(element: etree._Element) -> bool:
    """Whether a switch takes its child: no extension asked for, and our language or none."""
    if element.get("requiredExtensions"):
        return False
    languages = element.get("systemLanguage")
    return languages is None or any(
        part.strip().lower().startswith("en") for part in languages.split(",")
    )
