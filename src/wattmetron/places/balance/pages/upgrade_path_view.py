"""The upgrade path in the Balance view: what to buy in which year."""

from collections.abc import Callable
from dataclasses import dataclass

from wattmetron.core.catalogue import Catalogue
from wattmetron.core.search.resale import RESALE_PERCENT
from wattmetron.core.values.build import Build
from wattmetron.core.values.words import counted, listed
from wattmetron.places.assessment.assess import Assessment
from wattmetron.places.balance.upgrade_path import FALL, USUAL_FALL, UpgradePath, upgrade_path
from wattmetron.words.figures import THIN, money

MOST_NAMED = 4


@dataclass(frozen=True, slots=True, kw_only=True)
class PathRow:
    """A year in which something is bought."""

    year: str
    bought: str
    costs: str
    sold: str
    back: str
    url: str


@dataclass(frozen=True, slots=True, kw_only=True)
class PathView:
    """The years with purchases, and what it all comes to in sentences."""

    rows: tuple[PathRow, ...]
    words: tuple[str, ...]


def path_view(catalogue: Catalogue, now: Assessment, trial: Callable[[Build], str]) -> PathView:
    """The path of the brief; a sentence where there is none."""
    path = upgrade_path(catalogue, now.brief, now.build)
    if path is None:
        why = (
            "Nothing on sale holds every target today, so there is no path: ease a target first."
            if now.brief.years and now.brief.counted_targets
            else "Say in the brief for how many years the machine is to be kept, and its targets."
        )
        return PathView(rows=(), words=(why,))
    rows = tuple(
        PathRow(
            year=f"in {counted(path_year.year, 'year')}" if path_year.year else "now",
            bought=_named(path_year.bought),
            costs=money(path_year.bought_minor, now.currency),
            sold=_named(path_year.sold) if path_year.sold else "nothing",
            back=money(path_year.sold_minor, now.currency) if path_year.sold_minor else "",
            url=trial(path_year.build),
        )
        for path_year in path.years
        if path_year.bought or path_year.sold or path_year.year == 0
    )
    return PathView(rows=rows, words=tuple(_words(path, now)))


def _named(names: tuple[str, ...]) -> str:
    more = len(names) - MOST_NAMED
    return listed([*names[:MOST_NAMED], f"{more} more"]) if more > 0 else listed(names)


def _words(path: UpgradePath, now: Assessment) -> list[str]:
    total, at_once = (
        money(minor, now.currency) for minor in (path.total_minor, path.at_once_minor)
    )
    saved = path.at_once_minor - path.total_minor
    against = (
        f"{money(saved, now.currency)} less than to buy the last year's machine now ({at_once})"
        if saved > 0
        else f"buying the last year's machine now costs no more ({at_once})"
    )
    sentences = [
        f"Over {len(path.years)} years, today among them, the least that holds every target is"
        f" {total}, what is sold taken off; {against}."
    ]
    if path.ends is not None:
        sentences.append(
            f"From year {path.ends} on nothing on sale today holds every target: the path ends"
            " before."
        )
    sentences.append(
        f"Assumed: games ask for {now.brief.growth_percent:g}{THIN}% more work a year; the same"
        f" card costs {FALL['graphics']:.0%}, the same processor {FALL['processor']:.0%}, other"
        f" parts {USUAL_FALL:.0%} less with each year; used parts bring {RESALE_PERCENT}% of what"
        " they cost new then.".replace("%", f"{THIN}%")
    )
    return sentences
