"""Figures, glossary and sentences that several places share."""
