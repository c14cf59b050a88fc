"""Trials: one set of inputs, slot content, replies and steps to render a component with."""

from __future__ import annotations

import json
from dataclasses import asdict, dataclass, field
from functools import cache
from pathlib import Path
from typing import Any

from clean_carry.component.errors import InputError
from clean_carry.component.interface import InterfaceMap
from clean_carry.project.writing import replace

# The word for a function that a search lets fail.
THROWN = "the function failed"
SCHEMA = Path(__file__).with_name("trials.schema.json")


@dataclass(frozen=True)
class Trial:
    """One trial, in the shape of trials.schema.json."""

    name: str
    inputs: dict[str, Any] = field(default_factory=dict)
    functions: dict[str, Any] = field(default_factory=dict)
    slots: dict[str, Any] = field(default_factory=dict)
    replies: list[dict[str, Any]] = field(default_factory=list)
    steps: list[dict[str, Any]] = field(default_factory=list)
    strict: bool = False

    @property
    def in_use(self) -> bool:
        """Whether it takes content from the project's own uses of the component."""
        return '{"use": ' in json.dumps([self.slots, self.steps])

    def request(
        self, interface: InterfaceMap | None = None, *, held: bool = False
    ) -> dict[str, Any]:
        """The trial as the renderer takes it, with the names of the side `interface` leads to.

        Calls are recorded under the old side's names on both sides. `held` asks for a reference to the
        component even if no step calls a method by it.
        """
        inputs = dict(interface.inputs) if interface is not None else {}
        slots = dict(interface.slots) if interface is not None else {}
        if "" in slots and slots[""].endswith("()"):
            # The one that needs no name is called by either; what it is given is a function there.
            slots["default"] = slots[""]
        events = _listened(interface)

        def translated(change: dict[str, Any]) -> dict[str, Any]:
            change = {**change, "inputs": _renamed(change.get("inputs", {}), inputs)}
            if "slots" in change:
                change["slots"] = _placed(change["slots"], slots)
            if "without" in change:
                names = change["without"]
                change["without"] = [events.get(n, inputs.get(n, n)) for n in names]
            if "functions" in change:
                change["functions"] = {
                    events.get(name, inputs.get(name, name)): {"called": f"{name} (new)", **plan}
                    for name, plan in change["functions"].items()
                }
            if "then" in change:
                change["then"] = translated(change["then"])
            return change

        steps = []
        for step in self.steps:
            change = step.get("change")
            if change is not None:
                step = {"change": translated(change)}
            steps.append(step)
        functions = {
            events.get(name, inputs.get(name, name)): {**(plan or {}), "called": name}
            for name, plan in self.functions.items()
        }
        return {
            "held": held or any("call" in step for step in self.steps),
            "inputs": _renamed(self.inputs, inputs),
            "functions": functions,
            "slots": _placed(self.slots, slots),
            "replies": self.replies,
            "steps": steps,
            "strict": self.strict,
        }


def _renamed(values: dict[str, Any], names: dict[str, str]) -> dict[str, Any]:
    return {names.get(name, name): value for name, value in values.items()}


def _placed(given: dict[str, Any], slots: dict[str, str]) -> dict[str, Any]:
    """Slots by their new names; content that an element of its own brings is that element's."""
    brought = {old: new for old, new in slots.items() if "-" in old}
    made = _renamed(given, slots)
    for name in ("default", "children") if brought else ():
        parts = made.get(name) or []
        rest = [one for one in parts if _tag(one) not in brought]
        if len(rest) < len(parts):
            made[name] = rest
        made |= {
            brought[_tag(one)]: one.get("content", []) for one in parts if _tag(one) in brought
        }
    return made


def _tag(part: Any) -> str:
    """The tag of a piece of content; "" for text."""
    return str(part.get("tag", "")) if isinstance(part, dict) else ""


def _listened(interface: InterfaceMap | None) -> dict[str, str]:
    """The events by their old names: one called like an input goes by its listener's name."""
    if interface is None:
        return {}
    inputs = {new for _, new in interface.inputs}
    before = {old for old, _ in interface.inputs}
    names = {
        old: f"on{new[:1].upper()}{new[1:]}" if new in inputs else new
        for old, new in interface.events
    }
    listeners = {f"on{old[:1].upper()}{old[1:]}": names[old] for old in names if old in before}
    return names | listeners


@dataclass(frozen=True)
class TrialFile:
    """The trials of a file, and which export they mount (None: the default one)."""

    trials: tuple[Trial, ...]
    component: str | None = None


@cache
def _validator() -> Any:
    import jsonschema  # costs a third of a command's start

    return jsonschema.Draft202012Validator(json.loads(SCHEMA.read_text("utf-8")))


def load(path: Path) -> TrialFile:
    """Read a trial file (YAML). Raises `InputError` where it is not in the schema's shape."""
    import yaml

    try:
        text = path.read_text("utf-8")
    except (OSError, UnicodeDecodeError) as error:
        reason = getattr(error, "strerror", None) or "it is not UTF-8"
        raise InputError(f"the trials cannot be read ({reason})", file=str(path)) from None
    try:
        value = yaml.safe_load(text)
    except yaml.YAMLError as error:
        mark = getattr(error, "problem_mark", None)
        line, column = (mark.line + 1, mark.column + 1) if mark is not None else (0, 0)
        raise InputError("is not YAML", file=str(path), line=line, column=column) from None
    problem = next(iter(sorted(_validator().iter_errors(value), key=lambda e: list(e.path))), None)
    if problem is not None:
        place = "/".join(str(part) for part in problem.absolute_path) or "the file"
        raise InputError(f"{place}: {problem.message[:160]}", file=str(path))
    return TrialFile(tuple(Trial(**trial) for trial in value["trials"]), value.get("component"))


def beside(old: Path) -> Path:
    """Where the trials of a component stand by themselves: `X.trials.yaml`."""
    stem = old.name.split(".")[0]
    return old.with_name(f"{stem}.trials.yaml")


def save(path: Path, trial: Trial, component: str = "") -> None:
    """Save one trial as a trial file. Raises `WriteRefused` where that cannot be."""
    import yaml

    value = {key: part for key, part in asdict(trial).items() if part}
    whole: dict[str, Any] = {"trials": [value]}
    if component and component != "default":
        whole = {"component": component, **whole}
    text = yaml.safe_dump(whole, sort_keys=False, allow_unicode=True, width=100)
    replace(path, text.encode("utf-8"))
