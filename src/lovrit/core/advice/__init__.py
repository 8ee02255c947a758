"""The second look: what a careful colleague would say of a session before the class."""
