"""A photo as it is kept: verified, upright, scaled, without where and with what it was taken."""

import warnings
from dataclasses import dataclass
from io import BytesIO

from django.utils.translation import gettext
from PIL import Image, ImageOps

from pantry_core.quantities import Number
from pantry_web.refusal import Refused
from pantry_web.sentences import tell

MOST_BYTES = 16 * 1024 * 1024
MOST_PIXELS = 60_000_000
MOST_SIDE = 1600
QUALITY = 85
FORMATS = ("JPEG", "PNG", "WEBP")


@dataclass(frozen=True, slots=True)
class Kept:
    """A photo as a JPEG, and its size in pixels."""

    jpeg: bytes
    width: int
    height: int


def size_of(jpeg: bytes) -> tuple[int, int]:
    """Width and height of a photo that is kept, or was [pixels]."""
    with Image.open(BytesIO(jpeg), formats=("JPEG",)) as photo:
        return photo.size


def kept(data: bytes) -> Kept:
    """A photo made ready to be kept.

    Parameters: data, the file as it came.
    Raises: Refused for what is no photo, is too large, or unpacks to more than it says.
    """
    if len(data) > MOST_BYTES:
        raise Refused(
            tell(
                "The photo has over {most} MB; use a smaller one.",
                most=Number(MOST_BYTES // 2**20),
            )
        )
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(BytesIO(data), formats=FORMATS) as photo:
                if photo.width * photo.height > MOST_PIXELS:
                    raise Refused(gettext("The photo has too many pixels; use a smaller one."))
                upright = ImageOps.exif_transpose(photo).convert("RGB")
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombWarning,
            Image.DecompressionBombError):  # fmt: skip
        raise Refused(gettext("That is no photo; use a JPEG, PNG or WebP.")) from None
    upright.thumbnail((MOST_SIDE, MOST_SIDE))
    made = BytesIO()
    bare = Image.new("RGB", upright.size)
    bare.paste(upright)
    bare.save(made, "JPEG", quality=QUALITY, optimize=True)
    return Kept(made.getvalue(), *upright.size)
