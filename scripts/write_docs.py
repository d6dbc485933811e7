"""Writes the generated part of docs/formats.md and docs/schemas: ``make docs``."""

from pathlib import Path

from wattmetron.formats.document import schema_files, tables_markdown

DOCS = Path(__file__).parent.parent / "docs"
MARK = "<!-- generated: columns -->\n"


def main() -> None:
    path = DOCS / "formats.md"
    head, _, _ = path.read_text().partition(MARK)
    path.write_text(head + MARK + "\n" + tables_markdown())
    (DOCS / "schemas").mkdir(exist_ok=True)
    for name, text in schema_files().items():
        (DOCS / "schemas" / name).write_text(text)


if __name__ == "__main__":
    main()
