"""Text as it may be stored: without characters that no file or page can carry."""

import re

_NO_TEXT = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufffe\uffff]")


def clean(text: str) -> str:
    """The text without control characters (tabs and line ends stay) and halves of characters."""
    return _NO_TEXT.sub("", text)
