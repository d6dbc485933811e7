"""Use cases that pages, API and command line share."""
