"""What things are: parts, offers, money, games, published tiers and results, briefs, builds."""
