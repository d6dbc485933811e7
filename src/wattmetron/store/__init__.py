"""SQLite through SQLAlchemy: dated catalogue revisions, briefs and their change log."""
