"""The one stream of a browser, and the clock that its pages go by."""
