"""Reading: what a coach writes, as it was meant: figures have roles, and what is not sure is asked."""
