import React, { PureComponent } from 'react';

export default class Lookup extends PureComponent {
  constructor(props) {
    super(props);
    this.state = { shown: 'loading' };
    this.mounted = false;
  }

  componentDidMount() {
    this.mounted = true;
    this.ask();
  }

  componentDidUpdate({ vessel }) {
    if (vessel !== this.props.vessel) this.ask();
  }

  componentWillUnmount() {
    this.mounted = false;
  }

  ask() {
    const { vessel } = this.props;
    const settle = (shown) => {
      if (this.mounted && this.props.vessel === vessel) this.setState({ shown });
    };
    this.setState({ shown: 'loading' });
    fetch(`/crew/${vessel}`).then(
      (reply) => reply.json().then(({ names }) => settle(names.map(String))),
    ).catch(() => settle('failed'));
  }

  render() {
    const { shown } = this.state;
    if (shown === 'loading') return <p>loading</p>;
    if (shown === 'failed') return <p role="alert">no crew list</p>;
    return (
      <ol>
        {shown.map((name, at) => {
          return <li key={at}>{name}</li>;
        })}
      </ol>
    );
  }
}
