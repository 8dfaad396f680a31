"""Only what hangs together with the sampled places."""

from __future__ import annotations

from collections.abc import Sequence

import cv2
import numpy as np

#: A pixel belongs to a piece when at least this much of it is masked.
MEMBER = 1 / 255


def _bridged(labels: np.ndarray, count: int, bridge: float) -> np.ndarray:
    """For every label the group it belongs to once gaps of up to ``bridge`` pixels are crossed.

    Every pixel outside goes to its nearest piece; where the realms of two pieces meet, the gap is the sum of both distances.
    """
    # Needed here alone, and a third of a second to import: the window opens without it.
    from scipy.sparse import coo_matrix
    from scipy.sparse.csgraph import connected_components

    distance, nearest = cv2.distanceTransformWithLabels(
        (labels == 0).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    piece_of = np.zeros(int(nearest.max()) + 1, np.int32)
    inside = labels > 0
    piece_of[nearest[inside]] = labels[inside]
    realm = piece_of[nearest]
    pairs = []
    for one, other in ((np.s_[:, :-1], np.s_[:, 1:]), (np.s_[:-1], np.s_[1:])):
        # The measured distance of a pixel beside a piece is 1; half a pixel of slack absorbs the transform's error.
        meets = (realm[one] != realm[other]) & (distance[one] + distance[other] <= bridge + 0.45)
        pairs.append(np.stack([realm[one][meets], realm[other][meets]]))
    a, b = np.concatenate(pairs, axis=1)
    graph = coo_matrix((np.ones(len(a), np.int8), (a, b)), shape=(count, count))
    groups: np.ndarray = connected_components(graph, directed=False)[1]
    return groups


def connected_only(mask: np.ndarray, seeds: Sequence[tuple[float, float]], bridge: float = 0.0) -> np.ndarray:
    """The mask without the pieces that do not hang together with a seed.

    Parameters
    ----------
    mask : (H, W) float32, 0 to 1.
    seeds : x, y of the sampled places, in pixels of this mask; those outside it or on nothing are passed over.
    bridge : widest gap, in pixels, that still counts as hanging together; 0 lets nothing cross.

    Returns
    -------
    (H, W) float32; empty when no seed lies on the mask.
    """
    height, width = mask.shape
    count, labels = cv2.connectedComponents((mask >= MEMBER).astype(np.uint8), connectivity=8)
    held = {int(labels[int(y), int(x)]) for x, y in seeds if 0 <= x < width and 0 <= y < height} - {0}
    if not held:
        return np.zeros_like(mask)
    keep = np.zeros(count, bool)
    keep[list(held)] = True
    if bridge > 0 and count > 2:
        groups = _bridged(labels, count, bridge)
        keep = np.isin(groups, groups[list(held)])
        keep[0] = False
    return np.where(keep[labels], mask, np.float32(0))
