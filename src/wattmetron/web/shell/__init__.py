"""What every page shares: frame, macros, addresses, rendering, guards."""
