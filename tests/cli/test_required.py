"""Scripts that ask for the runtime by a call are carried and verified by the program."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from conftest import Run

QUAY = """'use strict'

const React = require('react')

class Quay extends React.Component {
  constructor (props) {
    super(props)
    this.state = { open: false }
  }

  render () {
    return React.createElement('button', {
      onClick: () => this.setState({ open: !this.state.open })
    }, this.state.open ? this.props.name : 'closed')
  }
}

module.exports = Quay
"""
TYPED = """import React = require('react');

interface Props { name: string }

export class Quay extends React.Component<Props, { open: boolean }> {
  public state = { open: false };
  accessor: string

  static kind = 'quay';

  public render() {
    return (
      <b onClick={() => this.setState({ open: true })}>
        {this.props.name}{this.state.open && 'open'}
      </b>
    );
  }
}
"""


@pytest.mark.parametrize(("name", "text"), [("Quay.js", QUAY), ("Quay.tsx", TYPED)])
def test_the_runtime_asked_for_by_a_call(run: Run, tmp_path: Path, name: str, text: str) -> None:
    (tmp_path / name).write_text(text, "utf-8")
    done = run("carry", name, "--to", "jsx-function", "--write")
    assert done.returncode == 0, done.stdout + done.stderr
    written = name.replace(".", ".function.")
    new = (tmp_path / written).read_text("utf-8")
    assert "React.useState(" in new or "React.useState<boolean>(" in new
    assert "import { useState" not in new
    assert "function Quay({ name }" in new
    done = run("verify", name, written, "--budget", "2", "--json")
    assert json.loads(done.stdout)["verdict"] == "same", done.stdout
