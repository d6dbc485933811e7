"""Several memory kits in one machine: together they are as wide as all their sticks and as quick as
the slowest.
"""

from collections.abc import Sequence
from dataclasses import replace

from wattmetron.core.values.memory_kit import Memory

JOINT = "+"


def joined(kits: Sequence[Memory]) -> Memory | None:
    """One kit that stands for all: sticks and capacity added up, rate and latency of the slowest,
    height of the tallest.

    Its id joins theirs. None without kits.
    """
    if len(kits) < 2:
        return kits[0] if kits else None
    first = kits[0]
    mts = min(kit.mts for kit in kits)
    slowest = max(kit.cl / kit.mts for kit in kits)
    sticks = sum(kit.sticks for kit in kits)
    heights = [kit.height_mm for kit in kits]
    known = [height for height in heights if height is not None]
    others = " and ".join(kit.model for kit in kits[1:])
    return replace(
        first,
        id=JOINT.join(kit.id for kit in kits),
        model=f"{first.model} and {others}",
        mts=mts,
        cl=max(1, round(slowest * mts)),
        sticks=sticks,
        stick_gb=sum(kit.total_gb for kit in kits) / sticks,
        ranks=min(kit.ranks for kit in kits),
        height_mm=max(known) if len(known) == len(heights) else None,
        registered=any(kit.registered for kit in kits),
        error_correcting=all(kit.error_correcting for kit in kits),
        lights=any(kit.lights for kit in kits),
    )
