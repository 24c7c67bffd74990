"""What a kitchen teaches: figures of its own, drawn towards the general ones while little is known.

Nothing here bears on a limit.
"""
