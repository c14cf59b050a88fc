"""A single file that was read: the places of its blocks, and of the component in its script."""

from __future__ import annotations

from dataclasses import dataclass, field

from clean_carry.source.javascript.tree import Node
from clean_carry.source.template.tree import TemplateNode
from clean_carry.syntaxes.contract import ScriptFile


@dataclass(frozen=True)
class Exported:
    """The statement that holds the component, and its object. A component exported by its `name`
    has the `export` apart. `typed` says that types of the module use its type by that name. `made`
    is the function that creates the component, `through` one that only returns it."""

    statement: Node
    literal: Node
    name: str = ""
    export: Node | None = None
    typed: bool = False
    made: str = ""
    through: str = ""


@dataclass
class SingleFile(ScriptFile):
    """A single file with what writers of its family need: `block` is the script's
    element, `module_block` that of the module's own script beside it."""

    block: TemplateNode = field(kw_only=True)
    template: TemplateNode | None = field(kw_only=True)
    exported: Exported = field(kw_only=True)
    module_block: TemplateNode | None = field(default=None, kw_only=True)
