"""Run: a class on the floor, on the coach's screen and on the wall."""
