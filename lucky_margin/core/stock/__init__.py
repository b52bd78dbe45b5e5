"""Stock: backdrops and badges that come with the application, all drawn by code."""

from lucky_margin.core.stock.backdrops import BACKDROPS
from lucky_margin.core.stock.badges import BADGES
from lucky_margin.core.stock.item import LICENCE, BackdropItem, BadgeItem, StockItem, colours_of
from lucky_margin.core.stock.search import folded, found

__all__ = [
    "BACKDROPS",
    "BADGES",
    "LICENCE",
    "BackdropItem",
    "BadgeItem",
    "StockItem",
    "colours_of",
    "folded",
    "found",
]
