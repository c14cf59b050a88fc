import React, { Component } from 'react';

export default class Loading extends Component {
  weight = 0;

  // All that is on board.
  get total() {
    return this.props.crates.length + this.weight;
  }

  get label() {
    return `${this.total} crates`;
  }

  load = () => {
    this.weight += 2;
    this.forceUpdate();
  };

  focus() {
    this.refs.note.focus();
    if (this.refs.list) this.refs.list.title = this.label;
  }

  render() {
    return (
      <div title={this.label}>
        <input ref="note" defaultValue="" />
        {this.total > 1 && <ul ref="list" className="crates"><li>{this.weight}</li></ul>}
        <button onClick={this.load}>load</button>
        <button onClick={() => this.focus()}>focus</button>
        <button onClick={() => this.forceUpdate()}>again</button>
      </div>
    );
  }
}
