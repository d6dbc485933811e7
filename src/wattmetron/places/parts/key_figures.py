"""What matters in a kind of part: in general, and for this brief and build, in short sentences."""

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.display_link import display_gbits
from wattmetron.core.compatibility.floors_of_brief import memory_floor_gb, storage_floor
from wattmetron.core.power.heat import case_heat_w
from wattmetron.core.values.part_kinds import Kind
from wattmetron.core.values.words import listed
from wattmetron.places.assessment.assess import Assessment, known_brief
from wattmetron.words.drive_words import drives_words
from wattmetron.words.figures import THIN


def what_matters(catalogue: Catalogue, now: Assessment, kind: Kind) -> tuple[str, ...]:
    """Sentences with this brief's figures; empty where nothing more can be said yet."""
    words_of = {
        "processor": _processor,
        "graphics": _graphics,
        "mainboard": _mainboard,
        "memory": _memory,
        "storage": _storage,
        "cooler": _cooler,
        "supply": _supply,
        "case": _case,
        "fan": _case,
        "wireless": _wireless,
        "display": _display,
        "system": _system,
    }.get(kind)
    return tuple(words_of(catalogue, now)) if words_of else ()


def _limited(now: Assessment, side: str) -> list[str]:
    return list(
        dict.fromkeys(
            estimate.game.name
            for estimate in now.counted
            if estimate.average_fps > 0 and estimate.limit_words == side
        )
    )


def _processor(_: Catalogue, now: Assessment) -> list[str]:
    limited, sentences = _limited(now, "processor"), []
    if limited:
        sentences.append(f"As it stands the processor limits in {listed(limited)}.")
    elif now.counted:
        sentences.append(
            "As it stands it limits in none of the targets: a faster one would bring few frames."
        )
    if now.machine.mainboard:
        board = now.machine.mainboard
        power = f", delivers {board.processor_w}{THIN}W" if board.processor_w else ""
        sentences.append(f"The board has socket {board.socket}{power}.")
    return sentences


def _graphics(catalogue: Catalogue, now: Assessment) -> list[str]:
    sentences = []
    limited = _limited(now, "graphics")
    if limited:
        sentences.append(f"As it stands graphics limit in {listed(limited)}.")
    rays = [
        catalogue.games[target.game_id].name
        for target in now.brief.counted_targets
        if target.ray_tracing and target.game_id in catalogue.games
    ]
    if rays:
        sentences.append(f"Ray tracing is asked for in {listed(rays)}.")
    if now.machine.case:
        sentences.append(f"The case takes cards up to {now.machine.case.card_length_mm}{THIN}mm.")
    if now.machine.supply:
        supply = now.machine.supply
        sentences.append(
            f"The supply has {supply.pcie_8pin} x 8-pin and {supply.pcie_16pin} x 16-pin"
            " connectors."
        )
    return sentences


def _mainboard(_: Catalogue, now: Assessment) -> list[str]:
    sentences = []
    chip = now.machine.processor
    if chip:
        sentences.append(
            f"{chip.name} needs socket {chip.socket}, {chip.memory_type} and"
            f" {chip.sustained_w}{THIN}W of delivery."
        )
    nvme = sum(drive.interface == "M.2 NVMe" for drive in now.machine.storage)
    if nvme:
        sentences.append(f"The drives need {nvme} M.2 {'slot' if nvme == 1 else 'slots'}.")
    if now.brief.wireless:
        sentences.append("Wireless is wanted.")
    return sentences


def _memory(catalogue: Catalogue, now: Assessment) -> list[str]:
    gb = memory_floor_gb(catalogue, known_brief(catalogue, now.brief))
    sentences = [f"Brief and games want {gb:g}{THIN}GB."]
    chip, board = now.machine.processor, now.machine.mainboard
    if chip:
        most = min(chip.memory_max_mts, board.memory_max_mts) if board else chip.memory_max_mts
        sentences.append(
            f"This platform uses {chip.memory_type} up to {most}{THIN}MT/s on"
            f" {chip.memory_channels} channels."
        )
    return sentences


def _storage(catalogue: Catalogue, now: Assessment) -> list[str]:
    need = storage_floor(catalogue, known_brief(catalogue, now.brief))
    return [
        f"{need.all_gb:,.0f}{THIN}GB are wanted in all: {drives_words(now.brief)}; the games take"
        f" {need.games.all_gb:,.0f}{THIN}GB with a fifth kept free."
    ]


def _cooler(_: Catalogue, now: Assessment) -> list[str]:
    sentences = []
    chip = now.machine.processor
    if chip:
        boxed = " The boxed cooler suffices." if now.machine.boxed_suffices else ""
        sentences.append(f"{chip.name} gives off {chip.sustained_w}{THIN}W sustained.{boxed}")
    if now.machine.case:
        sentences.append(f"The case takes {now.machine.case.cooler_height_mm}{THIN}mm.")
    return sentences


def _supply(_: Catalogue, now: Assessment) -> list[str]:
    if not now.machine.processor:
        return []
    card = now.machine.graphics
    plugs = (
        [
            f"{n} x {word}"
            for n, word in ((card.pcie_8pin, "8-pin"), (card.pcie_16pin, "16-pin"))
            if n
        ]
        if card
        else []
    )
    tail = f" and {listed(plugs)} for the card" if plugs else ""
    return [
        f"Here {now.needed_w}{THIN}W with headroom and reserve are needed, spikes of"
        f" {now.draw.spike_w}{THIN}W{tail}."
    ]


def _case(_: Catalogue, now: Assessment) -> list[str]:
    machine, sizes = now.machine, []
    if machine.graphics:
        sizes.append(f"a card of {machine.graphics.length_mm}{THIN}mm")
    if machine.cooler:
        sizes.append(f"a cooler of {machine.cooler.height_mm}{THIN}mm")
    if machine.mainboard:
        sizes.append(f"a {machine.mainboard.form_factor} board")
    sentences = [f"It has to take {listed(sizes)}."] if sizes else []
    if machine.processor:
        heat = f"Up to {now.draw.full_w}{THIN}W of heat"
        if machine.case:
            heat += (
                "; the case with its fans carries off about"
                f" {case_heat_w(machine.case.airflow, machine.fans)}{THIN}W"
            )
        sentences.append(f"{heat}.")
    return sentences


def _wireless(_: Catalogue, now: Assessment) -> list[str]:
    board = now.machine.mainboard
    has = "" if board is None else f" The board has {board.wireless or 'none that is known'}."
    return [f"The brief {'wants' if now.brief.wireless else 'does not ask for'} wireless.{has}"]


def _display(_: Catalogue, now: Assessment) -> list[str]:
    display = now.brief.display
    size = f"{display.width_px}x{display.height_px} at {display.refresh_hz:g}{THIN}Hz"
    return [f"The brief is for {size}, which takes {display_gbits(display):.1f}{THIN}Gbit/s."]


def _system(catalogue: Catalogue, now: Assessment) -> list[str]:
    games = {target.game_id for target in now.brief.targets}
    named = sorted(
        {
            tier.system
            for game in games
            if game in catalogue.published
            for tier in catalogue.published[game].tiers
            if tier.system
        }
    )
    return [f"The brief's games name {listed(named)}."] if named else []
