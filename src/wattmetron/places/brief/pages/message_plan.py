"""What a message that was read makes of a plan."""

from dataclasses import replace

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.errors import BriefError
from wattmetron.core.texts.part_lists.list_lines import SentList
from wattmetron.core.texts.part_lists.part_list_reader import read_list
from wattmetron.core.values.brief import BRIEF
from wattmetron.core.values.games import PRESETS
from wattmetron.core.values.part_kinds import KIND_NAMES
from wattmetron.core.values.part_types import kind_of
from wattmetron.core.values.plan import Plan
from wattmetron.places.assessment.named import part_named
from wattmetron.places.brief.message_import import (
    Wanted,
    WantedGame,
    plan_from,
)
from wattmetron.places.brief.pages.forms import general_values
from wattmetron.places.brief.pages.message_page import FLAGS, LISTS
from wattmetron.places.brief.pages.sent_panel import typed_lines
from wattmetron.places.brief.sent_lists import tastes_of, with_list
from wattmetron.shell.forms import Typed, read_number
from wattmetron.workshop.plan_checks import usual_plan


def plan_with_list(catalogue: Catalogue, usual: Plan, entries: Typed) -> Plan:
    """The plan that the corrected entries make, with the list's parts as its build; raises
    BriefError for what cannot be read.
    """
    plan = plan_of(catalogue, usual, entries)
    text = entries.get("letter", "")
    sent_list = read_list(catalogue, text) if text.strip() else SentList(())
    lines = typed_lines(catalogue, sent_list, entries)
    if not lines:
        return plan
    ids = {sent_part.best.part_id for sent_part in sent_list.parts if sent_part.best}
    tastes = tastes_of(catalogue, usual_plan(catalogue, usual.brief.region).brief, ids)
    used = [taste for n, taste in enumerate(tastes) if f"taste.{n}" in entries]
    name = plan.brief.name if plan.brief.targets else "Sent-in list"
    plan = replace(plan, brief=replace(plan.brief, name=name))
    return with_list(catalogue, plan, lines, used)


def plan_of(catalogue: Catalogue, usual: Plan, entries: Typed) -> Plan:
    """The plan that the corrected entries make; raises BriefError for what cannot be read."""
    used = {
        name: value
        for name, value in entries.items()
        if value.strip() and (name in ALWAYS or f"use.{name}" in entries)
    }
    fields = general_values(used | {"group": "letter"}, usual.brief)
    display = fields.pop("display")
    fields |= {name: True for name in FLAGS if f"use.{name}" in entries}
    if entries.get("used"):
        fields["allow_used"] = entries["used"] == "yes"
    for name in LISTS:
        known = next(spec for spec in BRIEF if spec.name == name)
        values = tuple(key.split(".", 2)[2] for key in entries if key.startswith(f"list.{name}."))
        if values:
            fields[name] = tuple(
                value for value in values if not known.options or value in known.options
            )
    wants = Wanted(
        fields=fields
        | {"size": (display.width_px, display.height_px), "refresh_hz": display.refresh_hz},
        games=tuple(_typed_games(catalogue, entries)),
        upscaling={"yes": True, "no": False}.get(entries.get("upscaling", "")),
        generated={"yes": True, "no": False}.get(entries.get("generated", "")),
        owned=tuple(_typed_parts(catalogue, entries)),
        unnamed=(),
    )
    return plan_from(catalogue, usual, wants)


ALWAYS = frozenset({"budget_low", "budget_high", "region", "size", "refresh_hz"})


def _typed_games(catalogue: Catalogue, entries: Typed) -> list[WantedGame]:
    games = []
    for key in entries:
        head, _, game_id = key.partition(".")
        if head != "game" or game_id not in catalogue.games:
            continue
        name = catalogue.games[game_id].name
        fps = entries.get(f"fps.{game_id}", "").strip()
        preset = entries.get(f"preset.{game_id}", "")
        games.append(
            WantedGame(
                game_id=game_id,
                fps=read_number(fps, f"The frame rate of {name}") if fps else None,
                preset=next(
                    (preset_name for preset_name in PRESETS if preset_name == preset), None
                ),
                ray_tracing=f"rays.{game_id}" in entries,
            )
        )
    return games


def _typed_parts(catalogue: Catalogue, entries: Typed) -> list[str]:
    parts = [key.partition(".")[2] for key in entries if key.startswith("part.")]
    known = [part_id for part_id in parts if part_id in catalogue.parts]
    for key, text in entries.items():
        kind = key.removeprefix("own.")
        if key.startswith("own.") and kind in KIND_NAMES and text.strip():
            part_id = part_named(catalogue, text)
            if kind_of(catalogue.part(part_id)) != kind:
                raise BriefError(
                    f"{catalogue.part(part_id).name} is no {KIND_NAMES[kind]}: name the"
                    f" {KIND_NAMES[kind]} that is owned."
                )
            known.append(part_id)
    return known
