"""A class while it runs: a list of events, and the state that they fold to."""
