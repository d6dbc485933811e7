"""What of a part matters when it is swapped."""

from wattmetron.core.values.drives import Storage
from wattmetron.core.values.further_parts import (
    CaptureCard,
    Fan,
    FanSplitter,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.housing import Case, Cooler, PowerSupply
from wattmetron.core.values.memory_kit import Memory
from wattmetron.core.values.parts import Graphics, Mainboard, Part, Processor


def traits(part: Part) -> tuple[str, str]:
    """In two short pieces: the speed that matters for its kind, and the sizes and connectors that
    matter.
    """
    match part:
        case Processor():
            igpu = f", integrated {_points(part.igpu_speed)}" if part.igpu_speed else ""
            boxed = f", boxed {part.boxed_cooler_w} W" if part.boxed_cooler_w else ""
            return (
                f"{part.cores} cores, one core {_points(part.single_speed)},"
                f" all {_points(part.all_core_speed)}",
                f"{part.threads} threads, {part.socket}, {part.sustained_w} W{igpu}{boxed}",
            )
        case Graphics():
            ray = f", ray tracing {_points(part.ray_speed)}" if part.ray_speed else ""
            plugs = [
                f"{n} x {word}"
                for n, word in ((part.pcie_8pin, "8\u2011pin"), (part.pcie_16pin, "16\u2011pin"))
                if n
            ]
            return (
                f"{part.memory_gb:g} GB, speed {_points(part.speed_1080p)}{ray}",
                f"{part.board_power_w} W, {part.length_mm} mm, {' + '.join(plugs) or 'no plug'}",
            )
        case Mainboard():
            return (
                f"{part.memory_type}-{part.memory_max_mts}, PCIe {part.card_pcie_gen}",
                (
                    f"{part.socket}, {part.form_factor}, {part.memory_slots} slots,"
                    f" {part.m2_slots} M.2"
                ),
            )
        case Memory():
            return (
                f"{part.memory_type}-{part.mts} CL{part.cl}",
                f"{part.sticks} x {part.stick_gb:g} GB",
            )
        case Storage():
            return f"{part.capacity_gb:,} GB", f"{part.interface}, {part.read_mbs:,} MB/s"
        case Cooler():
            noise = "" if part.noise_dba is None else f", {part.noise_dba:g} dB(A)"
            return f"{part.capacity_w} W", f"{part.height_mm} mm{noise}"
        case PowerSupply():
            return (
                f"{part.watts} W, spikes {part.spike_w:,} W",
                (
                    f"{part.form}, {part.pcie_8pin} x 8\u2011pin, {part.pcie_16pin} x 16\u2011pin,"
                    f" {part.efficiency or 'no level stated'}"
                ),
            )
        case Case():
            return (
                f"card {part.card_length_mm} mm, cooler {part.cooler_height_mm} mm",
                (
                    f"{', '.join(part.board_forms)}; {part.volume_l:g} l, {part.airflow},"
                    f" {part.fans_included} fan{'' if part.fans_included == 1 else 's'}"
                ),
            )
        case Fan():
            return (
                f"{part.pack} x {part.size_mm} mm",
                "" if part.noise_dba is None else f"{part.noise_dba:g} dB(A)",
            )
        case FanSplitter():
            return f"joins {part.joins} fans", ""
        case WirelessAdapter():
            return part.standard, part.via
        case CaptureCard():
            size = f"{part.width_px}x{part.height_px}, {part.refresh_hz:g} Hz"
            return size, f"{part.via}, {part.watts} W"
        case OpticalDrive():
            return part.via, "writes" if part.writes else "reads"
        case OperatingSystem():
            return part.family, ", ".join(part.apis)
        case Screen():
            return (
                f"{part.width_px}x{part.height_px}, {part.refresh_hz:g} Hz",
                f"{part.diagonal_inch:g} inch",
            )
        case InputDevice():
            return part.what, "cordless" if part.cordless else "with a cable"
    return "", ""


def _points(speed: float) -> str:
    """A speed in whole points, or to a tenth where it is small."""
    return f"{speed:.0f}" if speed >= 20 else f"{round(speed, 1):g}"
