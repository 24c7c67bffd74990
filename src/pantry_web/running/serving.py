"""Serving the application until it is told to stop, with a worker beside it."""

import signal
import socket
import sys
import threading

from django.core.management.base import CommandError

from pantry_web.running.worker import Worker, warm_up

THREADS = 4
MOST_BYTES = 32 * 1024 * 1024
"""No request is larger; a kitchen's file has 20 megabytes at the most."""
TURN_S = 0.0005
"""So long a thread computes before another may: short, for whoever asks for little [s]."""


def port_of(text: str) -> int:
    """The port that a text names.

    Raises: CommandError for what is none.
    """
    if not text.isdigit() or not 1 <= int(text) <= 65535:
        raise CommandError(f"PORT is {text!r}; a number from 1 to 65535 would do.")
    return int(text)


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


def serve_until_stopped(host: str, port: int, trusted_proxy: str | None = None) -> None:
    """Serve; what is slow at first is done meanwhile.

    Parameters: host and port; trusted_proxy, the address of the proxy whose word is taken for who
    asks and whether it was over TLS, None: nobody's.
    """
    from waitress import serve  # noqa: PLC0415 - needed by who serves only

    from pantry_web.wsgi import application  # noqa: PLC0415 - it starts the application

    sys.setswitchinterval(TURN_S)
    threading.Thread(target=warm_up, daemon=True).start()
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    worker = Worker()
    threading.Thread(target=worker.keep, daemon=True).start()
    told: dict[str, object] = {}
    if trusted_proxy is not None:
        told = {
            "trusted_proxy": trusted_proxy,
            "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"},
            "clear_untrusted_proxy_headers": True,
        }
    try:
        serve(
            application, host=host, port=port, threads=THREADS, ident=None,
            max_request_body_size=MOST_BYTES, **told,
        )  # fmt: skip
    finally:
        worker.stop()
