"""A brief, what it holds, and what is declared of its fields."""

from wattmetron.core.values.brief.brief_items import (
    Display,
    Extra,
    Resale,
    Target,
)
from wattmetron.core.values.brief.choices import (
    BOUGHT_KINDS,
    GROWING_M2,
    GROWING_SLOTS,
    MOST_PIXELS,
    SURENESS,
    Availability,
    BoughtKind,
    Clocks,
    Cooling,
    Group,
    Measure,
    Period,
    Sureness,
)
from wattmetron.core.values.brief.declared_brief import (
    BRIEF,
    DISPLAY,
    EXTRA,
    NOT_SEARCHED,
    RESALE,
    TARGET,
    check_fields,
    check_target,
    searched,
)
from wattmetron.core.values.brief.whole_brief import (
    Brief,
)

__all__ = [
    "BOUGHT_KINDS",
    "BRIEF",
    "DISPLAY",
    "EXTRA",
    "GROWING_M2",
    "GROWING_SLOTS",
    "MOST_PIXELS",
    "NOT_SEARCHED",
    "RESALE",
    "SURENESS",
    "TARGET",
    "Availability",
    "BoughtKind",
    "Brief",
    "Clocks",
    "Cooling",
    "Display",
    "Extra",
    "Group",
    "Measure",
    "Period",
    "Resale",
    "Sureness",
    "Target",
    "check_fields",
    "check_target",
    "searched",
]
