"""Mine: a member's own pages by their own link: I come, what I did, a session alone, what is kept of me."""
