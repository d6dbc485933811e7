"""Routes, forms, views and templates."""
