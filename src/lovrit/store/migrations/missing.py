"""Tables and columns made where they are missing: an earlier Lovrit that was killed may have left some of them."""

from typing import Any

import sqlalchemy as sa
from alembic import op


def add_table(name: str, *columns: sa.Column[Any] | sa.Constraint, **options: Any) -> None:
    """Make a table unless it is there."""
    if name not in sa.inspect(op.get_bind()).get_table_names():
        op.create_table(name, *columns, **options)


def add_index(name: str, table: str, column: str) -> None:
    """Make an index over a column unless it is there."""
    if name not in {one["name"] for one in sa.inspect(op.get_bind()).get_indexes(table)}:
        op.create_index(name, table, [column])


def add_column(table: str, column: sa.Column[Any]) -> None:
    """Add a column to a table unless it has it."""
    if column.name not in {one["name"] for one in sa.inspect(op.get_bind()).get_columns(table)}:
        op.add_column(table, column)
