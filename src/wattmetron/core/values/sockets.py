"""Processor sockets by name: one socket may be spelt in several ways."""

from collections.abc import Iterable


def socket_key(name: str) -> str:
    """A socket's name without its spelling: ``LT-1500``, ``LT 1500`` and ``lt1500`` are one."""
    return "".join(letter for letter in name.casefold() if letter.isalnum())


def same_socket(first: str, other: str) -> bool:
    """Whether two names mean one socket."""
    return socket_key(first) == socket_key(other)


def mounts_on(sockets: Iterable[str], socket: str) -> bool:
    """Whether a socket is among those that a cooler mounts on."""
    return any(same_socket(name, socket) for name in sockets)
