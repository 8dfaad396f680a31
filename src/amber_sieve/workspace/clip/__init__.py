"""Clips: keyframes, playing, and what is worked out ahead."""
