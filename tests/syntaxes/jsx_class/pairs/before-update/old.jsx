import React, { Component, PureComponent } from 'react';

export default class BerthLog extends Component {
  state = { open: false, seen: 0 };

  // Tells of what is to come, while all is as it was.
  componentWillUpdate(nextProps, nextState) {
    const { berth } = this.props;
    if (nextProps.berth !== berth) {
      this.props.onLeave(berth, nextProps.berth, this.state.seen);
      if (nextState.open) return;
      this.left = berth;
    }
    if (!this.state.open && nextState.open) {
      this.timer = setTimeout(() => {
        this.props.onLate(this.state.seen);
      }, 30);
    }
  }

  componentDidUpdate() {
    this.props.onUpdate(this.state.seen, this.left);
  }

  componentWillUnmount() {
    clearTimeout(this.timer);
  }

  toggle = () => this.setState((state) => ({ open: !state.open, seen: state.seen + 1 }));

  render() {
    return (
      <p onClick={this.toggle}>
        {this.props.berth} {String(this.state.open)} {this.state.seen}
        <Gate berth={this.props.berth} onShut={this.props.onShut} />
        <Lamp onLight={this.props.onLight} />
      </p>
    );
  }
}

export class Gate extends Component {
  static defaultProps = { width: 2 };

  UNSAFE_componentWillUpdate({ berth }) {
    if (this.props.berth !== berth) this.props.onShut(berth, this.props.width);
  }

  render() {
    return <i>{this.props.berth}</i>;
  }
}

export class Lamp extends PureComponent {
  state = { lit: 0, shade: 'dark' };

  componentWillUpdate(_, next) {
    if (next.lit !== this.state.lit) {
      this.props.onLight(this.state.lit, next.lit);
    }
  }

  render() {
    return (
      <b onClick={() => this.setState({ lit: Math.min(this.state.lit + 1, 2) })}>
        {this.state.lit} {this.state.shade}
      </b>
    );
  }
}
