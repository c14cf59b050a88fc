"""Generate a project of made-up components, the same for the same seed.

    python benchmarks/generate.py FOLDER [--components 5000] [--seed 1]

Most components are classes and functions of a script, the rest single files; each uses up to four that come
before it, and every folder has an index file that passes its components on.
"""

from __future__ import annotations

import argparse
import random
from pathlib import Path

WORDS = (
    "Berth Cargo Crew Deck Ferry Gull Harbour Island Knot Lantern Mast Net Oar Pier Quay Rope Sail Tide "
    "Wave Yard Anchor Buoy Chart Dock Fare Gangway Hull Keel Line Moor"
).split()
KINDS = ("List", "Row", "Card", "Badge", "Form", "Panel", "Table", "Field", "Strip", "Menu")


def class_component(name: str, used: list[tuple[str, str]], rng: random.Random) -> str:
    imports = "".join(f"import {own} from '{request}';\n" for own, request in used)
    children = "".join(f"        <{own} title={{title}} />\n" for own, _ in used)
    fields = "\n".join(
        f"        <dd>{{this.props.note{at}}}</dd>" for at in range(rng.randint(1, 9))
    )
    return f"""import React from 'react';
import PropTypes from 'prop-types';
{imports}
export default class {name} extends React.Component {{
  static propTypes = {{ title: PropTypes.string, onPick: PropTypes.func }};

  static defaultProps = {{ title: '{name}' }};

  state = {{ open: false, picked: 0 }};

  componentDidMount() {{
    document.title = this.props.title;
  }}

  pick = () => {{
    this.setState({{ picked: this.state.picked + 1, open: !this.state.open }});
    if (this.props.onPick) this.props.onPick(this.state.picked);
  }};

  render() {{
    const {{ title }} = this.props;
    return (
      <section className="{name.lower()}">
        <h3 onClick={{this.pick}}>{{title}} {{this.state.picked}}</h3>
        {{this.state.open && <p>open</p>}}
{fields}
{children}      </section>
    );
  }}
}}
"""


def function_component(name: str, used: list[tuple[str, str]], rng: random.Random) -> str:
    imports = "".join(f"import {own} from '{request}';\n" for own, request in used)
    children = "".join(f"      <{own} title={{title}} />\n" for own, _ in used)
    return f"""import React, {{ useEffect, useState }} from 'react';
{imports}
export default function {name}({{ title = '{name}', children }}) {{
  const [count, setCount] = useState({rng.randint(0, 9)});
  useEffect(() => {{
    document.title = title;
  }}, [title]);
  return (
    <div>
      <button type="button" onClick={{() => setCount(count + 1)}}>{{title}} {{count}}</button>
{children}      {{children}}
    </div>
  );
}}
"""


def single_file(name: str, used: list[tuple[str, str]], rng: random.Random) -> str:
    imports = "".join(f"import {own} from '{request}.vue';\n" for own, request in used)
    children = "".join(f'    <{own} :title="title" />\n' for own, _ in used)
    registered = ", ".join(own for own, _ in used)
    return f"""<template>
  <section>
    <h3 @click="pick">{{{{ title }}}} {{{{ count }}}}</h3>
{children}    <slot />
  </section>
</template>

<script>
{imports}
export default {{
  name: '{name}',
  components: {{ {registered} }},
  props: {{ title: {{ type: String, default: '{name}' }} }},
  data() {{
    return {{ count: {rng.randint(0, 9)} }};
  }},
  methods: {{
    pick() {{
      this.count += 1;
      this.$emit('pick', this.count);
    }},
  }},
}};
</script>

<style scoped>
h3 {{ font-weight: bold; }}
</style>
"""


def generate(folder: Path, components: int, seed: int) -> None:
    """Write the project."""
    rng = random.Random(seed)
    made: dict[str, list[tuple[str, str]]] = {"script": [], "single": []}
    indexes: dict[str, list[str]] = {}
    for at in range(components):
        name = f"{rng.choice(WORDS)}{rng.choice(KINDS)}{at}"
        single = rng.random() < 0.3
        group = "single" if single else "script"
        place = f"src/{'pages' if single else 'parts'}{at // 60}"
        others = rng.sample(made[group][-200:], min(rng.randint(0, 4), len(made[group][-200:])))
        used = [(own, f"../{where}/{own}") for own, where in others]
        write = (
            single_file
            if single
            else rng.choice([class_component, class_component, function_component])
        )
        path = folder / place / f"{name}{'.vue' if single else '.jsx'}"
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(write(name, used, rng))
        made[group].append((name, place.removeprefix("src/")))
        indexes.setdefault(place, []).append(
            f"export {{ default as {name} }} from './{path.name}';"
        )
    for place, lines in indexes.items():
        (folder / place / "index.js").write_text("\n".join(lines) + "\n")
    (folder / "package.json").write_text('{"name": "generated-ferries", "private": true}\n')


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("--components", type=int, default=5000)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    generate(given.folder, given.components, given.seed)
