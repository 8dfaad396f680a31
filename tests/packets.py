"""Packets for the control port: good ones, and good ones spoilt at random."""

import random
import struct

from amber_sieve.workspace.control_surfaces import message

#: Twenty bytes that once kept the window from answering: a bundle with an element of -4 bytes.
ENDLESS = b"#bundle\0" + struct.pack(">q", 1) + struct.pack(">i", -4)
GOOD = (
    message("/sieve/adjust/light/exposure", 0.5),
    message("/sieve/edge/grow/by", 1.0, 2.0),
    message("/page/by", 1),
    message("/ask"),
    message("/before", "words"),
)


def bundle(*elements: bytes) -> bytes:
    """Return a bundle of messages and bundles, to be done at once."""
    return (
        b"#bundle\0"
        + struct.pack(">q", 1)
        + b"".join(struct.pack(">i", len(one)) + one for one in elements)
    )


def spoilt(chance: random.Random) -> bytes:
    """Return one packet with sizes, tags or bytes replaced, cut off or repeated."""
    packet = chance.choice(GOOD)
    for _ in range(chance.choice((0, 1, 1, 2, 6))):
        packet = bundle(*[packet] * chance.choice((1, 1, 2, 20)))
    held = bytearray(packet[:60_000])
    for _ in range(chance.choice((1, 1, 3, 10))):
        at = chance.randrange(len(held)) if held else 0
        way = chance.randrange(5)
        if way == 0:
            held[at // 4 * 4 : at // 4 * 4 + 4] = struct.pack(
                ">i", chance.choice((-4, -1, 0, 1, 3, 4, 2**31 - 1, -(2**31)))
            )
        elif way == 1:
            held[at : at + 1] = bytes([chance.randrange(256)])
        elif way == 2:
            del held[at:]
        elif way == 3:
            held[at:at] = held[at : at + chance.randrange(200)]
        else:
            held[at : at + 4] = chance.choice(
                (b",bbb", b",[[[", b"mmmm", b"\xff\xff\xff\xff", b"tttt")
            )
    return bytes(held)
