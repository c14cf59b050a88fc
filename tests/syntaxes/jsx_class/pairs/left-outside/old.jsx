import React, { Component } from 'react';

export default class Field extends Component {
  keep = (el) => {
    this.el = el;
    this.box = el;
  };

  focus() {
    this.el.focus();
  }

  render() {
    return <input ref={this.keep} onChange={() => this.box.select()} />;
  }
}
