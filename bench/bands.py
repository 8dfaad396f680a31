"""Bands, statistics and what hangs together.

.venv/bin/python bench/bands.py
"""

import numpy as np
from common import Ruler

from amber_sieve.core.bands.apply import bands_mask
from amber_sieve.core.bands.interval import Interval
from amber_sieve.core.colour.measures import hue_saturation_luminance
from amber_sieve.core.colour.oklab import to_oklab
from amber_sieve.core.pick.connected import connected_only
from amber_sieve.core.statistics import coverage_of, statistics_of

BANDS = [
    Interval("hue", (300, 320, 400, 420)),
    Interval("saturation", (10, 20, 60, 80)),
    Interval("luminance", (10, 20, 60, 80)),
]

if __name__ == "__main__":
    for size in ((1920, 1080), (6000, 4000)):
        ruler = Ruler(*size)
        measures = hue_saturation_luminance(ruler.planes, to_oklab(ruler.planes))
        mask = np.empty(measures.shape[1:], np.float32)
        ruler.tell(
            "three bands from measured planes",
            lambda m=measures, o=mask: bands_mask(m, BANDS, o),
            1.5,
        )
        ruler.tell(
            "colour field and histograms",
            lambda r=ruler: statistics_of(r.planes),
            10 if size[0] > 4000 else None,
        )
        ruler.tell("coverage and histogram of the mask", lambda o=mask: coverage_of(o))
        ruler.tell(
            "connected only, bridge 2 (on noise, its worst case)",
            lambda o=mask: connected_only(o, [(5, 5)], 2),
        )
