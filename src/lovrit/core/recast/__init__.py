"""The same moves in another structure, and what that changes."""
