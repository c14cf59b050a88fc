"""Bridges: an old family's component that renders a new one of another family in an element of its own.

A bridge passes props on, events back, and content that is plain text. It stands beside the new component
until the last user of it is carried.
"""

from __future__ import annotations

from string import Template

from clean_carry.component.errors import CarryError
from clean_carry.component.interface import InterfaceMap
from clean_carry.crossing.carry import Request, carry_file
from clean_carry.project.index.links import Index
from clean_carry.project.walk.pairs import Pair
from clean_carry.source.index.parsed import Parsed
from clean_carry.source.places import folder_of
from clean_carry.source.text import SourceText
from clean_carry.source.workspace import major, package_version
from clean_carry.syntaxes.single_file.census import declared_props

# A function component that renders a single file of version 3 (its guide, "Application API").
_SINGLE_FILE_IN_JSX = Template("""\
import React, { Children, useLayoutEffect, useRef } from 'react';
import { createApp, h, shallowReactive } from 'vue';
import $name from './$file';

// Renders the single file in an element of its own, until all users of this bridge are carried.
// It passes props, events and text; component children, context and references do not cross it.
const NAMES = $names;

function passed(props) {
  const { children, ...rest } = props;
  return Object.fromEntries(Object.entries(rest).map(([key, value]) => [NAMES[key] ?? key, value]));
}

function textOf(children) {
  const parts = Children.toArray(children);
  if (parts.some((part) => typeof part === 'object')) {
    throw new TypeError('${name}Bridge takes text as children, no elements');
  }
  return parts.length ? parts.join('') : undefined;
}

$head function ${name}Bridge(props) {
  const place = useRef(null);
  const latest = useRef(null);

  useLayoutEffect(() => {
    latest.current = shallowReactive({ props: passed(props), text: textOf(props.children) });
    const app = createApp({
      render: () => h($name, latest.current.props, {
        ...(latest.current.text === undefined ? {} : { default: () => latest.current.text }),
      }),
    });
    app.mount(place.current);
    return () => app.unmount();
  }, []);

  useLayoutEffect(() => {
    latest.current.props = passed(props);
    latest.current.text = textOf(props.children);
  });

  return <div ref={place} data-bridge="$name" style={{ display: 'contents' }} />;
}
$tail""")

# A single file that renders a function component (the runtime's reference, "createRoot").
_JSX_IN_SINGLE_FILE = Template("""\
<script>
import { createElement } from 'react';
$mount_import
$vue_import
import $name from './$file';

// Renders the function in an element of its own, until all users of this bridge are carried.
// It passes props, events and text; component children, context and references do not cross it.
const EVENTS = $events;

export default {
  name: '${name}Bridge',
  inheritAttrs: false,
  props: $props,
  mounted() {
    $mount
    this.$$watch(() => [{ ...this.$$props }, { ...this.$$attrs }], this.show, { flush: 'post' });
    this.show();
  },
  updated() {
    this.show();
  },
  $before_removal() {
    $unmount
  },
  methods: {
    show() {
      const listeners = Object.fromEntries(
        Object.entries(EVENTS).map(([event, prop]) => [prop, (...given) => this.$$emit(event, ...given)]),
      );
      const text = $text;
      const element = createElement($name, { ...this.$$attrs, ...this.$$props, ...listeners }, text);
      $render
    },
  },
  $render_function
};
</script>
""")
# Names that a declaration of props may use anywhere.
_TYPES = frozenset(
    "String Number Boolean Array Object Function Date Symbol Promise undefined Infinity Math".split()
)
_RENDER = {
    3: (
        "render() {\n"
        "    return h('div', { 'data-bridge': '$name', style: { display: 'contents' } });\n"
        "  },"
    ),
    2: (
        "render(h) {\n"
        "    return h('div', { attrs: { 'data-bridge': '$name' }, style: { display: 'contents' } });\n"
        "  },"
    ),
}
_TEXT = {
    3: "this.$slots.default?.().map((node) => node.children).join('')",
    2: "this.$slots.default?.map((node) => node.text).join('')",
}


