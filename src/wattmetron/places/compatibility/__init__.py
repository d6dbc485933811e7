"""What goes together: cures, room to grow, power, tuning, assembly."""
