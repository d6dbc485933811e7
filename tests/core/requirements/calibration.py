"""How often values are right, by how sure the reader is of them:
``python -m tests.core.requirements.calibration``.
"""

from collections import Counter
from collections.abc import Iterable

from tests.core.requirements.expected import Sample, found, wanted
from tests.core.requirements.score import reader
from wattmetron.core.errors import WattmetronError
from wattmetron.core.texts.requirements.draft import PartMark

FIELDS = {
    "memory": "ram",
    "video memory": "vram",
    "storage": "disk",
    "kind of storage": "kind",
    "operating system": "os",
    "graphics API": "api",
    "resolution": "res",
    "preset": "preset",
    "frame rate": "fps",
    "ray tracing": "rt",
    "upscaling": "up",
    "tier": "label",
}
STEPS = (0.0, 0.5, 0.7, 0.9, 0.95)


def outcomes(samples: Iterable[Sample]) -> list[tuple[float, bool]]:
    """Of every value that was read: how sure the reader was, and whether it is right."""
    results = []
    for sample in samples:
        try:
            draft = reader().read(sample.text)
        except WattmetronError:
            continue
        for mark in draft.marks:
            if mark.tier is None or "contradicts" in mark.what:
                continue
            want = sample.tiers[mark.tier] if mark.tier < len(sample.tiers) else None
            if isinstance(mark, PartMark):
                own = mark.matches[0].part if mark.matches else ""
                listed = f"{want.cpu} {want.gpu}".split() if want else ()
                results.append((mark.confidence, own in {one.split("@")[0] for one in listed}))
            elif name := FIELDS.get(mark.what):
                got = wanted(found(draft.tiers[mark.tier]))[name]
                results.append((mark.confidence, want is not None and wanted(want)[name] == got))
    return results


def by_step(results: Iterable[tuple[float, bool]]) -> dict[float, tuple[int, int]]:
    """By the lower end of each step of confidence: how many values were right, of how many."""
    right, asked = Counter(), Counter()
    for confidence, good in results:
        step = max(one for one in STEPS if one <= confidence)
        asked[step] += 1
        right[step] += good
    return {step: (right[step], asked[step]) for step in STEPS if asked[step]}


if __name__ == "__main__":
    from tests.core.requirements import assorted, assorted_later, elsewhere, tuned, untouched

    halves = {
        "texts 1-60": (*tuned.TUNED, *untouched.UNTOUCHED),
        "forty styles": (*elsewhere.TUNED, *elsewhere.UNTOUCHED),
        "no two alike": (*assorted.TUNED, *assorted.UNTOUCHED),
        "later": (*assorted_later.LATER, *assorted_later.LAST),
    }
    for name, samples in halves.items():
        print(name, by_step(outcomes(samples)))
