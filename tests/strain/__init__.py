"""The application under strain: random requests, kills, many users."""
