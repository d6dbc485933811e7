"""Games against a machine, what they publish, their results."""
