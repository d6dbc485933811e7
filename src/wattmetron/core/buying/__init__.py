"""Where to buy what is to be bought."""
