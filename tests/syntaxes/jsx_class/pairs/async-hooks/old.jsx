import React, { Component } from 'react';

export default class Tides extends Component {
  state = { tides: null };

  async componentDidMount() {
    const answer = await fetch(`/tides/${this.props.harbour}`);
    const { tides } = await answer.json();
    this.setState({ tides });
    this.props.onShown(this.props.harbour);
  }

  async componentDidUpdate(before) {
    if (before.harbour === this.props.harbour) return;
    this.setState({ tides: null });
    const answer = await fetch(`/tides/${this.props.harbour}`);
    this.setState(await answer.json());
  }

  async componentWillUnmount() {
    await this.props.onGone(this.props.harbour);
  }

  render() {
    const { tides } = this.state;
    return tides ? <ol>{tides.map((tide) => <li key={tide}>{tide}</li>)}</ol> : <p>…</p>;
  }
}
