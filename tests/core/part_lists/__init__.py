"""Lists of parts as people send them, with what each line means, written before the reader."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Sent:
    """A list in a style, and what it holds in order: ``id``, ``2 id``, ``id @ 129.90``, ``? text``
    for a part that the catalogue lacks, ``chip Nacre Reef 8 GB`` where any card of a chip will do.
    """

    style: str
    text: str
    means: tuple[str, ...]
