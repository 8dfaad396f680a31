"""Codes of video as linear light and back, by what a stream says of itself (ITU-T H.273).

Light is such that 1 is the white of ordinary pictures: diffuse white at 203 cd/m² for PQ and HLG
(ITU-R BT.2408). Codes by the curves of BT.709, BT.601 and their kin are read by the sRGB curve, so
that levels are what players show (common practice, no source).
"""

from __future__ import annotations

import functools

import numpy as np

from ..jit.parallel import kernel, prange
from .powers import power_of, srgb_decoded, srgb_encoded
from .transfer import decode, encode

#: Light of diffuse white, cd/m² (ITU-R BT.2408).
WHITE = 203.0
#: The brightest of PQ, cd/m² (SMPTE ST 2084).
PQ_PEAK = 10_000.0
#: The brightest of a nominal HLG display, cd/m² (ITU-R BT.2100).
HLG_PEAK = 1000.0
#: SMPTE ST 2084.
M1, M2, C1, C2, C3 = (
    2610 / 16384,
    2523 / 4096 * 128,
    3424 / 4096,
    2413 / 4096 * 32,
    2392 / 4096 * 32,
)
#: ITU-R BT.2100: the HLG curve, and the power of its way to a display of ``HLG_PEAK``.
HLG_A, HLG_B, HLG_C, HLG_GAMMA = 0.17883277, 0.28466892, 0.55991073, 1.2
#: Luma weights of BT.2020 and BT.2100.
LUMA_2020 = np.array([0.2627, 0.6780, 0.0593])

#: H.273: x, y of red, green, blue and of white.
PRIMARIES = {
    1: (0.640, 0.330, 0.300, 0.600, 0.150, 0.060, 0.3127, 0.3290),
    4: (0.670, 0.330, 0.210, 0.710, 0.140, 0.080, 0.310, 0.316),
    5: (0.640, 0.330, 0.290, 0.600, 0.150, 0.060, 0.3127, 0.3290),
    6: (0.630, 0.340, 0.310, 0.595, 0.155, 0.070, 0.3127, 0.3290),
    7: (0.630, 0.340, 0.310, 0.595, 0.155, 0.070, 0.3127, 0.3290),
    9: (0.708, 0.292, 0.170, 0.797, 0.131, 0.046, 0.3127, 0.3290),
    12: (0.680, 0.320, 0.265, 0.690, 0.150, 0.060, 0.3127, 0.3290),
}
#: H.273 numbers of the curves that are told apart, and the powers of plain ones.
LINEAR, PQ, HLG = 8, 16, 18
POWERS = {4: 2.2, 5: 2.8}
CURVE_NAMES = {
    1: "BT.709",
    4: "gamma 2.2",
    5: "gamma 2.8",
    6: "BT.601",
    7: "SMPTE 240M",
    8: "linear",
    13: "sRGB",
    14: "BT.2020",
    15: "BT.2020",
    16: "PQ",
    18: "HLG",
}
PRIMARY_NAMES = {
    1: "BT.709",
    4: "BT.470 M",
    5: "BT.601 (625)",
    6: "BT.601 (525)",
    7: "SMPTE 240M",
    9: "BT.2020",
    12: "P3",
}


def to_xyz(primaries: tuple[float, ...]) -> np.ndarray:
    """The matrix (3, 3) from light in some primaries to CIE XYZ (SMPTE RP 177)."""
    columns = [
        np.array([x / y, 1, (1 - x - y) / y])
        for x, y in zip(primaries[::2], primaries[1::2], strict=True)
    ]
    corners = np.stack(columns[:3], 1)
    weighted: np.ndarray = corners * np.linalg.solve(corners, columns[3])
    return weighted


#: Bradford's cone responses (ICC.1:2022, annex E).
BRADFORD = np.array(
    [[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]]
)


def to_rec_709(primaries: int) -> np.ndarray | None:
    """The matrix (3, 3) from light in primaries of H.273 to Rec. 709, white adapted by Bradford's;
    None where nothing changes.
    """
    known = PRIMARIES.get(primaries, PRIMARIES[1])
    if known == PRIMARIES[1]:
        return None
    target = PRIMARIES[1]
    whites = [BRADFORD @ np.array([x / y, 1, (1 - x - y) / y]) for x, y in (known[6:], target[6:])]
    adapted = np.linalg.inv(BRADFORD) @ np.diag(whites[1] / whites[0]) @ BRADFORD
    matrix: np.ndarray = np.linalg.inv(to_xyz(target)) @ adapted @ to_xyz(known)
    return matrix


def light_of(codes: np.ndarray, curve: int) -> np.ndarray:
    """Light of codes 0 to 1 by one curve, float64; of HLG, light of the scene, 1 at its peak."""
    codes = np.asarray(codes, np.float64)
    if curve == LINEAR:
        return codes
    if curve in POWERS:
        return np.copysign(np.abs(codes) ** POWERS[curve], codes)
    if curve == PQ:
        root = np.clip(codes, 0, None) ** (1 / M2)
        return (np.maximum(root - C1, 0) / (C2 - C3 * root)) ** (1 / M1) * (PQ_PEAK / WHITE)
    if curve == HLG:
        codes = np.clip(codes, 0, None)
        return np.where(codes <= 0.5, codes**2 / 3, (np.exp((codes - HLG_C) / HLG_A) + HLG_B) / 12)
    return decode(codes).astype(np.float64)


