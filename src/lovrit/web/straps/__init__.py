"""Straps: who wears which, what each tells, and the door by which they tell it."""
