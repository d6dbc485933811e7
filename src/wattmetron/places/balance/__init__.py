"""Processor and graphics within the budget: frontier, map, steps, what wishes cost."""
