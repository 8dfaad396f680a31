"""Arrays in, arrays out: measuring, qualifying, refining, adjusting. Knows no files, no model, no
interface.
"""
