"""Take packets of Open Sound Control 1.0 apart without trusting a byte of them.

Source: the Open Sound Control 1.0 specification (opensoundcontrol.org), "OSC Packets" and
"OSC Bundles". Bundles are walked here, with every size checked against the bytes that are left;
only single messages whose tags are known reach the library that reads their values.
"""

from __future__ import annotations

import struct
from typing import Any

from pythonosc.osc_message import OscMessage, ParseError

#: Bytes of a packet at most; what a surface sends is a few hundred.
MAX_BYTES = 16_384
#: Bundles inside bundles at most.
MAX_DEPTH = 4
#: Messages of a packet at most.
MAX_MESSAGES = 64
#: Values of a message at most.
MAX_VALUES = 16
#: Types of values that are read: integers, floats, strings, true, false, nothing.
TYPE_TAGS = frozenset(b"ihfdsTFN")
_BUNDLE = b"#bundle\0"
#: Bytes of a bundle before its first element: its name and its time tag.
_HEADER = len(_BUNDLE) + 8


class DamagedPacket(Exception):
    """A packet that is no Open Sound Control, or is larger or deeper than any surface sends."""


def messages_in(packet: bytes) -> list[tuple[str, list[Any]]]:
    """Return the messages of a packet, each as its address and its values.

    Raises
    ------
    DamagedPacket: any part of the packet is malformed; none of it is used then.
    """
    if len(packet) > MAX_BYTES:
        raise DamagedPacket("too long")
    found: list[tuple[str, list[Any]]] = []
    elements = [(packet, 0)]
    while elements:
        element, depth = elements.pop()
        if element.startswith(_BUNDLE):
            if depth > MAX_DEPTH:
                raise DamagedPacket("bundles too deep")
            elements += reversed([(inner, depth + 1) for inner in _elements_of(element)])
        else:
            found.append(_message(element))
        if len(found) + len(elements) > MAX_MESSAGES:
            raise DamagedPacket("too many messages")
    return found


def _elements_of(bundle: bytes) -> list[bytes]:
    """Return the elements of a bundle; each is preceded by its size in 32 bits."""
    found, at = [], _HEADER
    if len(bundle) < _HEADER:
        raise DamagedPacket("a bundle without a time tag")
    while at < len(bundle):
        if len(bundle) - at < 4:
            raise DamagedPacket("an element without a size")
        (size,) = struct.unpack_from(">i", bundle, at)
        at += 4
        if size <= 0 or size % 4 or size > len(bundle) - at:
            raise DamagedPacket("an element of an impossible size")
        found.append(bundle[at : at + size])
        at += size
    return found


def _message(element: bytes) -> tuple[str, list[Any]]:
    """Return address and values of one message, read by the library once its tags are known."""
    address_end = element.find(b"\0")
    if not element.startswith(b"/") or address_end < 0:
        raise DamagedPacket("neither a message nor a bundle")
    tags = element[address_end + 4 - address_end % 4 :].split(b"\0", 1)[0]
    if len(tags) > MAX_VALUES + 1 or not TYPE_TAGS.issuperset(tags[1:]):
        raise DamagedPacket("values of unknown types, or too many")
    try:
        message = OscMessage(element)
        return message.address, list(message.params)
    except (ParseError, ValueError) as error:
        raise DamagedPacket(str(error)) from None
