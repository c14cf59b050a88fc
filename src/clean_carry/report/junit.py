"""JUnit XML: a suite for each pair, a case for each trial."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from xml.etree.ElementTree import Element, SubElement, indent, tostring

from clean_carry.report import words
from clean_carry.report.subject import Subject
from clean_carry.verify.judge import TrialResult

# Characters that XML 1.0 (§2.2) cannot hold.
_ODD = re.compile("[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")


def junit(subjects: Sequence[Subject]) -> bytes:
    """The document. A pair that was not proven has a case `verdict` that is an error, so that nobody
    takes it for passed; a component that was refused has one that is skipped."""
    root = Element("testsuites", name="clean-carry")
    totals = dict.fromkeys(("tests", "failures", "errors", "skipped"), 0)
    for subject in subjects:
        suite = SubElement(root, "testsuite", name=_clean(subject.old))
        for name, value in _properties(subject):
            holder = suite.find("properties")
            holder = SubElement(suite, "properties") if holder is None else holder
            SubElement(holder, "property", name=name, value=_clean(value))
        for case in _cases(subject):
            suite.append(case)
        cases = suite.findall("testcase")
        counts = {
            "tests": len(cases),
            "failures": len(suite.findall("testcase/failure")),
            "errors": len(suite.findall("testcase/error")),
            "skipped": len(suite.findall("testcase/skipped")),
        }
        for key, count in counts.items():
            totals[key] += count
            suite.set(key, str(count))
        suite.set("time", f"{subject.seconds:.3f}")
    for key in ("tests", "failures", "errors"):
        root.set(key, str(totals[key]))
    root.set("time", f"{sum(subject.seconds for subject in subjects):.3f}")
    indent(root)
    return bytes(tostring(root, encoding="utf-8", xml_declaration=True)) + b"\n"


def _properties(subject: Subject) -> Iterable[tuple[str, str]]:
    if subject.new:
        yield "new", subject.new
    if subject.verification is not None:
        yield from words.facts(subject.verification)


def _cases(subject: Subject) -> Iterable[Element]:
    verification = subject.verification
    if subject.problem:
        case = _case(subject, "read")
        SubElement(case, "error", message=_clean(subject.problem), type="not read")
        yield case
        return
    if verification is None:
        case = _case(subject, "carried")
        reason = next(
            (f.message for f in subject.findings if f.level == "error"), "nothing was made"
        )
        SubElement(case, "skipped", message=_clean(reason))
        yield case
        return
    for result in verification.trials:
        yield _trial(subject, result)
    for result in verification.seen.results if verification.seen is not None else ():
        yield _trial(subject, result, " in the browser")
    if verification.verdict == "unproven":
        case = _case(subject, "verdict")
        SubElement(case, "skipped", message=_clean(f"unproven: {words.unproven(verification)}"))
        yield case
    if verification.verdict == "not run":
        case = _case(subject, "verdict")
        reason = verification.reason or "no trial ran on both sides"
        SubElement(case, "error", message=_clean(reason), type="not run")
        yield case


def _case(subject: Subject, name: str) -> Element:
    return Element("testcase", name=_clean(name), classname=_clean(subject.name))


def _trial(subject: Subject, result: TrialResult, where: str = "") -> Element:
    case = _case(subject, result.name + where)
    if result.verdict == "differs":
        first = result.differences[0]
        place = f" at {first.place}" if first.place else ""
        failure = SubElement(
            case, "failure", message=_clean(f"{first.what}{place}"), type="differs"
        )
        failure.text = _clean("\n".join(_lines(result)))
    elif result.verdict != "same":
        SubElement(case, "skipped", message=_clean(f"{result.verdict}: {result.reason}"))
    return case


def _lines(result: TrialResult) -> Iterable[str]:
    for one in result.differences:
        place = f" at {one.place}" if one.place else ""
        yield f"after step {one.step} ({one.step_name}): {one.what}{place}"
        yield f"  old  {words.value(one.what, one.old)}"
        yield f"  new  {words.value(one.what, one.new)}"
        if one.cause:
            yield f"  by   {words.short(one.cause)}"


def _clean(text: str) -> str:
    return _ODD.sub("\ufffd", text)
