"""Lays the templates out: ``python -m tools.format_templates [--check]``.

No tag is broken across lines; elements that are blocks, and control tags, begin lines of their own
where that adds no space between words; text is filled. A break is made only where there is white
space already or where a browser ignores it, so that what is shown stays the same.
"""

import re
import sys
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parent.parent / "src" / "wattmetron"
WIDTH, LONGEST, STEP = 100, 160, 2
BLOCKS = frozenset(
    re.findall(
        r"\w+",
        "html head body title link meta script style main nav header footer section "
        "article aside div p ul ol li dl dt dd table thead tbody tfoot tr td th caption "
        "colgroup col form fieldset legend details summary h1 h2 h3 h4 h5 h6 figure "
        "figcaption datalist option optgroup dialog template hr ",
    )
)
VOID = frozenset(
    ("area", "base", "br", "col", "hr", "img", "input", "link", "meta", "source", "wbr")
)
KEPT_AS_IS = frozenset({"pre", "textarea", "script", "style", "svg"})
OPENING = frozenset(["if", "for", "macro", "block", "call", "filter", "with", "autoescape"])
MIDDLE = frozenset({"else", "elif"})
JINJA = r"\{\{(?:(?!\}\}).)*\}\}|\{%(?:(?!%\}).)*%\}|\{#(?:(?!#\}).)*#\}"
QUOTED = rf"\"(?:{JINJA}|[^\"{{]|\{{(?![{{%#]))*\""
TAG = re.compile(
    rf"<(?P<close>/?)(?P<name>[a-zA-Z][\w-]*)(?:{JINJA}|{QUOTED}|'[^']*'|[^<>\"{{])*>", re.S
)
TOKEN = re.compile(
    rf"(?P<jinja>{JINJA})|(?P<tag>{TAG.pattern})|(?P<space>\s+)|(?P<text>[^\s<{{]+|.)", re.S
)
CLOSED_OPTION = re.compile(rf"(?:{JINJA}|[^<{{])*</option>", re.S)
HIDDEN = re.compile(r'<input type="hidden"|\{\{ (?:\w+\.)?(?:hidden|context|version)\(')
"""What is never seen: white space beside it counts as if it were not there."""
CLASSES = re.compile(rf'class="((?:{JINJA}|[^"])*)"', re.S)
STYLES = (Path(__file__).parent.parent / "assets" / "app.css").read_text()
SPREADING = frozenset(
    selector.strip()[1:]
    for selectors in re.findall(r"([^{}]+)\{[^{}]*display: (?:inline-)?(?:flex|grid)", STYLES)
    for selector in selectors.split(",")
    if re.fullmatch(r"\.[a-z][\w-]*", selector.strip())
)
"""The classes that make a flexible box or a grid."""
SPACES_SHOW = re.compile(r'class="[^"]*\b(?:lettertext|verbatim|marked)\b')
"""Elements in which every space shows; they are kept as they are."""
CONTROL = re.compile(r"\{%-?\s*(end)?(\w+)")


@dataclass
class Token:
    """A piece of a template: ``space`` whether white space stands before it; ``opens`` and
    ``closes`` whether what follows lies deeper, or it ends what does.
    """

    text: str
    kind: str
    space: bool = False
    opens: bool = False
    closes: bool = False
    spread: bool = False
    """Whether it stands directly in a flexible box or grid, where white space does not count."""

    @property
    def structural(self) -> bool:
        return self.kind in ("block", "control", "select")


def as_rendered(source: str) -> str:
    """The source without the white space that the engine drops around control tags."""
    source = re.sub(r"(%\}|#\})\n", r"\1", source)
    return re.sub(r"(?m)^[ \t]+(?=\{[%#])", "", source)


def tokens_of(source: str) -> list[Token]:
    """The tokens of a template; an element kept as it is is one."""
    tokens: list[Token] = []
    position, space = 0, False
    while position < len(source):
        match = TOKEN.match(source, position)
        assert match is not None
        position = match.end()
        if match["space"]:
            space = True
            continue
        if match["jinja"]:
            token = _jinja(match["jinja"])
        elif match["tag"]:
            name = match["name"].lower()
            kept = name in KEPT_AS_IS or SPACES_SHOW.search(match["tag"])
            if kept and not match["close"]:
                end = source.index(f"</{name}>", position) + len(name) + 3
                raw, position = source[match.start() : end], end
                if name == "svg":
                    raw = re.sub(r">\s+<", "><", " ".join(raw.split()))
                else:
                    opening = match["tag"]
                    raw = _on_one_line(opening) + raw[len(opening) :]
                token = Token(raw, "inline")
            else:
                unclosed = name == "option" and not CLOSED_OPTION.match(source, position)
                token = _tag(match["tag"], "hr" if unclosed else name, bool(match["close"]))
        else:
            token = Token(match["text"], "text")
        token.space = space
        space = False
        tokens.append(token)
    return _in_boxes(tokens)


def _in_boxes(tokens: list[Token]) -> list[Token]:
    """Marks what stands directly in a flexible box or grid, by the classes of the style sheet."""
    parents: list[tuple[str, bool]] = []
    for token in tokens:
        tag = TAG.match(token.text)
        name = tag["name"].lower() if tag else ""
        if tag and tag["close"]:
            names = [parent for parent, _ in parents]
            if name in names:
                del parents[len(names) - 1 - names[::-1].index(name) :]
        token.spread = bool(parents) and parents[-1][1]
        whole = f"</{name}>" in token.text
        if tag and not tag["close"] and name not in VOID and not whole:
            classes = CLASSES.search(token.text)
            words = set(re.sub(JINJA, " ", classes[1]).split()) if classes else set()
            parents.append((name, bool(words & SPREADING)))
    return tokens


