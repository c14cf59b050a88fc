import React, { Component, createRef } from 'react';

export default class Focus extends Component {
  constructor(props) {
    super(props);
    this.first = createRef();
    this.setSecond = (el) => {
      this.second = el;
    };
  }

  componentDidMount() {
    this.first.current.focus();
  }

  render() {
    return (
      <p>
        <input ref={this.first} />
        <input ref={this.setSecond} />
        <button onClick={() => this.second.focus()}>second</button>
      </p>
    );
  }
}
