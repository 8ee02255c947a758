"""The sample club: a dragon-boat club's winter training on land, all made up."""
