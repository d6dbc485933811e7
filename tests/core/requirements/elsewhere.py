"""Requirements as other publishers write them: forty styles in eight languages, three texts each,
written down before the reader was touched. The first twenty are the half that it may be tuned on;
the others share no style with them and are never tuned on.
"""

from collections.abc import Callable
from dataclasses import dataclass

from tests.core.requirements.expected import Sample, T


@dataclass(frozen=True)
class Level:
    """What one tier asks for."""

    cpus: tuple[str, str]
    gpus: tuple[tuple[str, int], tuple[str, int]]
    ram: int
    disk: int
    os: str
    res: tuple[int, int]
    preset: str
    fps: int

    @property
    def p(self) -> str:
        return f"{self.res[1]}p"

    def gpu(self, n: int) -> str:
        name, memory = self.gpus[n]
        return f"{name} {memory} GB"


def _id(name: str) -> str:
    return "-".join(name.casefold().split())


def t(level: Level, label: str, uses: str, cpus: int = 2, gpus: int = 2, **more) -> T:
    """What is to be read of a level; ``uses`` names the fields that the text gives."""
    given = uses.split()
    fields = {
        "ram": level.ram,
        "disk": level.disk,
        "os": level.os,
        "res": f"{level.res[0]}x{level.res[1]}",
        "preset": level.preset,
        "fps": level.fps,
    }
    found = {name: value for name, value in fields.items() if name in given} | more
    cards = " ".join(f"{_id(name)}@{memory}" for name, memory in level.gpus[:gpus])
    return T(label, " ".join(map(_id, level.cpus[:cpus])), cards, **found)


GAMES = (
    (
        Level(
            ("Quillon Wherry Ebb 4", "Marrowgate Gannet Dun 4"),
            (("Orlop Taper", 4), ("Marlpoint Skerry", 4)),
            8,
            45,
            "Tidewater 10",
            (1920, 1080),
            "low",
            30,
        ),
        Level(
            ("Quillon Cutter Flood 6", "Marrowgate Heron Slate 6"),
            (("Nacre Reef", 8), ("Orlop Wick", 8)),
            16,
            60,
            "Tidewater 11",
            (2560, 1440),
            "high",
            60,
        ),
    ),
    (
        Level(
            ("Quillon Cutter Ebb 6", "Marrowgate Heron Dun 6"),
            (("Nacre Cove", 6), ("Orlop Lantern", 6)),
            12,
            90,
            "Tidewater 10",
            (1920, 1080),
            "medium",
            60,
        ),
        Level(
            ("Quillon Ketch Flood 8", "Marrowgate Heron Slate 10"),
            (("Orlop Beacon", 12), ("Nacre Bank", 12)),
            32,
            120,
            "Tidewater 11",
            (3840, 2160),
            "ultra",
            60,
        ),
    ),
    (
        Level(
            ("Marrowgate Gannet Moss 4", "Quillon Wherry Neap 4"),
            (("Marlpoint Ayre", 3), ("Orlop Taper", 2)),
            6,
            20,
            "Stillwater 24",
            (1280, 720),
            "low",
            30,
        ),
        Level(
            ("Marrowgate Osprey Dun 8", "Quillon Ketch Ebb 8"),
            (("Marlpoint Holm", 8), ("Nacre Shoal", 8)),
            24,
            35,
            "Stillwater 24",
            (1920, 1080),
            "ultra",
            75,
        ),
    ),
)
Style = Callable[[Level, Level], tuple[str, tuple[T, ...]]]
WORDS = {
    6: "six",
    8: "eight",
    12: "twelve",
    16: "sixteen",
    20: "twenty",
    24: "twenty-four",
    30: "thirty",
    32: "thirty-two",
    35: "thirty-five",
    45: "forty-five",
    60: "sixty",
    75: "seventy-five",
    90: "ninety",
    120: "one hundred and twenty",
}


# --- the tuned half -------------------------------------------------------------------------------


def german_prose(a: Level, b: Level):
    text = (
        f"Mindestens braucht ihr einen {a.cpus[0]} oder {a.cpus[1]}, {a.ram} GB Arbeitsspeicher und"
        f" eine {a.gpu(0)}. Empfohlen werden {b.cpus[0]} oder {b.cpus[1]}, {b.ram} GB"
        f" Arbeitsspeicher und eine {b.gpu(0)}."
    )
    return text, (t(a, "Minimum", "ram", 2, 1), t(b, "Recommended", "ram", 2, 1))


