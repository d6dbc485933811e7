"""Whether the parts of a machine go together, and what to do where they do not."""
