"""Answers as plain data for the command line and the API; fields carry their units in their
names.
"""

from typing import Any

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.compatibility.remedies import Remedy
from wattmetron.core.frames.estimate import Estimate
from wattmetron.formats.brief_file import build_file
from wattmetron.places.assessment.all_targets import together
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.assessment.remaining import finding_remedies
from wattmetron.places.proposal.leftover_budget import rest_of
from wattmetron.places.proposal.no_answer import Answer
from wattmetron.places.proposal.proposals import reasons_of
from wattmetron.words.figures import amount


def one_estimate(estimate: Estimate) -> dict[str, Any]:
    """One target's estimate."""
    return {
        "target": estimate.target.id,
        "game": estimate.target.game_id,
        "wanted_fps": estimate.target.fps,
        "measure": estimate.target.measure,
        "average_fps": round(estimate.average_fps, 2),
        "low_fps": round(estimate.low_fps, 2),
        "generated": estimate.generated,
        "judged_fps": round(estimate.judged_fps, 2),
        "generation_lag_ms": round(estimate.generation_lag_ms, 2),
        "interval_80_fps": [round(estimate.judged_low_fps, 2), round(estimate.judged_high_fps, 2)],
        "reliable_fps": round(estimate.reliable_fps, 2),
        "chance": round(estimate.chance, 4),
        "state": estimate.state,
        "processor_ms": round(estimate.processor_ms, 3),
        "graphics_ms": round(estimate.graphics_ms, 3)
        if not estimate.cannot or estimate.cap_fps
        else None,
        "limited_by": estimate.limit_words,
        "processor_limited_share": round(estimate.processor_share, 4),
        "processor_elasticity": round(estimate.processor_elasticity, 4),
        "late_share": round(estimate.late_share, 4),
        "capped_fps": None if estimate.capped_fps is None else round(estimate.capped_fps, 2),
        "cannot": estimate.cannot or None,
    }


def estimate_json(assessment: Assessment) -> dict[str, Any]:
    """Estimates of all targets."""
    return {
        "estimates": [
            one_estimate(estimate) for estimate in assessment.estimates if estimate is not None
        ]
    }


def lines_json(assessment: Assessment) -> list[dict[str, Any]]:
    """The parts with their prices."""
    return [
        {
            "kind": line.kind,
            "part": line.part_id,
            "name": line.part.name if line.part else None,
            "owned": line.owned,
            "kept": line.is_kept,
            "roles": list(line.roles),
            "delivered": None if line.offer is None else amount(line.offer.cost_minor),
            "risk": None if line.offer is None else amount(line.offer.risk_minor),
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


def rest_json(catalogue: Catalogue, assessment: Assessment) -> list[dict[str, Any]]:
    """What the money that is left could add, part by part."""
    rest = rest_of(catalogue, assessment)
    return [
        {
            "kind": addition.kind,
            "part": addition.part.id,
            "instead_of": addition.instead_of,
            "costs_more": amount(addition.cost_minor),
            "for": addition.reason,
        }
        for addition in (rest.additions if rest is not None else ())
    ]


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
        "chance_of_all": None
        if (all_of := together(catalogue, assessment)) is None
        else round(all_of.chance, 4),
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


def proposal_json(catalogue: Catalogue, answer: Answer) -> dict[str, Any]:
    """A proposal with its account, or the reasons why there is none."""
    proposal = answer.proposal
    return {
        "aim": proposal.aim,
        "found": answer.assessment is not None,
        "headline": answer.headline,
        "account": list(answer.account),
        "weight_met": proposal.weight_met,
        "weight_all": proposal.weight_all,
        "gain_millionths": proposal.gain,
        "reasons": [
            {"kind": reason.kind, "part": reason.name, "why": reason.sentence}
            for reason in reasons_of(catalogue, answer.assessment)
        ],
        "relaxations": [
            {"change": relaxation.sentence, "total_cost": amount(relaxation.cost_minor)}
            for relaxation in answer.relaxations
        ],
        "savings": [
            {
                "kind": saving.kind,
                "now": saving.now,
                "then": saving.then,
                "saves": amount(saving.saves_minor),
                "gives_up": saving.gives_up,
            }
            for saving in answer.savings
        ],
        "rest": rest_json(catalogue, answer.assessment) if answer.assessment else [],
        **(assessment_json(catalogue, answer.assessment) if answer.assessment else {"build": None}),
    }
