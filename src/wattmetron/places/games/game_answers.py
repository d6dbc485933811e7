"""Drafts, verdicts and alternatives as plain data for the command line and the API."""

from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.requirements.agreement import doubts_of
from wattmetron.core.requirements.verdicts import Contender, TierVerdict
from wattmetron.core.texts.requirements.draft import Draft, PartMark
from wattmetron.core.values.published import SIDES, Tier
from wattmetron.formats.requirements_file import tier_document
from wattmetron.places.assessment.part_alternatives import Alternatives
from wattmetron.places.games.library import game_facts
from wattmetron.words.figures import amount
from wattmetron.words.tier_words import tier_label


def draft_json(draft: Draft) -> dict[str, Any]:
    """What a text was read as: tiers, fragments with what they were taken for, and what was not
    read.
    """
    return {
        "tiers": [tier_document(tier) for tier in draft.tiers],
        "fragments": [_mark(draft, mark) for mark in draft.marks],
        "unread": list(draft.unread_texts),
    }


def _mark(draft: Draft, mark: Any) -> dict[str, Any]:
    document = {
        "start": mark.start,
        "end": mark.end,
        "text": draft.text[mark.start : mark.end],
        "taken_for": mark.what,
        "tier": mark.tier,
        "confidence": round(mark.confidence, 3),
    }
    if isinstance(mark, PartMark):
        document["matches"] = [
            {"part": match.part, "name": match.name, "confidence": round(match.confidence, 3)}
            for match in mark.matches
        ]
        document["remark"] = mark.why or None
    return document


def draft_lines(draft: Draft) -> list[str]:
    """A draft for people to read."""
    lines = []
    for n, tier in enumerate(draft.tiers):
        lines.append(f"{tier_label(tier.label, n)}:")
        for side in SIDES:
            lines += [f"  {side:16} {words}" for words in _listed(draft, tier, n, side)]
        lines += [f"  {name:16} {words}" for name, words in _values(tier) if words]
    if draft.unread:
        lines.append("Not read: " + "; ".join(f"“{text}”" for text in draft.unread_texts))
    return lines


def _listed(draft: Draft, tier: Tier, n: int, side: Any) -> list[str]:
    documents = []
    for index, listed in enumerate(tier.listed(side)):
        mark = draft.part_mark(n, side, index)
        memory = f" {listed.memory_gb:g} GB" if listed.memory_gb else ""
        if listed.figures_only:
            meant = "clock or cores alone: no speed follows"
        elif listed.part is None:
            meant = "not in the catalogue"
        else:
            meant = f"{listed.part}, {mark.confidence:.0%} sure" if mark else listed.part
        documents.append(f"{listed.text}{memory} ({meant})")
    return documents


def _values(tier: Tier) -> list[tuple[str, str]]:
    def gb(value: float | None) -> str:
        return "" if value is None else f"{value:g} GB"

    size = "" if tier.width_px is None else f"{tier.width_px}x{tier.height_px}"
    fps = "" if tier.fps is None else f"{tier.fps:g} fps"
    return [
        ("memory", gb(tier.memory_gb)),
        ("video memory", gb(tier.video_memory_gb)),
        ("storage", " ".join(filter(None, [gb(tier.storage_gb), tier.storage_kind or ""]))),
        ("system", tier.system),
        ("graphics API", tier.api),
        ("conditions", ", ".join(filter(None, [size, tier.preset or "", fps]))),
        ("notes", tier.notes),
    ]


def verdict_json(
    catalogue: Catalogue, contender: Contender, sureness: float, game_ids: list[str]
) -> dict[str, Any]:
    """Verdicts of a machine against games, tier by tier and aspect by aspect."""
    return {
        "machine": {
            "processor": contender.processor_name or None,
            "graphics": contender.graphics_name or None,
        },
        "sureness": sureness,
        "games": [_game(catalogue, contender, sureness, game_id) for game_id in game_ids],
    }


def _game(
    catalogue: Catalogue, contender: Contender, sureness: float, game_id: str
) -> dict[str, Any]:
    facts = game_facts(catalogue, game_id, contender, sureness)
    return {
        "game": game_id,
        "name": facts.game.name,
        "tiers": [_tier(verdict, n) for n, verdict in enumerate(facts.verdicts)],
        "doubts": [
            {"rule": doubt.rule, "tier": doubt.tier, "sentence": doubt.sentence}
            for doubt in doubts_of(catalogue, game_id)
        ],
    }


def _tier(verdict: TierVerdict, n: int) -> dict[str, Any]:
    return {
        "tier": tier_label(verdict.tier.label, n),
        "verdict": verdict.word,
        "aspects": [
            {
                "aspect": aspect.aspect,
                "verdict": aspect.word,
                "ratio": None if aspect.ratio is None else round(aspect.ratio, 4),
                "chance": None if aspect.chance is None else round(aspect.chance, 4),
                "asked": aspect.required,
                "had": aspect.had or None,
            }
            for aspect in verdict.aspects
        ],
    }


def verdict_lines(answer: dict[str, Any]) -> list[str]:
    """Verdicts for people to read."""
    lines = []
    for game in answer["games"]:
        lines.append(game["name"])
        if not game["tiers"]:
            lines.append("  publishes no tier")
        for tier in game["tiers"]:
            words = [
                f"{item['aspect']} {item['verdict']}"
                + (f" {item['ratio']:.2f}" if item["ratio"] is not None else "")
                for item in tier["aspects"]
            ]
            lines.append(f"  {tier['tier']:14} {tier['verdict']:10} {', '.join(words)}")
        lines += [f"  in doubt: {item['sentence']}" for item in game["doubts"]]
    return lines


def signed_amount(minor: int) -> str:
    return ("-" if minor < 0 else "") + amount(abs(minor))


def alternatives_json(alternatives: Alternatives) -> dict[str, Any]:
    """Parts as good, cheapest first."""
    return {
        "part": alternatives.wanted.key,
        "name": alternatives.wanted.name,
        "currency": alternatives.currency,
        "delivered": None if alternatives.named_minor is None else amount(alternatives.named_minor),
        "equals": [
            {
                "part": row.part.id,
                "name": row.part.name,
                "delivered": amount(row.offer.cost_minor),
                "saving": None if row.saving_minor is None else signed_amount(row.saving_minor),
                "speed_ratio": round(row.ratio, 4),
                "chance_as_good": round(row.chance, 4),
                "condition": row.offer.condition,
                "shop": row.offer.shop,
            }
            for row in alternatives.rows
        ],
        "not_shown": alternatives.hidden,
    }