def french_labels(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\nSystème d'exploitation : {x.os}\nProcesseur : {x.cpus[0]} / {x.cpus[1]}\n"
            f"Mémoire vive : {x.ram} Go\nCarte graphique : {x.gpus[0][0]} {x.gpus[0][1]} Go /"
            f" {x.gpus[1][0]} {x.gpus[1][1]} Go\nEspace disque : {x.disk} Go\n"
        )

    text = part("Configuration minimale :", a) + "\n" + part("Configuration recommandée :", b)
    return text, (t(a, "Minimum", "ram disk os"), t(b, "Recommended", "ram disk os"))


def spanish_run(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}: SO: {x.os}; Procesador: {x.cpus[0]} o {x.cpus[1]}; Memoria: {x.ram} GB de RAM;"
            f" Gráficos: {x.gpu(0)} o {x.gpu(1)}; Almacenamiento: {x.disk} GB de espacio disponible."
        )

    text = part("MÍNIMO", a) + " " + part("RECOMENDADO", b)
    return text, (t(a, "Minimum", "ram disk os"), t(b, "Recommended", "ram disk os"))


def equals_headings(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"== {head}: {x.p}, {x.preset}, {x.fps} fps ==\nprocessor = {x.cpus[0]} or {x.cpus[1]}\n"
            f"graphics = {x.gpu(0)} or {x.gpu(1)}\nmemory = {x.ram} GB\nstorage = {x.disk} GB\n"
        )

    uses = "ram disk res preset fps"
    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def plain_prose(a: Level, b: Level):
    text = (
        f"The minimum spec is a {a.cpus[0]} or a {a.cpus[1]} with {a.ram} GB of RAM and a {a.gpu(0)}"
        f" for {a.p} at {a.fps} fps. We recommend a {b.cpus[0]} or a {b.cpus[1]} with {b.ram} GB of"
        f" RAM and a {b.gpu(0)} for {b.p} at {b.fps} fps. The game takes {b.disk} GB of disk space."
    )
    return text, (
        t(a, "Minimum", "ram res fps", 2, 1, disk=b.disk),
        t(b, "Recommended", "ram res fps", 2, 1, disk=b.disk),
    )


def presets_as_tiers(a: Level, b: Level):
    def part(x: Level) -> str:
        return (
            f"{x.preset.capitalize()} settings ({x.p} @ {x.fps} FPS)\n- {x.cpus[0]} or {x.cpus[1]}\n"
            f"- {x.gpu(0)} or {x.gpu(1)}\n- {x.ram} GB RAM\n"
        )

    uses = "ram res preset fps"
    return part(a) + part(b), (
        t(a, f"{a.preset} settings", uses),
        t(b, f"{b.preset} settings", uses),
    )


def single_slash(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}: {x.cpus[0]} / {x.gpu(0)} / {x.ram} GB RAM / {x.disk} GB disk /"
            f" {x.p} {x.preset} {x.fps} fps\n"
        )

    uses = "ram disk res preset fps"
    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", uses, 1, 1),
        t(b, "Recommended", uses, 1, 1),
    )


def tabs(a: Level, b: Level):
    rows = [
        ("", "Minimum", "Recommended"),
        ("CPU", f"{a.cpus[0]} / {a.cpus[1]}", f"{b.cpus[0]} / {b.cpus[1]}"),
        ("GPU", f"{a.gpu(0)} / {a.gpu(1)}", f"{b.gpu(0)} / {b.gpu(1)}"),
        ("RAM", f"{a.ram} GB", f"{b.ram} GB"),
        ("Disk", f"{a.disk} GB", f"{b.disk} GB"),
        ("Target", f"{a.p}, {a.fps} fps", f"{b.p}, {b.fps} fps"),
    ]
    text = "\n".join("\t".join(row) for row in rows)
    uses = "ram disk res fps"
    return text, (t(a, "Minimum", uses), t(b, "Recommended", uses))


def glued(a: Level, b: Level):
    def part(x: Level) -> str:
        return f"{x.p.upper()}{x.fps} {x.preset.upper()}: {x.cpus[0]}, {x.gpu(0)}, {x.ram}GB RAM\n"

    uses = "ram res preset fps"
    return part(a) + part(b), (
        t(a, f"{a.p} {a.fps} fps {a.preset}", uses, 1, 1),
        t(b, f"{b.p} {b.fps} fps {b.preset}", uses, 1, 1),
    )


