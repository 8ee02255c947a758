"""Hall: where stations stand, the loop, kit against the clock."""
