"""The ground everything in the core stands on: frozen values and the one family of errors.

Values compare by content and never change; whoever wants another one makes another one.
"""

from pydantic import BaseModel, ConfigDict


class Value(BaseModel):
    """A frozen value that refuses fields it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)


class LovritError(Exception):
    """Something a person can cause. ``str(error)`` is the sentence that the person reads."""
