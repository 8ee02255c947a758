"""How a load of several reps and what is lifted once go together (Epley 1985); to be checked, as all of its kind."""

EPLEY = 30


def reps_at(share: float) -> float:
    """Reps that most do of a load that is a share (above 0) of what they lift once."""
    return EPLEY * (1 / share - 1)


def lifted_once(kg: float, reps: float) -> float:
    """Kilograms that would be lifted once, by a load that was lifted so often."""
    return kg if reps <= 1 else kg * (1 + reps / EPLEY)
