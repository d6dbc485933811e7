"""Small marks that always stand beside their word: target states and finding levels."""

from markupsafe import Markup

_STATES = {
    "meets": '<rect x="1" y="1" width="9" height="9" class="i-ink"/>',
    "unsure": (
        '<rect x="1" y="1" width="9" height="9" class="s-ink"/><rect x="1" y="5.5" width="9"'
        ' height="4.5" class="i-ink"/>'
    ),
    "short": '<rect x="1" y="1" width="9" height="9" class="s-ink"/>',
}
_LEVELS = {
    "blocks": (
        '<rect x="1" y="1" width="12" height="12" class="s-ink"/><path d="M1 7H13M7 1V13"'
        ' class="s-ink"/>'
    ),
    "do first": '<path d="M1 7H12M8 3L12 7L8 11" class="s-ink"/>',
    "wastes": '<path d="M1 12L13 12L13 3Z" class="s-ink"/>',
    "good to know": '<path d="M2 2H8M2 2V8" class="s-ink"/>',
}


def state_mark(state: str) -> Markup:
    return Markup(f'<svg viewBox="0 0 11 11" aria-hidden="true">{_STATES[state]}</svg>')


def level_mark(level: str) -> Markup:
    return Markup(f'<svg viewBox="0 0 14 14" aria-hidden="true">{_LEVELS[level]}</svg>')
