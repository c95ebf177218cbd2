"""The interface: one blueprint for each screen, its template and its drawing beside it."""

from bootmark.web.app import create_app

__all__ = ["create_app"]
