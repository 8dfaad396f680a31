"""The stages of a sieve, a file each or a file for those that are alike; `every.py` has them in
order, and all loops over them.
"""
