"""Club: what this club holds where coaches disagree, and the remarks that aren't for it."""
