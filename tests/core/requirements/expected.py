"""How a sample and its expected structure are written down."""

from dataclasses import dataclass


@dataclass(frozen=True)
class T:
    """A tier: parts separated by blanks (``@8`` the memory stated, ``?name`` a part that the
    catalogue lacks, ``#4c3.2`` figures alone), amounts in GB.
    """

    label: str
    cpu: str = ""
    gpu: str = ""
    ram: float | None = None
    vram: float | None = None
    disk: float | None = None
    kind: str | None = None
    os: str = ""
    api: str = ""
    res: str | None = None
    preset: str | None = None
    fps: float | None = None
    rt: bool | None = None
    up: bool | None = None


@dataclass(frozen=True)
class Sample:
    style: str
    text: str
    tiers: tuple[T, ...]


def found(tier) -> T:
    """A tier as read, in the same form."""
    return T(
        tier.label.casefold(),
        _names(tier.processors),
        _names(tier.graphics),
        tier.memory_gb,
        tier.video_memory_gb,
        tier.storage_gb,
        tier.storage_kind,
        tier.system.casefold(),
        tier.api.casefold(),
        None if tier.width_px is None else f"{tier.width_px}x{tier.height_px}",
        tier.preset,
        tier.fps,
        tier.ray_tracing,
        tier.upscaling,
    )


def _names(listed) -> str:
    return " ".join(sorted(_name(item) for item in listed))


def _name(one) -> str:
    if one.part:
        return one.part + (f"@{one.memory_gb:g}" if one.memory_gb else "")
    if one.figures_only:
        return (
            "#"
            + (f"{one.cores}c" if one.cores else "")
            + (f"{one.clock_ghz:g}" if one.clock_ghz else "")
        )
    return (
        "?"
        + "-".join(one.text.casefold().split())
        + (f"@{one.memory_gb:g}" if one.memory_gb else "")
    )


FIELDS = (
    "label",
    "cpu",
    "gpu",
    "ram",
    "vram",
    "disk",
    "kind",
    "os",
    "api",
    "res",
    "preset",
    "fps",
    "rt",
    "up",
)


def wanted(tier: T) -> dict[str, object]:
    """Field by field, as ``found`` gives it."""
    values = {name: getattr(tier, name) for name in FIELDS}
    values["label"] = tier.label.casefold()
    values["os"], values["api"] = tier.os.casefold(), tier.api.casefold()
    values["cpu"] = " ".join(sorted(tier.cpu.split()))
    values["gpu"] = " ".join(sorted(tier.gpu.split()))
    return values
