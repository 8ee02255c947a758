"""Rep work: turns that fill, rounds in a cap, the spread of finishers, and what scores say of it."""
