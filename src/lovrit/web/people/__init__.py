"""People: the club's list, whoever comes tonight."""
