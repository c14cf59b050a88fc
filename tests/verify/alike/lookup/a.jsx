import React from 'react';

export default class Lookup extends React.Component {
  state = { names: null, failed: false };

  componentDidMount() {
    this.load();
  }

  componentDidUpdate(before) {
    if (before.vessel !== this.props.vessel) this.load();
  }

  componentWillUnmount() {
    this.gone = true;
  }

  async load() {
    const { vessel } = this.props;
    this.setState({ names: null, failed: false });
    try {
      const reply = await fetch(`/crew/${vessel}`);
      const { names } = await reply.json();
      if (!this.gone && vessel === this.props.vessel) this.setState({ names: names.map(String) });
    } catch (error) {
      if (!this.gone && vessel === this.props.vessel) this.setState({ failed: true });
    }
  }

  render() {
    const { names, failed } = this.state;
    if (failed) return <p role="alert">no crew list</p>;
    if (names === null) return <p>loading</p>;
    return <ol>{names.map((name, at) => <li key={at}>{name}</li>)}</ol>;
  }
}
