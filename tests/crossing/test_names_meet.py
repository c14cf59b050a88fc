"""Names that come into one scope: every name the tool makes, in every place where an author may have it
too."""

from __future__ import annotations

from pathlib import Path

import pytest

from clean_carry.crossing.carry import Request, carry_file
from clean_carry.verify.pair import pair_of, trials_for, verified
from clean_carry.verify.verify import Effort
from clean_carry.verify.worker_pool import Bench

# Names that functions are written with: of hooks, references, setters, former values and helpers.
MADE = (
    "previousProps propsBefore previousState stateBefore latest latestState latestProps latestText "
    "latestCount "
    "setCount setOpen state setState props others ref mounted wasMounted afterRender useAfterRender "
    "initialCache "
    "redraw useState useRef useLayoutEffect useReducer change patch count open text"
).split()
CLASS = """import React from 'react';
%(module)s
export default class Berth extends React.Component {
  state = { count: 0, open: false%(state)s };
  cache = new Map();
%(member)s
  componentDidMount() {
    this.timer = setTimeout(() => this.props.onTold('late', this.props.text, this.state.count), 10);
  }
  componentDidUpdate(before, then) {
    %(hook)s
    if (then.count !== this.state.count) this.props.onTold(before.text, this.state.count%(told)s);
  }
  componentWillUnmount() {
    clearTimeout(this.timer);
  }
  add = () => {
    %(local)s
    this.setState({ count: this.state.count + 1, open: !this.state.open }, () => {
      this.props.onTold(this.state.count, this.state.open%(used)s);
    });
  };
  forget() {
    this.cache = null;
    this.forceUpdate();
  }
  render() {
    %(drawn)s
    return (
      <p>
        <button onClick={this.add}>{this.state.count} %(shown)s</button>
        <button onClick={() => this.forget()}>{this.props.text} {String(this.cache === null)}</button>
      </p>
    );
  }
}
"""
EMPTY = dict.fromkeys("module state member hook told local used drawn shown".split(), "")
# Where an author may have a name: what of the class holds it, and what uses it.
PLACES = {
    "local": {"local": "const {0} = 'l';", "used": ", {0}"},
    "parameter": {"local": "['p'].forEach(({0}) => this.props.onTold({0}, this.state.count));"},
    "hook": {"hook": "const {0} = 'h';", "told": ", {0}"},
    "render": {"drawn": "const {0} = 'r';", "shown": "{{{0}}}"},
    "prop": {"shown": "{{this.props.{0}}}"},
    "state": {"state": ", {0}: 's'", "shown": "{{this.state.{0}}}"},
    "field": {"member": "  {0} = 'f';", "shown": "{{this.{0}}}"},
    "method": {"member": "  {0}() {{ return 'm'; }}", "shown": "{{this.{0}()}}"},
    "module": {"module": "const {0} = 'c';", "shown": "{{{0}}}", "used": ", {0}"},
}
# What an instance has already, so that no author calls a member so.
OF_INSTANCES = {"state", "setState", "props"}
TRIALS = """trials:
  - name: all
    inputs: { text: Skail, %s: given }
    functions: { onTold: {} }
    steps: [{ press: { role: button, position: 1 } }, { pass: 50 }, { press: { role: button, position: 2 } }, { press: { role: button, position: 1 } }, { change: { inputs: { text: Holm } } }, { press: { role: button, position: 1 } }]
"""  # noqa: E501


# Places that are tried in every run; the others on demand.
OFTEN = ("state", "prop", "local", "module", "hook")


@pytest.mark.parametrize(
    "place",
    [one if one in OFTEN else pytest.param(one, marks=pytest.mark.whole) for one in PLACES],
)
def test_no_name_hides_another(place: str, tmp_path: Path, bench: Bench) -> None:
    refused = []
    for name in MADE:
        if place in ("field", "method") and name in OF_INSTANCES:
            continue
        if (place == "state" and name in ("count", "open")) or (
            place == "prop" and name in ("text", "ref")
        ):
            continue
        parts = {key: text.format(name) for key, text in PLACES[place].items()}
        folder = tmp_path / name
        folder.mkdir()
        old, new = folder / "old.jsx", folder / "new.jsx"
        old.write_text(CLASS % {**EMPTY, **parts}, "utf-8")
        (folder / "old.trials.yaml").write_text(
            TRIALS % (name if place == "prop" else "other"), "utf-8"
        )
        (result,) = carry_file(Request(old, "old.jsx", "jsx-function", runtime=18))
        if result.status == "refused":
            refused.append(name)
            continue
        assert result.status == "clean", (name, result.findings)
        new.write_text(result.files[0].text, "utf-8")
        before, after, interface = pair_of(old, new)
        found = verified(bench, (before, after), interface, trials_for(old, None), Effort())
        assert found.verdict == "same", (name, result.files[0].text, found.reason)
    # A local of render that hides a hook the function calls is refused.
    assert all(place == "render" and name.startswith("use") for name in refused), refused