def codes_of(light: np.ndarray, curve: int) -> np.ndarray:
    """Codes of light: the inverse of `light_of`."""
    if curve == LINEAR:
        return np.asarray(light)
    if curve in POWERS:
        return np.copysign(np.abs(light) ** (1 / POWERS[curve]), light)
    if curve == PQ:
        power = (np.clip(light, 0, None) * (WHITE / PQ_PEAK)) ** M1
        return ((C1 + C2 * power) / (1 + C3 * power)) ** M2
    if curve == HLG:
        light = np.clip(light, 0, None)
        return np.where(
            light <= 1 / 12,
            np.sqrt(3 * light),
            HLG_A * np.log(np.maximum(12 * light - HLG_B, 1e-9)) + HLG_C,
        )
    return encode(np.asarray(light, np.float32))


def _turned(planes: np.ndarray, matrix: np.ndarray) -> np.ndarray:
    out: np.ndarray = (matrix.astype(np.float32) @ planes.reshape(3, -1)).reshape(planes.shape)
    return out


@functools.lru_cache(maxsize=8)
def _table_of(curve: int) -> np.ndarray:
    """Light of every code of 16 bits."""
    return light_of(np.arange(65536) / 65535, curve).astype(np.float32)


@kernel
def _looked_up(codes: np.ndarray, table: np.ndarray, out: np.ndarray) -> None:
    for y in prange(codes.shape[0]):
        for k in range(3):
            row, target = codes[y], out[k, y]
            for x in range(codes.shape[1]):
                target[x] = table[np.uintp(row[x, k])]


def decoded(codes: np.ndarray, curve: int, primaries: int) -> np.ndarray:
    """Codes (H, W, 3) of 16 bits as linear light (3, H, W) float32, Rec. 709 primaries."""
    planes = np.empty((3, *codes.shape[:2]), np.float32)
    _looked_up(codes, _table_of(curve), planes)
    return as_shown(planes, curve, primaries)


#: Curves of cameras, which a display of ITU-R BT.1886 shows with a power of its own; what says none
#: is taken for one of them.
CAMERA_CURVES = (1, 2, 6, 7, 14, 15)
DISPLAY_POWER = np.float32(2.4)


@kernel
def _through_display(planes: np.ndarray, matrix: np.ndarray) -> None:
    """Light by the sRGB curve into other primaries, in place: in the light that a BT.1886 display
    makes of its codes.
    """
    power, root = np.float32(DISPLAY_POWER), np.float32(1 / DISPLAY_POWER)
    for y in prange(planes.shape[1]):
        shown = np.empty((3, planes.shape[2]), np.float32)
        for k in range(3):
            values, light = planes[k, y], shown[k]
            for x in range(values.size):
                code = srgb_encoded(values[x])
                size = power_of(abs(code), power) if code != 0 else np.float32(0)
                light[x] = size if code >= 0 else -size
        for k in range(3):
            values = planes[k, y]
            for x in range(values.size):
                turned = (
                    matrix[k, 0] * shown[0, x]
                    + matrix[k, 1] * shown[1, x]
                    + matrix[k, 2] * shown[2, x]
                )
                size = power_of(abs(turned), root) if turned != 0 else np.float32(0)
                values[x] = srgb_decoded(size if turned >= 0 else -size)


def _in_primaries(planes: np.ndarray, matrix: np.ndarray, curve: int) -> np.ndarray:
    """Light in other primaries; may be changed in place. Of what is shown by BT.1886 they are
    changed in the light of such a display, as ITU-R BT.2087 has it.
    """
    if curve not in CAMERA_CURVES:
        return _turned(planes, matrix)
    planes = np.ascontiguousarray(planes, np.float32)
    _through_display(planes, matrix.astype(np.float32))
    return planes


def as_shown(planes: np.ndarray, curve: int, primaries: int) -> np.ndarray:
    """Return light of `light_of`, (3, H, W) float32, as light of a display in Rec. 709 primaries;
    may be changed in place.
    """
    if curve == HLG:  # from the scene to a display, BT.2100
        luma = np.tensordot(LUMA_2020.astype(np.float32), planes, 1)
        planes *= np.maximum(luma, 1e-6) ** np.float32(HLG_GAMMA - 1) * np.float32(HLG_PEAK / WHITE)
    matrix = to_rec_709(primaries)
    return planes if matrix is None else _in_primaries(planes, matrix, curve)


def coded(planes: np.ndarray, curve: int, primaries: int) -> np.ndarray:
    """Linear light (3, H, W) as codes (3, H, W), 0 to 1 and beyond: the inverse of `decoded`."""
    matrix = to_rec_709(primaries)
    if matrix is not None:
        planes = _in_primaries(planes.copy(), np.linalg.inv(matrix), curve)
    if curve == HLG:
        shown = np.clip(planes, 0, None) * np.float32(WHITE / HLG_PEAK)
        luma = np.tensordot(LUMA_2020.astype(np.float32), shown, 1)
        planes = shown * np.maximum(luma, 1e-9) ** np.float32(1 / HLG_GAMMA - 1)
    return codes_of(planes, curve)
