import React, { Component } from 'react';

export default class Field extends Component {
  state = { word: 'a' };

  keep = (el) => {
    this.el = el;
    this.box = el;
  };

  focus() {
    this.el.focus();
  }

  clear = (to) => {
    this.setState({ word: to || '' });
    this.count();
    return this.state.word;
  };

  get word() {
    return this.state.word;
  }

  count() {
    this.props.onCount(this.state.word.length);
  }

  render() {
    return <input ref={this.keep} value={this.state.word} onChange={() => this.box.select()} />;
  }
}
