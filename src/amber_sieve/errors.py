"""The one error that people see."""


class Trouble(Exception):
    """Something is wrong with what was given; the message is one sentence that says what, and what
    to do.
    """
