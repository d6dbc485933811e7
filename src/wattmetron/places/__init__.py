"""Where people go, each with its use cases and, in ``pages``, its routes, forms, views and
templates."""
