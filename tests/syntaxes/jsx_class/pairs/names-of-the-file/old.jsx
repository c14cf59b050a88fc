import React, { Component } from 'react';

const format = (name) => `the ${name}`;
const sizes = [1, 2];
const tide = () => 'low';

export default class Berth extends Component {
  label() {
    return format(this.props.name) + sizes.length;
  }

  render() {
    return (
      <p id={this.props.id} onClick={() => this.props.format(this.props.name)}>
        {this.label()} {this.props.sizes} <Tide name={this.props.name} />
      </p>
    );
  }
}

class Tide extends Component {
  render() {
    return <i title={this.props.name}>{this.props.tide()}</i>;
  }
}

Tide.defaultProps = { tide: tide };
