"""What runs: the house with its clock and file, classes that are on, who is signed in, what screens are told."""
