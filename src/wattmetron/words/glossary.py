"""One line of explanation for each trade word, shown on demand."""

from wattmetron.core.values.brief import BRIEF, DISPLAY, TARGET

_OF_FIELDS = {
    field.name: (field.spec.term, field.spec.meaning)
    for field in (*BRIEF, *DISPLAY, *TARGET)
    if field.spec.meaning
}
GLOSSARY: dict[str, tuple[str, str]] = {
    "target": ("target", "One game at named settings with the frame rate that is wanted from it."),
    "tier": ("tier", "One of the lists that a publisher names, such as minimum or recommended."),
    "asked": (
        "what a tier asks for",
        (
            "The speed that a tier asks for: the middle of the parts that it lists, on the scale"
            " where the reference part is 100."
        ),
    ),
    "as good": (
        "chance that it is as good",
        (
            "Both speeds are known only so well; this is the chance that the part really is at"
            " least as fast."
        ),
    ),
    "demand": (
        "demand",
        (
            "How much graphics speed the recommended tier asks for: light below 45 points, heavy"
            " from 85."
        ),
    ),
    "preference": (
        "preference",
        (
            "Granted in this order where the answer with it meets as much, loses at most 2 % of the"
            " frames and costs no more than stated. What is insisted on, here or above, always"
            " holds."
        ),
    ),
    "upscaling": (
        "upscaling",
        (
            "The game is drawn at fewer pixels and enlarged to the display; 67 % per axis is 45 %"
            " of the pixels."
        ),
    ),
    "generated": (
        "frame generation",
        (
            "Between two drawn frames the card makes up one more. The picture looks smoother, but"
            " the game answers at the rate of the frames drawn, and a little later."
        ),
    ),
    "ray tracing": (
        "ray tracing",
        "Light is followed ray by ray: prettier, heavy on the graphics side and its memory.",
    ),
    "average": ("average", "Frames shown over a stretch of play, divided by its seconds."),
    "low": (
        "1 % low",
        "The rate of the 99th percentile of frame time: one frame in a hundred takes longer.",
    ),
    "frame time": (
        "frame time",
        "Milliseconds from one frame to the next: 1000 divided by the frame rate.",
    ),
    "limited by": (
        "limited by",
        (
            "The side, processor or graphics, that takes longer sets the frame time; the other one"
            " waits."
        ),
    ),
    "interval": ("80 % interval", "The rate lies between these two figures with a chance of 80 %."),
    "spike": (
        "spike",
        (
            "A card's draw for some milliseconds, well above its board power; the supply must stand"
            " it."
        ),
    ),
    "speed": (
        "speed",
        (
            "A part against the reference part at 100: one busy core, all cores, drawing, or ray"
            " tracing."
        ),
    ),
    "delivered": (
        "delivered",
        "The price with shipping and tax, from the cheapest offer in stock in the region.",
    ),
    "stale": (
        "stale",
        (
            "An offer seen longer before the newest one of the region than the brief allows, two"
            " weeks unless it says otherwise: look again before buying."
        ),
    ),
    "kept": ("kept", "A part that stays when the rest is proposed."),
    "owned": (
        "owned",
        "A part that is there already: it costs nothing, and proposals may replace it.",
    ),
    "video memory": (
        "video memory",
        (
            "The graphics part's own memory. What does not fit is fetched over the link in every"
            " frame, which costs time."
        ),
    ),
    "socket": (
        "socket",
        "The place for the processor; mainboard, processor and cooler have to agree on it.",
    ),
    "form factor": (
        "form factor",
        "The standard sizes of mainboards and supplies that a case takes.",
    ),
    "pinned": (
        "pinned",
        "A build that others are compared with, until you let it go.",
    ),
} | _OF_FIELDS
