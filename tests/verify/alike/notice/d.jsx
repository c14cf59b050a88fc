import React, { Component } from 'react';

class Keys extends Component {
  componentDidMount() {
    document.addEventListener('keydown', this);
  }

  componentWillUnmount() {
    document.removeEventListener('keydown', this);
  }

  handleEvent(event) {
    if (event.key === 'Escape') this.props.onEscape();
  }

  render() {
    return null;
  }
}

export default class Notice extends Component {
  constructor(props) {
    super(props);
    this.state = { closed: !props.open };
  }

  turn() {
    this.setState((state) => ({ closed: !state.closed }));
  }

  render() {
    const { closed } = this.state;
    const { title, children } = this.props;
    return (
      <aside>
        <Keys onEscape={() => this.setState({ closed: true })} />
        <button aria-expanded={!closed} onClick={this.turn.bind(this)}>{title}</button>
        {closed || <div role="note">{children}</div>}
      </aside>
    );
  }
}
