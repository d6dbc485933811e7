"""Scores of the reader per field, for both halves: ``python -m tests.core.requirements.score``."""

from collections import Counter
from dataclasses import dataclass, field
from functools import cache

from tests.core.requirements.expected import FIELDS, Sample, found, wanted
from tests.core.requirements.tuned import TUNED
from tests.core.requirements.untouched import UNTOUCHED
from tests.demo import world
from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.requirements.draft import PartMark
from wattmetron.core.texts.requirements.requirements_reader import Reader, reader_of

WORDS = {
    "label": "tier label",
    "cpu": "processors",
    "gpu": "graphics parts with their memory",
    "ram": "memory",
    "vram": "video memory",
    "disk": "storage",
    "kind": "kind of storage",
    "os": "operating system",
    "api": "graphics API",
    "res": "resolution",
    "preset": "preset",
    "fps": "frame rate",
    "rt": "ray tracing",
    "up": "upscaling",
}


@dataclass
class Score:
    """Fields right and asked, by field, and wrong part matches above 90 %."""

    right: Counter = field(default_factory=Counter)
    asked: Counter = field(default_factory=Counter)
    wrong_and_sure: list[str] = field(default_factory=list)

    @property
    def share(self) -> float:
        return sum(self.right.values()) / sum(self.asked.values())


@cache
def reader() -> Reader:
    return reader_of(world())


def score(samples: tuple[Sample, ...]) -> Score:
    """A field counts where it was expected or read; it is right where both agree."""
    result = Score()
    for sample in samples:
        try:
            draft = reader().read(sample.text)
        except WattmetronError:
            draft = None
        tiers = draft.tiers if draft else ()
        for place, tier in enumerate(sample.tiers):
            want = wanted(tier)
            got = wanted(found(tiers[place])) if place < len(tiers) else {}
            for name in FIELDS:
                if want[name] in (None, "") and got.get(name) in (None, ""):
                    continue
                result.asked[name] += 1
                result.right[name] += got.get(name) == want[name]
        if draft is not None:
            result.wrong_and_sure += _wrong_and_sure(draft, sample)
    return result


def _wrong_and_sure(draft, sample: Sample) -> list[str]:
    listed = {
        piece.split("@")[0] for tier in sample.tiers for piece in f"{tier.cpu} {tier.gpu}".split()
    }
    return [
        f"{draft.text[mark.start : mark.end]} as {mark.matches[0].part}"
        for mark in draft.marks
        if isinstance(mark, PartMark)
        and mark.matches
        and mark.confidence > 0.9
        and mark.matches[0].part not in listed
    ]


def table() -> str:
    """The scores as Markdown."""
    tuned, untouched = score(TUNED), score(UNTOUCHED)
    lines = ["| field | tuned half | untouched half |", "| --- | --- | --- |"]
    lines += [f"| {WORDS[name]} | {_of(tuned, name)} | {_of(untouched, name)} |" for name in FIELDS]
    lines.append(f"| **all** | {tuned.share:.1%} | {untouched.share:.1%} |")
    return "\n".join(lines)


def _of(result: Score, name: str) -> str:
    return f"{result.right[name]} of {result.asked[name]}" if result.asked[name] else "–"


if __name__ == "__main__":
    print(table())
