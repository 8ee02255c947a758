"""The library of moves: what each trains, needs and takes, and the ways round it."""
