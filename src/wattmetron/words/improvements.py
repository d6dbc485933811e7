"""The ways in which a machine can be improved, in words."""

from typing import Literal

Way = Literal["few", "same money", "full", "same frames"]
WAYS: dict[Way, str] = {
    "few": "least changes for the most gain",
    "same money": "the same money",
    "full": "the whole budget",
    "same frames": "the same frames for least money",
}
