import React, { Component } from 'react';

export default class Gauge extends Component {
  componentDidMount() {
    this.props.onMeasure(this.measured(3), this.rounded());
  }

  // A parameter and a variable have the name of an input.
  measured(depth) {
    return depth * this.props.depth;
  }

  rounded() {
    let radius = this.props.radius;
    radius = Math.max(radius, 2);
    return radius;
  }

  render() {
    const { depth, radius, onMeasure, ...others } = this.props;
    return (
      <p {...others} onClick={() => onMeasure(this.measured(2), this.rounded())}>
        {depth} {radius} {this.measured(1)}
      </p>
    );
  }
}

export class Mark extends Component {
  label() {
    let { name } = this.props;
    if (!name) name = 'none';
    return name;
  }

  render() {
    const { name, ...others } = this.props;
    return <i {...others} title={name}>{this.label()}</i>;
  }
}
