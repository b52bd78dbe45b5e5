"""The service: each route validates, calls the core or the store, and returns."""

from lucky_margin.web.app import Settings, create_app

__all__ = ["Settings", "create_app"]
