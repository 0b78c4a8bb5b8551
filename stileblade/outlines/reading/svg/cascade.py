"""Which declarations count for an element: style sheets, presentation and style attributes.

Selectors are matched by cssselect2 and sheets parsed by tinycss2. From weak to strong:
presentation attributes, rules by specificity and order, the style attribute; important
declarations of each above the others (CSS Cascade 4, chapter 6).
"""

from __future__ import annotations

import re
from functools import lru_cache
from typing import Any

import cssselect2
import tinycss2
from lxml import etree

from stileblade.outlines.reading.svg.xml import local_name

MOST_RULES = 2000
MOST_TEXT = 400_000
PROPERTIES = frozenset(
    [
        "fill",
        "fill-rule",
        "fill-opacity",
        "stroke",
        "stroke-opacity",
        "stroke-width",
        "stroke-linejoin",
        "stroke-linecap",
        "stroke-miterlimit",
        "stroke-dasharray",
        "stroke-dashoffset",
        "color",
        "opacity",
        "display",
        "visibility",
        "clip-path",
        "clip-rule",
        "mask",
        "filter",
        "marker",
        "marker-start",
        "marker-mid",
        "marker-end",
        "font-family",
        "font-size",
        "font-weight",
        "font-style",
        "font",
        "text-anchor",
        "letter-spacing",
        "stop-color",
        "stop-opacity",
        "overflow",
        "transform",
        "vector-effect",
    ]
)


class Cascade:
    """The declarations of a drawing's elements; ``trouble`` says what was not understood."""

    def __init__(self, root: etree._Element) -> None:
        self.trouble: list[str] = []
        self._rules = 0
        self._matcher = cssselect2.Matcher()
        self._wrapped: dict[etree._Element, Any] = {}
        for element in root.iter():
            if local_name(element) == "style":
                kind = (element.get("type") or "text/css").strip().lower()
                media = (element.get("media") or "all").strip().lower()
                if kind in ("text/css", "") and _for_screens(media):
                    self._sheet("".join(str(t) for t in element.itertext())[:MOST_TEXT])
        if self._rules:
            for wrapper in cssselect2.ElementWrapper.from_xml_root(root).iter_subtree():
                self._wrapped[wrapper.etree_element] = wrapper

    def _sheet(self, text: str) -> None:
        self._add(tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True))

    def _add(self, rules: list[Any], depth: int = 0) -> None:
        for rule in rules:
            if rule.type == "at-rule":
                if rule.lower_at_keyword == "media" and rule.content and depth < 4:
                    if _for_screens(tinycss2.serialize(rule.prelude)):
                        inner = tinycss2.parse_rule_list(
                            rule.content, skip_comments=True, skip_whitespace=True
                        )
                        self._add(inner, depth + 1)
                elif rule.lower_at_keyword == "import":
                    self.trouble.append("style sheets from elsewhere")
                continue
            if rule.type != "qualified-rule":
                continue
            self._rules += 1
            if self._rules > MOST_RULES:
                self.trouble.append("style rules beyond the first 2,000")
                return
            declarations = _declarations(rule.content)
            if not declarations:
                continue
            try:
                for selector in cssselect2.compile_selector_list(rule.prelude):
                    self._matcher.add_selector(selector, declarations)
            except cssselect2.SelectorError:
                self.trouble.append("style rules with selectors that are not understood")

    def of(self, element: etree._Element) -> dict[str, str]:
        """Property to value as written, the winning one of each."""
        plain = {str(k): str(v) for k, v in element.attrib.items() if k in PROPERTIES}
        important: dict[str, str] = {}
        wrapper = self._wrapped.get(element)
        if wrapper is not None:
            for _, _, _, declarations in sorted(
                self._matcher.match(wrapper), key=lambda m: (m[0], m[1])
            ):
                for name, (value, strong) in declarations.items():
                    (important if strong else plain)[name] = value
        style = element.get("style")
        if style:
            for name, (value, strong) in _written(style[:MOST_TEXT]).items():
                if strong:
                    important[name] = value
                else:
                    plain[name] = value
        return {**plain, **important}


@lru_cache(maxsize=2000)
def _written(style: str) -> dict[str, tuple[str, bool]]:
    """The declarations of a style attribute: drawings repeat a few of them over and over, most of
    them without anything that it takes a style sheet's grammar to part."""
    if not _PLAIN.fullmatch(style):
        return _declarations(style)
    found: dict[str, tuple[str, bool]] = {}
    for part in style.split(";"):
        name, colon, value = part.partition(":")
        name = name.strip().lower()
        if colon and name in PROPERTIES and value.strip():
            found[name] = (value.strip(), False)
    return found


_PLAIN = re.compile(
    r"(?:\s*+[\w-]++\s*+:(?>(?!url\()[\w\s#.,%+-])*+(?:url\(#[\w.-]++\)\s*+)?+(?:;|$))*+\s*+",
    re.ASCII,
)


def _declarations(content: Any) -> dict[str, tuple[str, bool]]:
    found: dict[str, tuple[str, bool]] = {}
    for item in tinycss2.parse_blocks_contents(content, skip_comments=True, skip_whitespace=True):
        if item.type == "declaration" and item.lower_name in PROPERTIES:
            value = tinycss2.serialize(item.value).strip()
            if value:
                found[item.lower_name] = (value, item.important)
    return found


def _for_screens(media: str) -> bool:
    media = media.strip().lower()
    return not media or any(m.strip() in ("all", "screen") for m in media.split(","))
