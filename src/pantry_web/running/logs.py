"""Logs as JSON, a line each: what happened, where in the code, never what somebody typed."""

import json
import logging
from datetime import UTC, datetime


class AsJson(logging.Formatter):
    """A record as one line of JSON, with the kind and the place of an error, not its message."""

    def format(self, record: logging.LogRecord) -> str:
        """The line."""
        told = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "logger": record.name,
            "what": record.getMessage(),
        }
        if record.exc_info and record.exc_info[0] is not None:
            frame = record.exc_info[2]
            while frame is not None and frame.tb_next is not None:
                frame = frame.tb_next
            told["error"] = record.exc_info[0].__name__
            if frame is not None:
                told["where"] = f"{frame.tb_frame.f_code.co_filename}:{frame.tb_lineno}"
        return json.dumps(told)
