"""Hearts: what a heart is asked for, and how it answers."""
