"""The web API: another program plans a session without the pages."""