def two_memories(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\n{x.cpus[0]}\n{x.gpus[0][0]} ({x.gpus[0][1]} GB VRAM)\n{x.ram} GB system memory\n"
            f"{x.disk} GB free on disk\n"
        )

    uses = "ram disk"
    return part("MINIMUM", a) + part("RECOMMENDED", b), (
        t(a, "Minimum", uses, 1, 1),
        t(b, "Recommended", uses, 1, 1),
    )


def for_all_at_the_top(a: Level, b: Level):
    text = (
        f"All configurations: {b.os}, {b.disk} GB SSD\n\nMinimum\nCPU: {a.cpus[0]}\nGPU: {a.gpu(0)}\n"
        f"RAM: {a.ram} GB\n\nRecommended\nCPU: {b.cpus[0]}\nGPU: {b.gpu(0)}\nRAM: {b.ram} GB\n"
    )
    same = {"os": b.os, "disk": b.disk, "kind": "SSD"}
    return text, (t(a, "Minimum", "ram", 1, 1, **same), t(b, "Recommended", "ram", 1, 1, **same))


def or_equivalent(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}:\nProcessor: {x.cpus[0]} or equivalent of the other maker\n"
            f"Video card: {x.gpu(0)} or equivalent of another maker\nMemory: {x.ram} GB\n"
        )

    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", "ram", 1, 1),
        t(b, "Recommended", "ram", 1, 1),
    )


def italian_prose(a: Level, b: Level):
    text = (
        f"Requisiti minimi: un processore {a.cpus[0]} o {a.cpus[1]}, {a.ram} GB di RAM, una scheda"
        f" video {a.gpu(0)} e {a.disk} GB di spazio su disco. Requisiti consigliati: un processore"
        f" {b.cpus[0]} o {b.cpus[1]}, {b.ram} GB di RAM, una scheda video {b.gpu(0)} e {b.disk} GB di"
        " spazio su disco."
    )
    return text, (
        t(a, "Minimum", "ram disk", 2, 1),
        t(b, "Recommended", "ram disk", 2, 1),
    )


def polish_list(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}:\nSystem operacyjny: {x.os}\nProcesor: {x.cpus[0]} lub {x.cpus[1]}\n"
            f"Pamięć: {x.ram} GB RAM\nKarta graficzna: {x.gpu(0)} lub {x.gpu(1)}\n"
            f"Miejsce na dysku: {x.disk} GB\n"
        )

    uses = "ram disk os"
    return part("Minimalne", a) + part("Zalecane", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def portuguese_list(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\n  Processador: {x.cpus[0]} ou {x.cpus[1]}\n  Memória: {x.ram} GB de RAM\n"
            f"  Placa de vídeo: {x.gpu(0)} ou {x.gpu(1)}\n  Armazenamento: {x.disk} GB\n"
        )

    uses = "ram disk"
    return part("Mínimos", a) + part("Recomendados", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def dutch_prose(a: Level, b: Level):
    text = (
        f"Minimaal heb je een {a.cpus[0]} of {a.cpus[1]} nodig, met {a.ram} GB werkgeheugen en een"
        f" {a.gpu(0)}. Aanbevolen is een {b.cpus[0]} of {b.cpus[1]}, met {b.ram} GB werkgeheugen en"
        f" een {b.gpu(0)}."
    )
    return text, (t(a, "Minimum", "ram", 2, 1), t(b, "Recommended", "ram", 2, 1))


def numbered(a: Level, b: Level):
    def part(n: int, head: str, x: Level) -> str:
        return (
            f"Tier {n} – {head} ({x.p}, {x.fps} fps)\n   Processor .... {x.cpus[0]}\n"
            f"   Graphics ..... {x.gpu(0)}\n   Memory ....... {x.ram} GB\n"
        )

    uses = "ram res fps"
    return part(1, "playable", a) + part(2, "as intended", b), (
        t(a, "Tier 1 - playable", uses, 1, 1),
        t(b, "Tier 2 - as intended", uses, 1, 1),
    )


def brackets(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"[{head}]\nos={x.os}\ncpu={x.cpus[0]}|{x.cpus[1]}\ngpu={x.gpu(0)}|{x.gpu(1)}\n"
            f"ram={x.ram}GB\nhdd={x.disk}GB\n"
        )

    uses = "ram disk os"
    return part("min", a) + part("rec", b), (
        t(a, "Min", uses, kind="hard disk"),
        t(b, "Rec", uses, kind="hard disk"),
    )


def desktop(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head} requirements\n- CPU: {x.cpus[0]} (desktop)\n- GPU: {x.gpu(0)} (desktop)\n"
            f"- RAM: {x.ram} GB dual channel\n- Drive: solid-state drive with {x.disk} GB\n"
        )

    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", "ram disk", 1, 1, kind="SSD"),
        t(b, "Recommended", "ram disk", 1, 1, kind="SSD"),
    )


