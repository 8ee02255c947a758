"""People: who comes, what steers them, and their groups."""
