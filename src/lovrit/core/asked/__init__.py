"""What a session, or what was done of it, asks of people: one measure, under all that weighs or foretells it."""
