"""Attributes that HTML knows."""

from __future__ import annotations

# Attributes that say something by being there, whatever their value (HTML §2.3.2).
BOOLEAN = frozenset(
    (
        "allowfullscreen async autofocus autoplay checked controls default defer disabled "
        "formnovalidate hidden inert ismap itemscope loop multiple muted nomodule novalidate open "
        "playsinline readonly required reversed selected"
    ).split()
)