def _jinja(text: str) -> Token:
    text = " ".join(text.split())
    control = CONTROL.match(text)
    if text.startswith("{#"):
        return Token(text, "control")
    if control is None:
        return Token(text, "hidden" if HIDDEN.match(text) else "text")
    ends, word = bool(control[1]), control[2]
    is_block_set = word == "set" and "=" not in text
    opens = not ends and (word in OPENING or is_block_set)
    return Token(text, "control", opens=opens or word in MIDDLE, closes=ends or word in MIDDLE)


def _tag(text: str, name: str, closing: bool) -> Token:
    text = _on_one_line(text)
    inline_form = 'class="inline' in text
    if name == "select":
        return Token(text, "select", opens=not closing, closes=closing)
    if name not in BLOCKS or (name == "form" and inline_form):
        return Token(text, "hidden" if HIDDEN.match(text) else "inline")
    return Token(text, "block", opens=not closing and name not in VOID, closes=closing)


def _on_one_line(tag: str) -> str:
    tag = re.sub(rf"({JINJA})|({QUOTED})|\s+", _one_space, tag, flags=re.S)
    return re.sub(r"\s+>$", ">", tag)


def _one_space(match: re.Match[str]) -> str:
    if match[1] is None and match[2] is None:
        return " "
    return " ".join(match[0].split()) if match[1] else re.sub(r"\s*\n\s*", " ", match[0])


def breakable(tokens: list[Token], position: int) -> bool:
    """Whether a line may begin before a token."""
    token, before = tokens[position], tokens[position - 1]
    if token.space or token.kind == "block" or before.kind == "block":
        return True
    if token.spread and before.spread:
        return True
    if (before.kind == "select" and before.opens) or (token.kind == "select" and token.closes):
        return True
    if token.kind == "control" and before.kind == "control":
        # Neither leaves anything: a break between them is dropped by the engine.
        return True
    while before.kind == "hidden" and position > 1:
        position -= 1
        before = tokens[position - 1]
        if tokens[position].space or before.kind == "block":
            return True
    return False


def end_of(tokens: list[Token], start: int) -> int | None:
    """The position of what closes the element or control tag that begins here, if all between is
    neither; None otherwise.
    """
    depth = 0
    for position in range(start, len(tokens)):
        token = tokens[position]
        ends = token.closes and depth == 1 and token.kind == tokens[start].kind
        if position > start and token.structural and not ends:
            return None
        depth += token.opens - token.closes
        if depth == 0:
            return position
    return None


def joined(tokens: list[Token]) -> str:
    text = ""
    for n, token in enumerate(tokens):
        text += (" " if n and token.space else "") + token.text
    return text


def laid_out(source: str) -> str:
    """The template, laid out."""
    tokens = tokens_of(as_rendered(source))
    lines: list[str] = []
    line, depth, line_depth = "", 0, 0
    branches: list[tuple[int, int | None]] = []

    def flush() -> None:
        nonlocal line
        if line.strip():
            lines.append(" " * (STEP * line_depth) + line.strip())
        line = ""

    position = 0
    while position < len(tokens):
        token = tokens[position]
        end = end_of(tokens, position) if token.opens and not token.closes else None
        group = [token]
        if end is not None:
            whole = joined(tokens[position : end + 1])
            if len(whole) + STEP * depth <= WIDTH:
                group = tokens[position : end + 1]
        text = joined(group)
        if token.kind == "control" and token.closes:
            # Of several branches, each of which may open an element, the first counts.
            start, first = branches.pop()
            first = depth if first is None else first
            whole = token.text.startswith(("{% endmacro", "{% endblock"))
            depth = start if token.opens or whole else first - 1
            if token.opens:
                branches.append((start, first))
                depth = start
        elif token.closes:
            depth -= 1
        before = tokens[position - 1] if position else None
        may = position > 0 and breakable(tokens, position)
        if before is not None and before.kind == "control" and depth <= 0 and not token.structural:
            # Without indentation the engine would drop the white space after a control tag.
            may = False
        wants = before is not None and (
            token.structural or before.structural or "hidden" in (token.kind, before.kind)
        )
        room = LONGEST if not may else WIDTH
        too_long = len(line) + len(text) + 1 + STEP * line_depth > room
        if position == 0 or (may and (wants or too_long)):
            flush()
            line_depth = max(depth, 0)
            line = text
        else:
            line += (" " if token.space and line else "") + text
        if token.opens and len(group) == 1:
            if token.kind == "control" and not token.closes:
                branches.append((depth, None))
            depth += 1
        position += len(group)
    flush()
    return "\n".join(lines) + "\n"


def main() -> int:
    check = "--check" in sys.argv
    odd = []
    for path in sorted(ROOT.rglob("*.html")):
        source = path.read_text()
        new = laid_out(source)
        if new != source:
            odd.append(path)
            if not check:
                path.write_text(new)
    if check and odd:
        print("Templates that python -m tools.format_templates would lay out otherwise:")
        print("\n".join(f"  {path.relative_to(ROOT)}" for path in odd))
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
