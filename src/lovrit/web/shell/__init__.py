"""What every page shares: the frame, the words, the way on after a mistake."""
