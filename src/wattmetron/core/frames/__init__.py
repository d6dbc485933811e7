"""The closed-form frame model: from speeds and work to frame rates, limits and how sure they
are.
"""