def with_rays(a: Level, b: Level):
    text = (
        f"MINIMUM\nCPU: {a.cpus[0]}\nGPU: {a.gpu(0)}\nRAM: {a.ram} GB\nRay tracing: off\n\n"
        f"RAY TRACING\nCPU: {b.cpus[0]}\nGPU: {b.gpu(0)}\nRAM: {b.ram} GB\nRay tracing: on\n"
    )
    return text, (
        t(a, "Minimum", "ram", 1, 1, rt=False),
        t(b, "Ray tracing", "ram", 1, 1, rt=True),
    )


TUNED_STYLES: tuple[Style, ...] = (
    german_prose,
    french_labels,
    spanish_run,
    equals_headings,
    plain_prose,
    presets_as_tiers,
    single_slash,
    tabs,
    glued,
    two_memories,
    for_all_at_the_top,
    or_equivalent,
    italian_prose,
    polish_list,
    portuguese_list,
    dutch_prose,
    numbered,
    brackets,
    desktop,
    with_rays,
)


# --- the untouched half ---------------------------------------------------------------------------


def german_labels(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}:\nBetriebssystem: {x.os}\nProzessor: {x.cpus[0]} oder {x.cpus[1]}\n"
            f"Arbeitsspeicher: {x.ram} GB\nGrafikkarte: {x.gpu(0)} oder {x.gpu(1)}\n"
            f"Festplattenspeicher: {x.disk} GB verfügbar\n\n"
        )

    uses = "ram disk os"
    return part("Mindestanforderungen", a) + part("Empfohlene Anforderungen", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def french_prose(a: Level, b: Level):
    text = (
        f"Au minimum, il vous faut un {a.cpus[0]} ou un {a.cpus[1]}, {a.ram} Go de mémoire et une"
        f" {a.gpus[0][0]} avec {a.gpus[0][1]} Go. Pour en profiter pleinement nous conseillons un"
        f" {b.cpus[0]} ou un {b.cpus[1]}, {b.ram} Go de mémoire et une {b.gpus[0][0]} avec"
        f" {b.gpus[0][1]} Go."
    )
    return text, (t(a, "Minimum", "ram", 2, 1), t(b, "Recommended", "ram", 2, 1))


def spanish_labels(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\nSistema operativo: {x.os}\nCPU: {x.cpus[0]}, {x.cpus[1]}\nRAM: {x.ram} GB\n"
            f"Tarjeta gráfica: {x.gpu(0)}, {x.gpu(1)}\nDisco duro: {x.disk} GB libres\n"
        )

    uses = "ram disk os"
    return part("Requisitos mínimos", a) + part("Requisitos recomendados", b), (
        t(a, "Minimum", uses, kind="hard disk"),
        t(b, "Recommended", uses, kind="hard disk"),
    )


def arrows(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"--> {head} ({x.p} / {x.preset} / {x.fps} fps)\n   * CPU » {x.cpus[0]}\n"
            f"   * GPU » {x.gpu(0)}\n   * RAM » {x.ram} GB\n   * SSD » {x.disk} GB\n"
        )

    uses = "ram disk res preset fps"
    return part("MINIMUM", a) + part("RECOMMENDED", b), (
        t(a, "Minimum", uses, 1, 1, kind="SSD"),
        t(b, "Recommended", uses, 1, 1, kind="SSD"),
    )


def get_going(a: Level, b: Level):
    text = (
        f"To get going you want a {a.cpus[0]} or {a.cpus[1]}, {a.ram} GB of memory and something like"
        f" a {a.gpu(0)}; for the full experience at {b.p} and {b.fps} fps on {b.preset}, bring a"
        f" {b.cpus[0]} or {b.cpus[1]}, {b.ram} GB of memory and a {b.gpu(0)}."
    )
    return text, (
        t(a, "Minimum", "ram", 2, 1),
        t(b, "Recommended", "ram res preset fps", 2, 1),
    )


def resolution_rows(a: Level, b: Level):
    def part(x: Level) -> str:
        return (
            f"{x.res[0]} x {x.res[1]}, {x.fps} frames: {x.cpus[0]} with {x.gpu(0)}, {x.ram} GB of"
            " memory\n"
        )

    uses = "ram res fps"
    return "What you need, by resolution\n" + part(a) + part(b), (
        t(a, f"{a.res[0]}x{a.res[1]}", uses, 1, 1),
        t(b, f"{b.res[0]}x{b.res[1]}", uses, 1, 1),
    )


def double_slash(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head} // CPU {x.cpus[0]} or {x.cpus[1]} // GPU {x.gpu(0)} or {x.gpu(1)} // RAM {x.ram}"
            f" GB // {x.disk} GB SSD\n"
        )

    return part("MIN", a) + part("REC", b), (
        t(a, "Min", "ram disk", kind="SSD"),
        t(b, "Rec", "ram disk", kind="SSD"),
    )


