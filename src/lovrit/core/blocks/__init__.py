"""The spine: a file a kind of block, with all that is known of it; kinds.py puts them together.

What others ask of a block are the traits and methods of block.py; nobody lists kinds.
"""
