"""Machines and parts that are proposed, and what they give up."""
