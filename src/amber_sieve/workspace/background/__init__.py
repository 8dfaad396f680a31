"""Threads, jobs and what guards them."""
