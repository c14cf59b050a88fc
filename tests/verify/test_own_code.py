"""Which lines of a script are a component's own."""

from __future__ import annotations

import pytest

from clean_carry.verify.own_code import own_code

TEXT = """import React from 'react';
import { tide } from './tide';

const pad = (n) => String(n).padStart(2, '0');

function clock(at) {
  return pad(at);
}

export class Clock extends React.Component {
  render() {
    return <b>{clock(this.props.at)}</b>;
  }
}

Clock.defaultProps = { at: 1 };

const other = () => tide();

export default function Tide() {
  return <i>{other()}</i>;
}
"""
LINES = [
    ("Clock", ((4, 4), (6, 8), (10, 14), (16, 16))),
    ("default", ((18, 18), (20, 22))),
    ("", ((18, 18), (20, 22))),
    ("Nowhere", ()),
]


@pytest.mark.parametrize(("exported", "lines"), LINES)
def test_the_statements_an_export_needs(exported: str, lines: tuple[tuple[int, int], ...]) -> None:
    assert own_code(TEXT, "a.jsx", exported) == lines


def test_a_file_that_is_all_its_own() -> None:
    text = "const a = 1;\nclass Pier {\n  b = a;\n}\nPier.at = 2;\nexport default Pier;\n"
    assert own_code(text, "a.jsx", "default") == ()


def test_what_cannot_be_read_is_all_its_own() -> None:
    assert own_code("class {", "a.jsx", "default") == ()
