"""Heart-rate sources, which push beats. What ships is a simulated strap, so that all can be seen without a device."""
