"""A brief: what is wanted, read from texts and lists, changed by readers and taken back in."""
