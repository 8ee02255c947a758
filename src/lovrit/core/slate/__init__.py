"""The notation’s small parts: words, figures on a line, amounts and move lines, and why a line can’t be read."""
