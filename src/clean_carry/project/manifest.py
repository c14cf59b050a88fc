"""The catalogue entry of a component as an open custom-elements manifest (schema version 1.0.0)."""

from __future__ import annotations

from typing import Any

from clean_carry.project.sheet import Item, Sheet

SCHEMA = "1.0.0"


def manifest(sheets: list[Sheet], module: str) -> dict[str, Any]:
    """The manifest of one file: a declaration for each component, and its exports."""
    return {
        "schemaVersion": SCHEMA,
        "readme": "",
        "modules": [
            {
                "kind": "javascript-module",
                "path": module,
                "declarations": [_declaration(one) for one in sheets],
                "exports": [
                    {
                        "kind": "js",
                        "name": one.name,
                        "declaration": {"name": one.name, "module": module},
                    }
                    for one in sheets
                ],
            }
        ],
    }


def _declaration(sheet: Sheet) -> dict[str, Any]:
    tags = sheet.of("tag")
    found: dict[str, Any] = {
        "kind": "class",
        "name": sheet.name,
        "members": [
            *(_field(item, "public") for item in sheet.of("prop")),
            *(_field(item, "private") for item in sheet.of("state")),
            *(
                {"kind": "method", "name": item.name, "privacy": "private"}
                for item in sheet.of("method")
            ),
        ],
        "events": [{"name": item.name, "type": {"text": "Event"}} for item in sheet.of("event")],
        "slots": [
            {
                "name": "" if item.name in ("default", "children") else item.name,
                "description": item.about,
            }
            for item in sheet.of("slot")
        ],
    }
    if tags:
        found |= {"tagName": tags[0].name, "customElement": True}
        found["attributes"] = [
            {"name": item.name, "fieldName": item.name} for item in sheet.of("prop")
        ]
    return found


def _field(item: Item, privacy: str) -> dict[str, Any]:
    kind = item.about.partition(", ")[0]
    found: dict[str, Any] = {"kind": "field", "name": item.name, "privacy": privacy}
    if kind and not kind.startswith(("default", "required", "starts", "by ", "bound")):
        found["type"] = {"text": kind}
    default = next(
        (p[len("default ") :] for p in item.about.split(", ") if p.startswith("default ")), ""
    )
    if default:
        found["default"] = default
    return found