def rows_are_tiers(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"| {head} | {x.cpus[0]}, {x.cpus[1]} | {x.gpu(0)}, {x.gpu(1)} | {x.ram} GB | {x.disk} GB |"
            f" {x.p} {x.fps} fps |\n"
        )

    head = "| Level | CPU | GPU | RAM | Storage | Aim |\n| --- | --- | --- | --- | --- | --- |\n"
    uses = "ram disk res fps"
    return head + part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def dash_glued(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head} — {x.p.upper()}{x.fps}\nCPU: {x.cpus[0]}\nGPU: {x.gpu(0)}\nMEMORY: {x.ram}GB\n"
            f"STORAGE: {x.disk}GB SSD\n\n"
        )

    uses = "ram disk res fps"
    return part("ENTRY", a) + part("ENTHUSIAST", b), (
        t(a, "Entry", uses, 1, 1, kind="SSD"),
        t(b, "Enthusiast", uses, 1, 1, kind="SSD"),
    )


def in_words(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}: {x.cpus[0]}; {WORDS[x.ram]} gigabytes of memory; {x.gpu(0)};"
            f" {WORDS[x.fps]} frames per second at {x.p}; {WORDS[x.disk]} gigabytes of storage.\n"
        )

    uses = "ram disk res fps"
    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", uses, 1, 1),
        t(b, "Recommended", uses, 1, 1),
    )


def for_all_at_the_end(a: Level, b: Level):
    text = (
        f"Minimum: {a.cpus[0]}, {a.gpu(0)}, {a.ram} GB RAM\nRecommended: {b.cpus[0]}, {b.gpu(0)},"
        f" {b.ram} GB RAM\nIn both cases: {b.disk} GB for the installation, on a solid-state drive.\n"
    )
    same = {"disk": b.disk, "kind": "SSD"}
    return text, (t(a, "Minimum", "ram", 1, 1, **same), t(b, "Recommended", "ram", 1, 1, **same))


def makers_first(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        makers = "/".join(name.split()[0] for name in x.cpus)
        models = " / ".join(" ".join(name.split()[1:]) for name in x.cpus)
        return (
            f"{head}\n{makers}: {models}\nGraphics: {x.gpu(0)} or similar\nMemory: {x.ram} GB\n\n"
        )

    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", "ram", 2, 1),
        t(b, "Recommended", "ram", 2, 1),
    )


