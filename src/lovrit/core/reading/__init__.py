"""Reading: the roles of figures and words in what a coach writes, and the blocks that they make."""
