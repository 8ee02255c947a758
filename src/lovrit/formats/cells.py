"""CSV safely: words that a spreadsheet would take for a formula are told apart, and files that are none are said.

Spreadsheets run a cell that begins with one of these signs; a leading apostrophe makes it words, and is undone when
the file comes back.
"""

import csv
from collections.abc import Iterator
from io import StringIO
from typing import Any

from lovrit.core.values import LovritError

RUN = ("=", "+", "-", "@", "\t", "\r")


class NotCsv(LovritError):
    """A file that is no CSV."""


def told_apart(words: str) -> str:
    """Words as a cell.

    >>> told_apart("=1+1"), told_apart("Anouk")
    ("'=1+1", 'Anouk')
    """
    return f"'{words}" if words.startswith(RUN) else words


def as_written(cell: str) -> str:
    """A cell's words as they were before they were told apart.

    >>> as_written("'=1+1"), as_written("'tis")
    ('=1+1', "'tis")
    """
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(RUN) else cell


class Reader:
    """Rows of a CSV file by column, with the line that each ends on.

    Raises:
        NotCsv: where the file can't be read as one; also while it is read.
    """

    def __init__(self, text: str) -> None:
        self._rows = csv.DictReader(
            StringIO(text.removeprefix("\ufeff"), newline=""), restkey="", restval=""
        )
        try:
            self.columns = [name or "" for name in self._rows.fieldnames or ()]
        except csv.Error as error:
            raise NotCsv(f"This is not CSV: {error}.") from None

    @property
    def line(self) -> int:
        """The line that the last row ended on."""
        return self._rows.line_num

    def __iter__(self) -> Iterator[dict[str, Any]]:
        """Row after row."""
        try:
            for row in self._rows:
                yield {
                    name: as_written(cell) if isinstance(cell, str) else cell
                    for name, cell in row.items()
                }
        except csv.Error as error:
            raise NotCsv(f"Line {self.line + 1} can’t be read as CSV: {error}.") from None
