"""Pages and the API over HTTP."""
