"""Proposals against brute force over every build of more small catalogues than the suite looks at:
``make defend``.
"""

import sys

from tests.core.brute import answer, every_build, money_for
from tests.core.questions import build_of, dearest, ids_of, question
from wattmetron.core.search.answer import AIMS
from wattmetron.core.search.proposal import BAND, propose

FIRST, COUNT = 1000, 200


def differences(seed: int) -> list[str]:
    """The aims by which proposal and brute force differ on one question."""
    catalogue, brief, kept = question(seed)
    found = every_build(catalogue, brief, kept)
    weight = sum(target.weight for target in brief.targets)
    budget = money_for(catalogue, brief, kept)
    wrong = []
    for aim in AIMS:
        if aim == "same frames" and not (found and brief.counted_targets):
            continue
        present = dearest(found) if aim == "same frames" else None
        wanted = answer(found, aim, weight, budget, BAND, present)
        now = build_of(present.ids) if present else None
        got = propose(catalogue, brief, aim, kept, present=now)
        mine = None if got.build is None else (got.cost_minor, ids_of(got.build))
        if mine != (None if wanted is None else (wanted.cost, wanted.ids)):
            wrong.append(f"seed {seed}, {aim}: {mine} instead of {wanted}")
    return wrong


def main() -> int:
    wrong = [line for seed in range(FIRST, FIRST + COUNT) for line in differences(seed)]
    print(f"{COUNT} small catalogues, all aims: {len(wrong)} differ from brute force")
    print("\n".join(wrong))
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
