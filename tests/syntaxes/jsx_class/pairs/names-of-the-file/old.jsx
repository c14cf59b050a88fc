import React, { Component } from 'react';

const format = (name) => `the ${name}`;
const sizes = [1, 2];
const tide = () => 'low';

export default class Berth extends Component {
  label() {
    return format(this.props.name) + sizes.length;
  }

  render() {
    const { format, sizes, name, ...others } = this.props;
    return (
      <p {...others} onClick={() => format(name)}>
        {this.label()} {sizes} <Tide name={name} />
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
