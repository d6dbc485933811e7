"""Sizes in mm that a drawing takes where nothing is stated."""

from wattmetron.core.values.parts import BoardForm

BOARD_MM: dict[BoardForm, tuple[int, int]] = {
    "E-ATX": (330, 305),
    "ATX": (244, 305),
    "Micro-ATX": (244, 244),
    "Mini-ITX": (170, 170),
}
"""Depth (from the rear) and height of the boards."""
DRIVE_MM = {"3.5 inch": (147, 26), "2.5 inch": (100, 7)}
SUPPLY_MM = {"ATX": (150, 86), "SFX": (125, 64)}
STANDOFF_MM = 8
"""Between the tray of the case and the board, as usual cases have it."""
SOCKET_X_MM = 120
COOLER_WIDTH_MM = 110
STICK_MM = (7, 133)
EDGE_MM = 12


def known_or(size: int | None, assumed: float) -> float:
    """A size as it is stated, or what is assumed for it."""
    return assumed if size is None else size
