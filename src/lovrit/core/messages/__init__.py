"""Messages: whole texts as people send them, made a slate, questions and notes."""
