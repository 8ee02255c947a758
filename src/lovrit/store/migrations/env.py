"""How migrations run: on the connection that the application hands over."""

from alembic import context
from sqlmodel import SQLModel

import lovrit.store.tables  # noqa: F401  (fills the metadata)

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=SQLModel.metadata, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()