def italian_labels(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\nSistema operativo: {x.os}\nProcessore: {x.cpus[0]} oppure {x.cpus[1]}\n"
            f"Memoria: {x.ram} GB di RAM\nScheda video: {x.gpu(0)} oppure {x.gpu(1)}\n"
            f"Archiviazione: {x.disk} GB di spazio disponibile\n"
        )

    uses = "ram disk os"
    return part("MINIMI:", a) + part("CONSIGLIATI:", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def polish_prose(a: Level, b: Level):
    text = (
        f"Wymagania minimalne: procesor {a.cpus[0]} lub {a.cpus[1]}, {a.ram} GB pamięci RAM, karta"
        f" {a.gpu(0)}, {a.disk} GB wolnego miejsca. Wymagania zalecane: procesor {b.cpus[0]} lub"
        f" {b.cpus[1]}, {b.ram} GB pamięci RAM, karta {b.gpu(0)}, {b.disk} GB wolnego miejsca."
    )
    return text, (
        t(a, "Minimum", "ram disk", 2, 1),
        t(b, "Recommended", "ram disk", 2, 1),
    )


def portuguese_prose(a: Level, b: Level):
    text = (
        f"No mínimo: {a.cpus[0]} ou {a.cpus[1]}, {a.ram} GB de memória, {a.gpu(0)} e {a.disk} GB em"
        f" disco. O recomendado: {b.cpus[0]} ou {b.cpus[1]}, {b.ram} GB de memória, {b.gpu(0)} e"
        f" {b.disk} GB em disco."
    )
    return text, (
        t(a, "Minimum", "ram disk", 2, 1),
        t(b, "Recommended", "ram disk", 2, 1),
    )


def dutch_labels(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\nBesturingssysteem: {x.os}\nProcessor: {x.cpus[0]} of {x.cpus[1]}\n"
            f"Geheugen: {x.ram} GB\nVideokaart: {x.gpu(0)} of {x.gpu(1)}\nOpslag: {x.disk} GB\n\n"
        )

    uses = "ram disk os"
    return part("Minimale systeemeisen", a) + part("Aanbevolen systeemeisen", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def asked(a: Level, b: Level):
    text = (
        f"Q: What is the least that runs it?\nA: A {a.cpus[0]} or {a.cpus[1]}, {a.ram} GB RAM and a"
        f" {a.gpu(0)}.\n\nQ: And what should I have?\nA: A {b.cpus[0]} or {b.cpus[1]}, {b.ram} GB RAM"
        f" and a {b.gpu(0)}; that holds {b.fps} fps at {b.p}.\n"
    )
    return text, (
        t(a, "Minimum", "ram", 2, 1),
        t(b, "Recommended", "ram res fps", 2, 1),
    )


def bullets(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return f"• {head} → {x.cpus[0]} · {x.gpu(0)} · {x.ram} GB · {x.p} {x.preset}, {x.fps} fps\n"

    uses = "ram res preset fps"
    return part("Minimum setup", a) + part("Sweet spot", b), (
        t(a, "Minimum", uses, 1, 1),
        t(b, "Sweet spot", uses, 1, 1),
    )


def nested(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}:\n  os: {x.os}\n  cpu:\n    - {x.cpus[0]}\n    - {x.cpus[1]}\n  gpu:\n"
            f"    - {x.gpu(0)}\n    - {x.gpu(1)}\n  ram: {x.ram} GB\n  disk: {x.disk} GB\n"
        )

    uses = "ram disk os"
    return part("minimum", a) + part("recommended", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


def notes(a: Level, b: Level):
    def part(head: str, x: Level) -> str:
        return (
            f"{head}\nProcessor: {x.cpus[0]} (released 2019 or later; 4 cores will do) / {x.cpus[1]}\n"
            f"Graphics: {x.gpu(0)} (driver 512.15 or newer) / {x.gpu(1)}\n"
            f"Memory: {x.ram} GB (two sticks)\nStorage: {x.disk} GB (patches need 15 GB more for a while)\n"
        )

    uses = "ram disk"
    return part("Minimum", a) + part("Recommended", b), (
        t(a, "Minimum", uses),
        t(b, "Recommended", uses),
    )


UNTOUCHED_STYLES: tuple[Style, ...] = (
    german_labels,
    french_prose,
    spanish_labels,
    arrows,
    get_going,
    resolution_rows,
    double_slash,
    rows_are_tiers,
    dash_glued,
    in_words,
    for_all_at_the_end,
    makers_first,
    italian_labels,
    polish_prose,
    portuguese_prose,
    dutch_labels,
    asked,
    bullets,
    nested,
    notes,
)


def _samples(styles: tuple[Style, ...]) -> tuple[Sample, ...]:
    return tuple(
        Sample(style.__name__.replace("_", " "), *style(*game))
        for style in styles
        for game in GAMES
    )


TUNED, UNTOUCHED = _samples(TUNED_STYLES), _samples(UNTOUCHED_STYLES)
