"""Pictures as they come in: checked, made small, without what a camera adds."""

import io
import warnings
from concurrent.futures import ThreadPoolExecutor

from PIL import Image, ImageOps, UnidentifiedImageError

from wattmetron.core.errors import InvalidError

TAKEN = ("PNG", "JPEG", "WEBP")
MOST_PIXELS, MOST_JPEG_PIXELS = 10_000_000, 20_000_000
"""A JPEG is decoded small at once, other formats whole: at four bytes a pixel within 40 MB."""
ONE_AT_A_TIME = ThreadPoolExecutor(1, "pictures")
"""One thread: the allocator keeps what each thread that decoded a picture has let go."""
KEPT_PX, SQUARE_PX = (640, 480), (1280, 1280)
"""What is kept, and what is worked on before a picture is turned upright."""
QUALITY = 82
CHOOSE = "choose a PNG, JPEG or WebP file"


class PictureError(InvalidError):
    """A file that is no picture that can be kept."""


def kept_picture(name: str, data: bytes) -> bytes:
    """The picture as WebP, at most 640 by 480, upright, with nothing but its pixels; raises
    PictureError.
    """
    if data.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] == b"<":
        raise PictureError(f"“{name}” is a drawing in text, which can hold scripts: {CHOOSE}.")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            return ONE_AT_A_TIME.submit(_small, name, data).result()
    except (
        UnidentifiedImageError,
        Image.DecompressionBombError,
        Image.DecompressionBombWarning,
        OSError,
        SyntaxError,
        ValueError,
    ) as error:
        raise PictureError(f"“{name}” is no picture that can be read: {CHOOSE}.") from error


def _small(name: str, data: bytes) -> bytes:
    with Image.open(io.BytesIO(data), formats=TAKEN) as opened:
        most = MOST_JPEG_PIXELS if opened.format == "JPEG" else MOST_PIXELS
        if opened.width * opened.height > most:
            raise PictureError(
                f"“{name}” has {opened.width:,} by {opened.height:,} pixels: make it smaller, up to"
                f" {most // 1_000_000} million in all."
            )
        opened.draft("RGB", SQUARE_PX)
        opened.thumbnail(SQUARE_PX)
        upright = ImageOps.exif_transpose(opened).convert("RGBA")
    upright.thumbnail(KEPT_PX)
    out = io.BytesIO()
    upright.save(out, "WEBP", quality=QUALITY)
    return out.getvalue()
