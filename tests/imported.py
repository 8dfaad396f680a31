"""Imports what nearly every test process needs, before it is forked. Nothing here may start a
thread.
"""

import importlib

for _name in (
    "amber_sieve.core.jit.compiler",
    "amber_sieve.export.batch",
    "amber_sieve.export.clip",
    "amber_sieve.export.lookup",
    "amber_sieve.export.pieces",
    "amber_sieve.live.clicking",
    "amber_sieve.media.colour.cdl_files",
    "amber_sieve.media.stills.reader",
    "amber_sieve.terminal.main",
    "scipy.interpolate",
    "scipy.ndimage",
):
    importlib.import_module(_name)

# What the compiler sets up before the first kernel is loaded: half a second.
cpu_target = importlib.import_module("numba.core.registry").cpu_target
cpu_target.typing_context.refresh()
cpu_target.target_context.refresh()
