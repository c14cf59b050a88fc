"""State written in place, for a target where a write is seen only in the next draw.

What the same run reads of it afterwards is read from a local. Where that cannot be told from the
order of the text alone, the component is refused.
"""

from __future__ import annotations

from clean_carry.component.code import (
    Assign,
    Code,
    Member,
    MethodCall,
    MethodValue,
    Operation,
    Read,
)
from clean_carry.component.members import Method
from clean_carry.component.model import Component
from clean_carry.source.javascript.script_style import RESERVED
from clean_carry.syntaxes.jsx_function.planning.naming import Naming
from clean_carry.syntaxes.jsx_function.planning.plan import Refused


def following_names(component: Component, later: frozenset[int], naming: Naming) -> dict[int, str]:
    """The local for each write that is read again in the same run, and for those reads.

    Raises `Refused` where a write runs later, in a loop, or is read again in another way.
    """
    found: dict[int, str] = {}
    touched = _touched(component)
    for name, at in component.facts.mutations:
        raise Refused("state-mutated", name, at)
    for _, code in component.codes():
        operations = sorted(code.all(), key=lambda o: (o.span.start, -o.span.end))
        writes = [o for o in operations if isinstance(o, Assign)]
        for write in writes:
            _check(write, later)
        _check_calls(operations, touched)
        for write in writes:
            reads = _reads_after(write, operations, touched)
            if not reads:
                continue
            if not write.alone or len([w for w in writes if w.member == write.member]) > 1:
                raise Refused("read-after-write", write.member.name, write.span.start)
            local = _local(component, naming, found, code)
            found[write.entry] = local
            found.update(dict.fromkeys(reads, local))
    return found


def _check(write: Assign, later: frozenset[int]) -> None:
    if write.deferred or write.looped or write.entry in later:
        raise Refused("write-runs-later", write.member.name, write.span.start)
    if write.used:
        raise Refused("write-value-used", write.member.name, write.span.start)


def _touched(component: Component) -> dict[str, tuple[set[str], set[str]]]:
    """For each method the state it reads and the state it writes, calls followed."""
    own: dict[str, tuple[set[str], set[str]]] = {}
    calls: dict[str, set[str]] = {}
    for method in component.methods():
        reads: set[str] = set()
        writes: set[str] = set()
        for operation in method.text.all():
            match operation:
                case Read(member=Member(kind="state" | "derived", name=name)):
                    reads.add(name)
                case Assign(member=member):
                    writes.add(member.name)
                case MethodCall(member=member) | MethodValue(member=member):
                    calls.setdefault(method.name, set()).add(member.name)
        own[method.name] = (reads, writes)
    changed = True
    while changed:
        changed = False
        for name, called in calls.items():
            for other in called:
                for mine, theirs in zip(own[name], own.get(other, (set(), set())), strict=True):
                    changed = changed or not theirs <= mine
                    mine |= theirs
    return own


def _check_calls(
    operations: list[Operation], touched: dict[str, tuple[set[str], set[str]]]
) -> None:
    """A method that writes state, and state read or written after its call in the same run."""
    written: set[str] = set()
    for operation in operations:
        match operation:
            case MethodCall(member=member):
                reads, writes = touched.get(member.name, (set(), set()))
                if written and (reads | writes):
                    raise Refused("read-after-write", member.name, operation.span.start)
                written |= writes
            case Read(member=Member(kind="state" | "derived")) | Assign() if written:
                raise Refused("read-after-write", operation.member.name, operation.span.start)


def _reads_after(
    write: Assign, operations: list[Operation], touched: dict[str, tuple[set[str], set[str]]]
) -> list[int]:
    reads: list[int] = []
    for operation in operations:
        if operation.span.start < write.span.end:
            continue
        match operation:
            case Read(member=member) if member == write.member:
                reads.append(operation.entry)
            case Read(member=Member(kind="derived", name=name)):
                raise Refused("read-after-write", name, operation.span.start)
            case MethodCall(member=member) | MethodValue(member=member):
                if any(touched.get(member.name, ((), ()))):
                    raise Refused("read-after-write", member.name, operation.span.start)
    return reads


def _local(component: Component, naming: Naming, found: dict[int, str], code: Code) -> str:
    taken = (
        set(RESERVED)
        | component.facts.reserved
        | component.facts.module_names
        | set(found.values())
    )
    taken |= {*naming.names.values(), *naming.setters.values(), *naming.previous.values()}
    for locals_ in component.facts.locals_at.values():
        taken |= {name for name, _ in locals_}
    number = 1
    while True:
        name = "next" if number == 1 else f"next{number}"
        if name not in taken:
            return name
        number += 1


__all__ = ["Method", "following_names"]
