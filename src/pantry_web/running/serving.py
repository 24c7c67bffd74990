"""Serving the application until it is told to stop, with all that works beside it."""

import os
import signal
import socket
import sys
import threading
from argparse import ArgumentTypeError

from django.core.management.base import CommandError

from pantry_web.running.beside import Beside

THREADS = 4
MOST_PROCESSES = 4
"""More than so many answer no faster in one kitchen, and each takes memory."""
MOST_BYTES = 80 * 1024 * 1024
"""No request is larger; a kitchen's file with its photos has 80 megabytes at the most."""
TURN_S = 0.0005
"""So long a thread computes before another may: short, for whoever asks for little [s]."""


def port_of(text: str) -> int:
    """The port that a text names.

    Raises: CommandError for what is none.
    """
    if not text.isdigit() or not 1 <= int(text) <= 65535:
        raise CommandError(f"PORT is {text!r}; use a number from 1 to 65535.")
    return int(text)


def processes_of(text: str) -> int:
    """The number of processes that a text names.

    Raises: ArgumentTypeError for what is none.
    """
    if text.isdigit() and 1 <= int(text) <= MOST_PROCESSES:
        return int(text)
    raise ArgumentTypeError(f"{text!r} is no number of processes; give 1 to {MOST_PROCESSES}")


def refuse_busy(host: str, port: int) -> None:
    """Refuse a port that another program has.

    Raises: CommandError.
    """
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError as error:
            raise CommandError(
                f"Port {port} cannot be used ({error.strerror}). Try another, as in PORT=8001."
            ) from None


def serve_until_stopped(
    host: str, port: int, trusted_proxy: str | None = None, processes: int | None = None
) -> None:
    """Serve, in several processes at one socket; whichever is free answers first.

    Parameters: host and port; trusted_proxy, the address of the proxy whose word is taken for who
    asks and whether it was over TLS, None: nobody's; processes that answer, one for each core of
    the machine where none are told.
    """
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    proxy = ("--proxy", trusted_proxy) if trusted_proxy is not None else ()
    with socket.create_server((host, port), backlog=1024) as here:
        place = here.fileno()
        others = (processes or min(os.cpu_count() or 1, MOST_PROCESSES)) - 1
        beside = [Beside("work")]
        beside += [Beside("answer", str(place), *proxy, files=(place,)) for _ in range(others)]
        for each in beside:
            each.start()
        try:
            answer(here, trusted_proxy)
        finally:
            for each in beside:
                each.stop()


def answer(here: socket.socket, trusted_proxy: str | None) -> None:
    """Answer what is asked at a socket; what is slow at first is done meanwhile."""
    from waitress import serve  # noqa: PLC0415 - needed by who serves only

    from pantry_web.wsgi import application  # noqa: PLC0415 - it starts the application

    sys.setswitchinterval(TURN_S)
    threading.Thread(target=_warm_up, daemon=True).start()
    told: dict[str, object] = {}
    if trusted_proxy is not None:
        told = {
            "trusted_proxy": trusted_proxy,
            "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"},
            "clear_untrusted_proxy_headers": True,
        }
    serve(
        application, sockets=[here], threads=THREADS, ident=None,
        max_request_body_size=MOST_BYTES, **told,
    )  # fmt: skip


def _warm_up() -> None:
    """Import the solver and work out the tables of the model before somebody waits for them."""
    import pantry_core.plan.solve  # noqa: F401, PLC0415
    from pantry_core.salt.ready import work_out_tables  # noqa: PLC0415

    work_out_tables()
