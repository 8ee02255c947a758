"""What can happen in a class: a file a kind of event, with all that is known of it; kinds.py puts them together."""
