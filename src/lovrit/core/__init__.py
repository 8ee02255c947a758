"""The job itself: pure functions on frozen values, with no web, database, clock or chance of their own."""
