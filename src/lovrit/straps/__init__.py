"""Heart-rate sources. What ships is a simulated strap, so that everything can be seen without a device."""
