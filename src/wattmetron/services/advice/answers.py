"""Answers as plain data for the command line and the API; fields carry their units in their
names.
"""

from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.fit.remedies import Remedy
from wattmetron.core.frames.estimate import Estimate
from wattmetron.formats.brief_file import build_file
from wattmetron.services.advice.proposals import Answer
from wattmetron.services.desk.assess import Assessment, finding_remedies
from wattmetron.services.words.figures import amount


def one_estimate(one: Estimate) -> dict[str, Any]:
    """One target's estimate."""
    return {
        "target": one.target.id,
        "game": one.target.game_id,
        "wanted_fps": one.target.fps,
        "measure": one.target.measure,
        "average_fps": round(one.average_fps, 2),
        "low_fps": round(one.low_fps, 2),
        "interval_80_fps": [round(one.judged_low_fps, 2), round(one.judged_high_fps, 2)],
        "reliable_fps": round(one.reliable_fps, 2),
        "chance": round(one.chance, 4),
        "state": one.state,
        "processor_ms": round(one.processor_ms, 3),
        "graphics_ms": round(one.graphics_ms, 3) if not one.cannot or one.cap_fps else None,
        "limited_by": one.limit_words,
        "processor_limited_share": round(one.processor_share, 4),
        "processor_elasticity": round(one.processor_elasticity, 4),
        "late_share": round(one.late_share, 4),
        "capped_fps": None if one.capped_fps is None else round(one.capped_fps, 2),
        "cannot": one.cannot or None,
    }


def estimate_json(assessment: Assessment) -> dict[str, Any]:
    """Estimates of all targets."""
    return {"estimates": [one_estimate(one) for one in assessment.estimates if one is not None]}


def lines_json(assessment: Assessment) -> list[dict[str, Any]]:
    """The parts with their prices."""
    return [
        {
            "kind": line.kind,
            "part": line.part_id,
            "name": line.part.name if line.part else None,
            "owned": line.owned,
            "kept": line.kept,
            "delivered": None if line.offer is None else amount(line.offer.delivered_minor),
            "shop": None if line.offer is None else line.offer.shop,
            "seen_on": None if line.offer is None else line.offer.seen_on.isoformat(),
        }
        for line in assessment.lines
    ]


def check_json(catalogue: Catalogue, assessment: Assessment) -> dict[str, Any]:
    """Findings with remedies, and what is missing."""
    return {
        "missing": list(assessment.missing),
        "floors": list(assessment.floors),
        "findings": [
            {
                "rule": finding.rule,
                "level": finding.level,
                "kinds": list(finding.kinds),
                "sentence": finding.sentence,
                "advice": finding.advice,
                "figures": [
                    {"label": figure.label, "value": figure.value, "unit": figure.unit}
                    for figure in finding.figures
                ],
                "remedies": [
                    _remedy(remedy) for remedy in finding_remedies(catalogue, assessment, finding)
                ],
            }
            for finding in assessment.findings
        ],
    }


def _remedy(remedy: Remedy) -> dict[str, Any]:
    return {
        "kind": remedy.kind,
        "part": remedy.part.id,
        "delivered": amount(remedy.delivered_minor),
    }


def assessment_json(catalogue: Catalogue, assessment: Assessment) -> dict[str, Any]:
    """Everything about a build."""
    return {
        "build": build_file(assessment.build).model_dump(mode="json"),
        "currency": assessment.currency,
        "parts_cost": amount(assessment.parts_minor),
        "total_cost": amount(assessment.spent_minor),
        "targets_met": assessment.met,
        "targets_counted": len(assessment.counted),
        "lines": lines_json(assessment),
        **estimate_json(assessment),
        **check_json(catalogue, assessment),
        "power": {
            "gaming_w": (
                None if assessment.draw.gaming_w is None else round(assessment.draw.gaming_w)
            ),
            "full_w": assessment.draw.full_w,
            "spike_w": assessment.draw.spike_w,
            "needed_supply_w": assessment.needed_w,
        },
    }


def proposal_json(catalogue: Catalogue, found: Answer) -> dict[str, Any]:
    """A proposal with its account, or the reasons why there is none."""
    proposal = found.proposal
    return {
        "aim": proposal.aim,
        "found": found.assessment is not None,
        "headline": found.headline,
        "account": list(found.account),
        "weight_met": proposal.weight_met,
        "weight_all": proposal.weight_all,
        "gain_millionths": proposal.gain,
        "reasons": [
            {"kind": one.kind, "part": one.name, "why": one.sentence} for one in found.reasons
        ],
        "relaxations": [
            {"change": one.sentence, "total_cost": amount(one.cost_minor)}
            for one in found.relaxations
        ],
        **(assessment_json(catalogue, found.assessment) if found.assessment else {"build": None}),
    }
