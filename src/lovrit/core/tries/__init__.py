"""Tries: what a coach said where a session broke, what that proposes for the group, what nobody here has done."""