def bridge(index: Index, pair: Pair) -> str:
    """The text of the bridge between an old file and the new one. Raises `CarryError` without one."""
    ends = (pair.origin.runtime.name, pair.target.runtime.name)
    _require(pair)
    rows = _interface(index, pair)
    name = index.files[pair.new.as_posix()].components[0].name
    name = name.partition(".")[0]
    if ends == ("react", "vue"):
        return _in_jsx(index, pair, rows, name)
    if ends == ("vue", "react"):
        return _in_single_file(pair, rows, name)
    raise CarryError(
        f"there is no bridge from {pair.origin.id} to {pair.target.id}",
        advice="Carry its users first",
        file=str(pair.new),
    )


def _require(pair: Pair) -> None:
    """Raises `CarryError` where the project does not have the new component's runtime."""
    name = pair.target.runtime.name
    if package_version(folder_of(pair.old), name) is None:
        raise CarryError(
            f"is rendered by {name}, which the project does not depend on",
            advice=f"Add {name} to package.json and install it first",
            file=str(pair.new),
        )


def _interface(index: Index, pair: Pair) -> InterfaceMap:
    """The names of the new component for the props and events of the old one."""
    request = Request(
        pair.old, str(pair.old), pair.target.id, pair.origin.id,
        aliases=tuple(index.settings.aliases.items()), assume_carried=True,
    )  # fmt: skip
    found = next((one for one in carry_file(request) if one.status != "refused"), None)
    return found.interface if found is not None else InterfaceMap()


def _in_jsx(index: Index, pair: Pair, rows: InterfaceMap, name: str) -> str:
    renamed = {
        old: (new if kind != "event" else _listener(new))
        for kind, old, new in rows.rows
        if kind in ("prop", "event", "class")
    }
    changed = {old: new for old, new in renamed.items() if old != new}
    first = index.files[pair.old.as_posix()].components[0]
    exports = [
        one.name for one in index.files[pair.old.as_posix()].exports if first.local in one.locals
    ]
    exports = exports or list(first.exports)
    named = [own for own in exports if own != "default"]
    tail = "".join(f"\nexport {{ {name}Bridge as {own} }};\n" for own in named)
    head = "export default" if "default" in exports or not named else ""
    text = _SINGLE_FILE_IN_JSX.substitute(
        name=name, file=pair.new.name, names=_table(changed), head=head, tail=tail
    )
    return text.replace("\n function", "\nfunction")


def _listener(event: str) -> str:
    """The prop by which the single file's runtime takes a listener: `onPick` for `pick`."""
    return f"on{event[:1].upper()}{event[1:]}"


def _in_single_file(pair: Pair, rows: InterfaceMap, name: str) -> str:
    events = {old: new for kind, old, new in rows.rows if kind == "event"}
    folder = pair.old.parent
    version = major(package_version(folder, "vue")) or 3
    single = 2 if version == 2 else 3
    modern = (major(package_version(folder, "react")) or 18) >= 18
    return (
        _JSX_IN_SINGLE_FILE.substitute(
            name=name,
            file=pair.new.name,
            events=_table(events),
            props=_props(pair),
            mount_import="import { createRoot } from 'react-dom/client';"
            if modern
            else "import ReactDOM from 'react-dom';",
            vue_import="import { h } from 'vue';" if single == 3 else "",
            mount="this.root = createRoot(this.$el);" if modern else "",
            unmount="this.root.unmount();"
            if modern
            else "ReactDOM.unmountComponentAtNode(this.$el);",
            render="this.root.render(element);"
            if modern
            else "ReactDOM.render(element, this.$el);",
            before_removal="beforeUnmount" if single == 3 else "beforeDestroy",
            render_function=_RENDER[single].replace("$name", name),
            text=_TEXT[single],
        )
        .replace("\n\nimport", "\nimport")
        .replace("{\n    \n", "{\n")
    )


def _props(pair: Pair) -> str:
    """The props as the old file declares them. Raises `CarryError` where other code of it is needed."""
    declared = declared_props(Parsed(SourceText.read(pair.old)))
    if declared is None:
        return "[]"
    if declared.names - _TYPES:
        raise CarryError(
            f"declares props with {_listed(declared.names - _TYPES)}, which a bridge does not have",
            advice="Write the types and defaults in place, or carry its users first",
            file=str(pair.old),
        )
    return declared.text


def _listed(names: set[str]) -> str:
    return ", ".join(sorted(names))


def _table(names: dict[str, str]) -> str:
    if not names:
        return "{}"
    return "{ " + ", ".join(f"{_key(old)}: '{new}'" for old, new in names.items()) + " }"


def _key(name: str) -> str:
    return name if name.isidentifier() else f"'{name}'"
