"""The Desk: a session is written, drawn and looked at twice."""
