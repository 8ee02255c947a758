"""How the tables came to be as they are, one file a step."""
