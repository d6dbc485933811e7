"""What is wanted (the brief) and what answers it (the build)."""

from wattmetron.core.briefs.brief import (
    SURENESS,
    Brief,
    Display,
    Extra,
    Sureness,
    Target,
    check_brief,
    insisting,
)
from wattmetron.core.briefs.build import Build

__all__ = [
    "SURENESS",
    "Brief",
    "Build",
    "Display",
    "Extra",
    "Sureness",
    "Target",
    "check_brief",
    "insisting",
]
