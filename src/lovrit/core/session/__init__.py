"""What a coach writes: the model of a session, and the slate that it is read from and written to."""
