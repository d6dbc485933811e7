"""Writes docs/glossary.md, the generated parts of docs/formats.md and docs/rules.md, and
docs/schemas: ``make docs``.
"""

from pathlib import Path

from tools.glossary import glossary_markdown
from wattmetron.core.compatibility.rules import rules_markdown
from wattmetron.formats.document import schema_files, tables_markdown

DOCS = Path(__file__).parent.parent / "docs"
MARK = "<!-- generated: columns -->\n"
RULES_MARK = "<!-- generated: rules -->\n"


def main() -> None:
    path = DOCS / "formats.md"
    head, _, _ = path.read_text().partition(MARK)
    path.write_text(head + MARK + "\n" + tables_markdown())
    rules = DOCS / "rules.md"
    head, _, _ = rules.read_text().partition(RULES_MARK)
    rules.write_text(head + RULES_MARK + "\n" + rules_markdown())
    (DOCS / "glossary.md").write_text(glossary_markdown())
    (DOCS / "schemas").mkdir(exist_ok=True)
    for name, text in schema_files().items():
        (DOCS / "schemas" / name).write_text(text)


if __name__ == "__main__":
    main()
