"""View models: what templates show, already put into words and figures."""
