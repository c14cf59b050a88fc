"""Small sources that several tests use."""

CLASS = """import React, { Component } from 'react';

export default class Berth extends Component {
  state = { open: false };

  render() {
    return <button onClick={() => this.setState({ open: true })}>{String(this.state.open)}</button>;
  }
}
"""

# For each syntax read: the syntaxes it is carried to, and the names of the expected files.
TARGETS = {
    "jsx_class": {"jsx-function": ("new.jsx", "new.tsx")},
    "single_file_object": {
        "single-file-flat": ("new.flat.vue",),
        "jsx-function": ("new.function.jsx",),
    },
    "directive": {"controller-component": ("new.component.js",)},
}
