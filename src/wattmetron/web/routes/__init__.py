"""Addresses of pages and of the API."""
