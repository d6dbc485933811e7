"""What is wrong with a file, gathered so that all of it can be said at once."""

from dataclasses import dataclass

from wattmetron.core.errors import InvalidError

SHOWN = 50


@dataclass(frozen=True, slots=True, kw_only=True)
class Problem:
    """One thing wrong: file, line (1 is the header), column, what stands there, what should."""

    file: str
    line: int | None
    column: str
    actual: str
    expected: str

    def __str__(self) -> str:
        location = self.file
        if self.line is not None:
            location += f", line {self.line}"
        if self.column:
            location += f", column {self.column}"
        shown = self.actual if len(self.actual) <= 60 else self.actual[:57] + "…"
        return f"{location}: found {shown}; expected {self.expected}."


def add_problem(
    problems: list[Problem],
    file: str,
    *,
    actual: str,
    expected: str,
    line: int | None = None,
    column: str = "",
) -> None:
    """Puts down one thing wrong; without a line it concerns the whole file."""
    problems.append(Problem(file=file, line=line, column=column, actual=actual, expected=expected))


class FormatError(InvalidError):
    """A file or folder that cannot be read; holds every problem found, nothing was written."""

    def __init__(self, problems: list[Problem]) -> None:
        self.problems = problems
        count = len(problems)
        lines = [str(problem) for problem in problems[:SHOWN]]
        if count > SHOWN:
            lines.append(f"… and {count - SHOWN} more.")
        head = (
            "1 problem, nothing was imported:"
            if count == 1
            else f"{count} problems, nothing was imported:"
        )
        super().__init__("\n".join([head, *lines]))
