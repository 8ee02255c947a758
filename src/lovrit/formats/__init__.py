"""A session or a class written as, and read from, open formats."""
