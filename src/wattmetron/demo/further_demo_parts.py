"""Made-up parts besides the eight kinds, each with its usual price in EUR."""

from wattmetron.core.values.further_parts import (
    Fan,
    FanSplitter,
    InputDevice,
    OperatingSystem,
    OpticalDrive,
    Screen,
    WirelessAdapter,
)
from wattmetron.core.values.parts import Case, Part, Storage

FURTHER: list[tuple[Part, float]] = [
    (
        Fan(
            id="coldreach-sail-120",
            maker="Coldreach",
            model="Sail 120",
            size_mm=120,
            noise_dba=26.0,
        ),
        8,
    ),
    (
        Fan(
            id="coldreach-sail-120-three",
            maker="Coldreach",
            model="Sail 120 Three",
            size_mm=120,
            pack=3,
            noise_dba=26.0,
        ),
        21,
    ),
    (
        Fan(
            id="coldreach-sail-140",
            maker="Coldreach",
            model="Sail 140",
            size_mm=140,
            noise_dba=25.0,
        ),
        11,
    ),
    (
        Fan(
            id="fennwick-vane-120", maker="Fennwick", model="Vane 120", size_mm=120, noise_dba=21.0
        ),
        18,
    ),
    (
        Fan(
            id="fennwick-vane-140", maker="Fennwick", model="Vane 140", size_mm=140, noise_dba=20.0
        ),
        22,
    ),
    (
        Fan(
            id="coldreach-sail-show-120-three",
            maker="Coldreach",
            model="Sail Show 120 Three",
            size_mm=120,
            pack=3,
            noise_dba=28.0,
            lights=("5 V",),
        ),
        39,
    ),
    (
        Fan(id="coldreach-reed-92", maker="Coldreach", model="Reed 92", size_mm=92, noise_dba=30.0),
        9,
    ),
    (
        WirelessAdapter(
            id="dunmarrow-halyard-card",
            maker="Dunmarrow",
            model="Halyard Card",
            standard="Wi-Fi 6E",
            via="PCIe x1",
        ),
        29,
    ),
    (
        WirelessAdapter(
            id="dunmarrow-halyard-stick",
            maker="Dunmarrow",
            model="Halyard Stick",
            standard="Wi-Fi 6",
            via="USB",
        ),
        19,
    ),
    (
        WirelessAdapter(
            id="kitefall-pennant-card",
            maker="Kitefall",
            model="Pennant Card",
            standard="Wi-Fi 7",
            via="PCIe x1",
        ),
        45,
    ),
    (
        OpticalDrive(
            id="ledgerock-quern", maker="Ledgerock", model="Quern", via="SATA", writes=True
        ),
        24,
    ),
    (
        OpticalDrive(
            id="ledgerock-quern-out", maker="Ledgerock", model="Quern Out", via="USB", writes=True
        ),
        35,
    ),
    (
        OperatingSystem(
            id="tidewater-11-home",
            maker="Tidewater",
            model="11 Home",
            family="Tidewater 11",
            designs=(
                "Quillon Flood",
                "Quillon Ebb",
                "Quillon Neap",
                "Marrowgate Slate",
                "Marrowgate Moss",
            ),
            apis=("Fairlead 11", "Fairlead 12"),
        ),
        119,
    ),
    (
        OperatingSystem(
            id="tidewater-10-home",
            maker="Tidewater",
            model="10 Home",
            family="Tidewater 10",
            apis=("Fairlead 11", "Fairlead 12"),
        ),
        89,
    ),
    (
        OperatingSystem(
            id="stillwater-boxed",
            maker="Stillwater",
            model="Boxed",
            family="Stillwater 24",
            apis=("Spindrift 1.3",),
        ),
        9,
    ),
    (
        Screen(
            id="saltgrove-fanlight-24",
            maker="Saltgrove",
            model="Fanlight 24",
            width_px=1920,
            height_px=1080,
            refresh_hz=75.0,
            diagonal_inch=24.0,
            inputs=("DVI", "VGA"),
            compression=False,
        ),
        109,
    ),
    (
        Screen(
            id="saltgrove-fanlight-24-fast",
            maker="Saltgrove",
            model="Fanlight 24 Fast",
            width_px=1920,
            height_px=1080,
            refresh_hz=240.0,
            variable_from_hz=48.0,
            diagonal_inch=24.0,
            inputs=("HDMI 2.0", "DisplayPort 1.4"),
            compression=False,
        ),
        199,
    ),
    (
        Screen(
            id="saltgrove-casement-27",
            maker="Saltgrove",
            model="Casement 27",
            width_px=2560,
            height_px=1440,
            refresh_hz=144.0,
            variable_from_hz=48.0,
            diagonal_inch=27.0,
            inputs=("HDMI 2.0", "DisplayPort 1.4"),
            compression=False,
        ),
        229,
    ),
    (
        Screen(
            id="saltgrove-casement-34",
            maker="Saltgrove",
            model="Casement 34",
            width_px=3440,
            height_px=1440,
            refresh_hz=144.0,
            variable_from_hz=48.0,
            diagonal_inch=34.0,
            inputs=("HDMI 2.0", "DisplayPort 1.4"),
            compression=False,
        ),
        379,
    ),
    (
        Screen(
            id="saltgrove-casement-32",
            maker="Saltgrove",
            model="Casement 32",
            width_px=3840,
            height_px=2160,
            refresh_hz=120.0,
            variable_from_hz=40.0,
            diagonal_inch=32.0,
            inputs=("HDMI 2.1", "DisplayPort 1.4"),
            compression=False,
        ),
        549,
    ),
    (
        InputDevice(
            id="quickfen-tiller-board", maker="Quickfen", model="Tiller Board", what="keyboard"
        ),
        45,
    ),
    (
        InputDevice(
            id="quickfen-tiller-set",
            maker="Quickfen",
            model="Tiller Set",
            what="keyboard and mouse",
            cordless=True,
        ),
        35,
    ),
    (InputDevice(id="quickfen-plumb", maker="Quickfen", model="Plumb", what="mouse"), 29),
    (
        InputDevice(
            id="quickfen-oar", maker="Quickfen", model="Oar", what="controller", cordless=True
        ),
        55,
    ),
    (
        OperatingSystem(
            id="stillwater-download",
            maker="Stillwater",
            model="Download",
            family="Stillwater 24",
            apis=("Spindrift 1.3",),
        ),
        0,
    ),
    (
        Storage(
            id="ledgerock-culvert-3840",
            maker="Ledgerock",
            model="Culvert 3840",
            interface="U.2 NVMe",
            capacity_gb=3840,
            read_mbs=6800,
            pcie_gen=4,
        ),
        419,
    ),
    (
        Case(
            id="lidd-frame-pulpit",
            maker="Lidd & Frame",
            model="Pulpit",
            board_forms=("Micro-ATX", "Mini-ITX"),
            supply_forms=("ATX",),
            card_length_mm=330,
            cooler_height_mm=150,
            fans_included=2,
            volume_l=26.0,
            airflow="mesh",
            side_fan_mm=25,
            riser_gen=3,
        ),
        159,
    ),
    (
        FanSplitter(id="coldreach-fork-two", maker="Coldreach", model="Fork Two", joins=2),
        4,
    ),
    (
        FanSplitter(id="fennwick-rake-five", maker="Fennwick", model="Rake Five", joins=5),
        9,
    ),
]
