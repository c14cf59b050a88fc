"""Calls of the runtime's functions at the top of a script, by the name they are imported under."""

from __future__ import annotations

from dataclasses import dataclass

from clean_carry.component.moments import MomentName
from clean_carry.source.javascript.scope import Names
from clean_carry.source.javascript.tree import Node

RUNTIME = "vue"
# Names the compiler knows in every script in the flat form (its own list of macros).
MACROS = frozenset(
    "defineProps defineEmits defineExpose defineOptions defineSlots defineModel withDefaults".split()
)
# The functions that register a hook, by the hook of the object form.
MOMENTS: dict[str, tuple[str, MomentName]] = {
    "onBeforeMount": ("beforeMount", "starting"),
    "onMounted": ("mounted", "displayed"),
    "onBeforeUpdate": ("beforeUpdate", "before update"),
    "onUpdated": ("updated", "updated"),
    "onActivated": ("activated", "shown again"),
    "onDeactivated": ("deactivated", "hidden"),
    "onBeforeUnmount": ("beforeUnmount", "before removal"),
    "onUnmounted": ("unmounted", "removed"),
    "onErrorCaptured": ("errorCaptured", "failed"),
    "onBeforeRouteLeave": ("beforeRouteLeave", "leaving route"),
    "onBeforeRouteUpdate": ("beforeRouteUpdate", "route changing"),
}
# Functions that give what every instance has, by their package.
INSTANCE = {
    "useAttrs": (RUNTIME, "$attrs"),
    "useSlots": (RUNTIME, "$slots"),
    "useRouter": ("vue-router", "$router"),
    "useRoute": ("vue-router", "$route"),
}
# Functions that make a box or an object the runtime follows, and whether its insides are followed too.
STATE = {"ref": True, "shallowRef": False, "reactive": True, "shallowReactive": False}
UNBOXED = ("reactive", "shallowReactive")
# Wrappers around a value that serve its type alone.
_TYPED = (
    "as_expression",
    "satisfies_expression",
    "non_null_expression",
    "parenthesized_expression",
)


@dataclass(frozen=True)
class RuntimeCall:
    """A call of a function of the runtime: its own name, the call, and what it is given."""

    name: str
    node: Node
    given: tuple[Node, ...]
    type_text: str = ""

    def argument(self, at: int = 0) -> Node | None:
        """Return its argument at a position; None if there is none."""
        return self.given[at] if at < len(self.given) else None


def bare(value: Node | None) -> Node | None:
    """A value without what stands around it for its type."""
    while value is not None and value.type in _TYPED and value.named_children:
        value = value.named_children[0]
    return value


def imported(name: Node, names: Names) -> tuple[str, str]:
    """The package an identifier is imported from, and its name there; two empty texts for any other."""
    binding = names.meaning(name)
    if binding is None or binding.kind != "import":
        return "", ""
    statement = next((up for up in binding.node.up() if up.type == "import_statement"), None)
    source = statement.child("source") if statement is not None else None
    specifier = binding.node.parent
    if source is None or specifier is None:
        return "", ""
    own = specifier.child("name") if specifier.type == "import_specifier" else None
    return source.text[1:-1], own.text if own is not None else "default"


def runtime_call(value: Node | None, names: Names) -> RuntimeCall | None:
    """A call of the runtime, of one of its macros, or of the router; None for anything else."""
    call = bare(value)
    if call is None or call.type != "call_expression":
        return None
    callee, arguments = call.child("function"), call.child("arguments")
    if callee is None or callee.type != "identifier" or arguments is None:
        return None
    package, name = imported(callee, names)
    macro = callee.text in MACROS and names.meaning(callee) is None
    if not macro and package != RUNTIME and INSTANCE.get(name, ("", ""))[0] != package:
        return None
    types = call.child("type_arguments")
    text = types.text[1:-1] if types is not None else ""
    return RuntimeCall(callee.text if macro else name, call, tuple(arguments.named_children), text)
