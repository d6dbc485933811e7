"""The generator of the made-up world: tables written by hand, and what the demo's catalogue, briefs
and hidden truth are made of them. The application reads what it wrote and never imports it.
"""
