"""SARIF 2.1.0: a result for each finding, a rule for each kind of finding that occurs."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from pathlib import Path
from typing import Any
from urllib.parse import quote

from clean_carry import __version__
from clean_carry.component.findings import Finding
from clean_carry.report.subject import Subject
from clean_carry.syntaxes.rules import every_rule

SCHEMA = (
    "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"
)


def sarif(subjects: Sequence[Subject]) -> bytes:
    """The log of one run. Places are in Unicode code points, as findings have them."""
    found = [
        (result.component, finding, subject.old_text.splitlines())
        for subject in subjects
        for result in subject.results
        for finding in result.findings
    ]
    names = list(dict.fromkeys(finding.rule for _, finding, _ in found))
    log = {
        "$schema": SCHEMA,
        "version": "2.1.0",
        "runs": [
            {
                "tool": {
                    "driver": {
                        "name": "Clean Carry",
                        "semanticVersion": __version__,
                        "rules": [_rule(name) for name in names],
                    }
                },
                "columnKind": "unicodeCodePoints",
                "invocations": [{"executionSuccessful": True}],
                "results": [
                    _result(component, finding, names.index(finding.rule), lines)
                    for component, finding, lines in found
                ],
            }
        ],
    }
    return (json.dumps(log, indent=2, ensure_ascii=False) + "\n").encode()


def _rule(name: str) -> dict[str, Any]:
    known = every_rule()[name]
    return {
        "id": name,
        "shortDescription": {"text": known.title},
        "help": {"text": f"{known.advice}\n\nExample: {known.before}"},
        "defaultConfiguration": {"level": known.level},
    }


def _result(component: str, finding: Finding, index: int, lines: list[str]) -> dict[str, Any]:
    line = lines[finding.line - 1].strip() if 0 < finding.line <= len(lines) else ""
    region = {"startLine": max(1, finding.line), "startColumn": max(1, finding.column)}
    # The same finding keeps its fingerprint where lines above it change (§3.27.17).
    print_of = "\0".join((finding.rule, _uri(finding.file), component, finding.message, line))
    return {
        "ruleId": finding.rule,
        "ruleIndex": index,
        "level": finding.level,
        "message": {"text": f"{finding.message}. {finding.advice}"},
        "locations": [
            {
                "physicalLocation": {
                    "artifactLocation": {"uri": _uri(finding.file)},
                    "region": region,
                },
                "logicalLocations": [{"name": component}],
            }
        ],
        "partialFingerprints": {
            "placeInSource/v1": hashlib.sha256(print_of.encode()).hexdigest()[:32]
        },
    }


def _uri(path: str) -> str:
    """A path as a URI reference (RFC 3986); an absolute one with its scheme."""
    place = Path(path)
    return place.as_uri() if place.is_absolute() else quote(place.as_posix())
