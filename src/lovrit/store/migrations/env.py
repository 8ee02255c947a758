"""How migrations run: on the connection, and in the one transaction, that the application hands over."""

from alembic import context
from sqlmodel import SQLModel

import lovrit.store.tables  # noqa: F401  (fills the metadata)

context.configure(
    connection=context.config.attributes["connection"],
    target_metadata=SQLModel.metadata,
    render_as_batch=True,
    transactional_ddl=True,
)
context.run_migrations()
