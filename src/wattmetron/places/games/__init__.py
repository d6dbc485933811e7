"""The collection of games: published tiers, results, what is learnt from them."""
