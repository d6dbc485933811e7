"""Commands that ask: a proposal, an estimate, a check, published requirements."""

import argparse
import json
import sys
from pathlib import Path
from typing import Any

from wattmetron.cli.places import catalogue_of
from wattmetron.core.texts.requirements.requirements_reader import reader_of
from wattmetron.core.values.brief import SURENESS, Brief, Display
from wattmetron.core.values.build import Build
from wattmetron.formats.brief_file import read_brief, read_build
from wattmetron.places.assessment.assess import assess
from wattmetron.places.assessment.remaining import finding_remedies
from wattmetron.places.games.contenders import machine_contender
from wattmetron.places.games.game_answers import (
    draft_json,
    draft_lines,
    verdict_json,
    verdict_lines,
)
from wattmetron.places.games.library import known_games
from wattmetron.places.proposal.proposal_answers import check_json, estimate_json, proposal_json
from wattmetron.places.proposal.proposals import answer
from wattmetron.words.figures import money, settings, shown_words

MAX_TEXT_BYTES = 2_000_000


def _brief(path: Path) -> Brief:
    return read_brief(path.name, path.read_bytes())


def _build(path: Path) -> Build:
    return read_build(path.name, path.read_bytes())


def _print_json(data: Any) -> None:
    print(json.dumps(data, indent=2, ensure_ascii=False))


def propose(options: argparse.Namespace) -> int:
    catalogue, brief = catalogue_of(options), _brief(options.brief)
    build = _build(options.keep) if options.keep else Build()
    proposal = answer(catalogue, brief, build, options.aim)
    if options.json:
        _print_json(proposal_json(catalogue, proposal))
    else:
        print(proposal.headline)
        if proposal.assessment:
            for line in proposal.assessment.lines:
                price = (
                    "owned" if line.owned else money(line.cost_minor, proposal.assessment.currency)
                )
                print(
                    f"  {line.kind:10} {line.part.name if line.part else line.part_id:44}"
                    f" {price:>14}"
                )
            _print_frames(proposal.assessment)
        for saving in proposal.savings:
            saved = money(saving.saves_minor, catalogue.region(brief.region).currency)
            print(f"  {saving.now} becomes {saving.then}: saves {saved}")
        for sentence in proposal.account:
            print(sentence)
        for relaxation in proposal.relaxations:
            cost = money(relaxation.cost_minor, catalogue.region(brief.region).currency)
            print(f"  Would do: {relaxation.sentence}: {cost}")
    return 0 if proposal.assessment else 1


def _print_frames(assessment: Any) -> None:
    for estimate in assessment.estimates:
        if estimate is None:
            continue
        print(
            f"  {estimate.game.name:20} {settings(estimate.target):36} {estimate.judged_fps:6.0f}"
            f" fps{shown_words(estimate)}"
            f" ({estimate.judged_low_fps:.0f}–{estimate.judged_high_fps:.0f}) of"
            f" {estimate.target.fps:g}:"
            f" {estimate.state}, limited by {estimate.limit_words}"
        )


def estimate(options: argparse.Namespace) -> int:
    catalogue = catalogue_of(options)
    assessment = assess(catalogue, _brief(options.brief), _build(options.build))
    if options.json:
        _print_json(estimate_json(assessment))
    else:
        _print_frames(assessment)
    return 0


def check(options: argparse.Namespace) -> int:
    catalogue, build = catalogue_of(options), _build(options.build)
    if options.brief:
        brief = _brief(options.brief)
    else:
        region = next(iter(catalogue.regions), "")
        brief = Brief(
            name="check", region=region, budget_low_minor=0, budget_high_minor=0, display=Display()
        )
    assessment = assess(catalogue, brief, build)
    if options.json:
        _print_json(check_json(catalogue, assessment))
    else:
        for finding in assessment.findings:
            print(f"{finding.level}: {finding.sentence} {finding.advice}")
            for remedy in finding_remedies(catalogue, assessment, finding):
                print(
                    f"    {remedy.part.name}: {money(remedy.delivered_minor, assessment.currency)}"
                )
        if not assessment.findings:
            print("No findings.")
        if assessment.missing:
            print(f"Still missing: {', '.join(assessment.missing)}.")
    return 1 if assessment.blocking else 0


def requirements(options: argparse.Namespace) -> int:
    return _read_text(options) if options.action == "read" else _verdict(options)


def _read_text(options: argparse.Namespace) -> int:
    data = (
        sys.stdin.buffer.read(MAX_TEXT_BYTES)
        if options.file == "-"
        else Path(options.file).read_bytes()[:MAX_TEXT_BYTES]
    )
    draft = reader_of(catalogue_of(options)).read(
        data.decode("utf-8-sig", errors="replace").replace("\r\n", "\n")
    )
    if options.json:
        _print_json(draft_json(draft))
    else:
        print("\n".join(draft_lines(draft)))
    return 0


def _verdict(options: argparse.Namespace) -> int:
    """0 where every game's lowest tier is met, else 1."""
    catalogue = catalogue_of(options)
    contender = machine_contender(catalogue.machine(_build(options.build)), options.system)
    games = known_games(catalogue, options.games or list(catalogue.published))
    verdicts = verdict_json(catalogue, contender, SURENESS[options.sureness], games)
    if options.json:
        _print_json(verdicts)
    else:
        print("\n".join(verdict_lines(verdicts)))
    lowest = [game["tiers"][0]["verdict"] for game in verdicts["games"] if game["tiers"]]
    return 0 if all(word in ("meets", "not asked") for word in lowest) else 1
