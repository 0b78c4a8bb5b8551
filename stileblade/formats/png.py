"""PNG: the PDF page as a picture, 200 dots per inch."""

from __future__ import annotations

import io
from threading import Lock

import pypdfium2
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from stileblade.formats.format import register_format
from stileblade.formats.options import FileOptions, Page
from stileblade.formats.pages import own_page
from stileblade.formats.pdf import pdf
from stileblade.formats.plan import Plan

DPI = 200
MOST_PIXELS = 40_000_000
one_at_a_time = Lock()
"""The renderer must not be entered by two threads."""


@register_format("png", title="PNG", about="a picture", media_type="image/png")
def png(plan: Plan, options: FileOptions) -> bytes:
    """The plan as a picture; very large pieces get fewer dots, which the file states."""
    width, height = own_page(plan)
    dots = min(DPI, (MOST_PIXELS / (width * height)) ** 0.5 * 25.4)
    with one_at_a_time:
        document = pypdfium2.PdfDocument(pdf(plan, FileOptions(page=Page.OWN, words=False)))
        try:
            image: Image.Image = document[0].render(scale=dots / 72).to_pil()
        finally:
            document.close()
    info = PngInfo()
    info.add_text("Title", plan.title)
    info.add_text("Description", plan.about)
    info.add_text("Software", "Stileblade")
    stream = io.BytesIO()
    image.save(stream, "PNG", dpi=(dots, dots), pnginfo=info)
    return stream.getvalue()
