"""What people paste, read: requirements, messages, part lists."""
