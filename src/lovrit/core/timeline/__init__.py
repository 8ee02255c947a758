"""A session laid on the clock: intervals end to end, and the sums that coaches ask for."""
