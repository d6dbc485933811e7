"""What evidence says of a game: items of evidence, the fit to all of it, priors."""
