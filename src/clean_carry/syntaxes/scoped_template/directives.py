"""The meaning of attributes and elements in a scoped template: the framework's directives, as a
table.

Kinds: `value` is an expression; `statement` is one that an event runs; `target` is one that is written
to as well; `text` holds interpolations only; `loop` and `options` are comprehensions; `name` is a plain
name that nothing is looked up by.
"""

from __future__ import annotations

import re

# Directives of the runtime (its public modules `ng`, `ngTouch`, `ngMessages`) and how their value is read.
KINDS: dict[str, str] = {
    **dict.fromkeys(
        "ngBind ngBindHtml ngChecked ngClass ngClassEven ngClassOdd ngDisabled ngHide ngIf "
        "ngInclude ngMax ngMaxlength ngMin ngMinlength ngModelOptions ngOpen ngPattern ngReadonly "
        "ngRequired ngSelected ngShow ngStep ngStyle ngSwitch ngValue ngMessages "
        "ngMessagesInclude ngMessageExp ngSwitchOn".split(),
        "value",
    ),
    **dict.fromkeys(
        "ngClick ngDblclick ngMousedown ngMouseup ngMouseover ngMouseenter ngMousemove "
        "ngMouseleave ngKeydown ngKeyup ngKeypress ngSubmit ngFocus ngBlur ngCopy ngCut ngPaste "
        "ngChange ngInit ngSwipeLeft ngSwipeRight".split(),
        "statement",
    ),
    **dict.fromkeys(["ngModel", "ngRef"], "target"),
    **dict.fromkeys(
        "ngBindTemplate ngHref ngSrc ngSrcset ngCloak ngList ngMessage ngSwitchWhen "
        "ngSwitchWhenSeparator ngSwitchDefault ngTransclude ngTranscludeSlot ngTrim ngTrueValue "
        "ngFalseValue ngForm ngCsp ngJq ngRefRead ngAria ngDisableAria ngAnimateChildren "
        "ngNonBindable".split(),
        "text",
    ),
    "ngTrueValue": "value",
    "ngFalseValue": "value",
    "ngForm": "form",
    "ngRepeat": "loop",
    "ngOptions": "options",
    "ngController": "controller",
    "ngPluralize": "text",
}
# Directives that give what they stand on a scope of its own, made of the one around it.
CHILD_SCOPES = frozenset(
    "ngIf ngRepeat ngInclude ngSwitchWhen ngSwitchDefault ngController ngView ngMessagesInclude".split()
)
# Names a repetition puts into its scope.
REPEATED = ("$index", "$first", "$last", "$middle", "$even", "$odd")
_PREFIX = re.compile(r"^(x|data)[:\-_]", re.IGNORECASE)
_PARTS = re.compile(r"[:\-_]+(.)")


def normalised(name: str) -> str:
    """The name of a directive as it is registered: `data-ng-click` and `ng:click` are `ngClick`."""
    plain = _PREFIX.sub("", name)
    return _PARTS.sub(lambda found: found.group(1).upper(), plain.lower())


def dashed(name: str) -> str:
    """A registered name as it is written in markup: `ngClick` is `ng-click`."""
    return re.sub(r"[A-Z]", lambda found: "-" + found.group().lower(), name)
