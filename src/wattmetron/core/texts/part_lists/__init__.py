"""Reading a list of parts in whatever form it comes."""
