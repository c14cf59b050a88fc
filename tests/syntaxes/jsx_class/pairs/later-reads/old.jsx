import React, { Component } from 'react';

export default class Later extends Component {
  state = { at: 0 };

  componentDidMount() {
    this.timer = setTimeout(() => {
      this.props.onLate(this.state.at, this.props.name);
    }, 500);
  }

  move = async () => {
    const { name } = this.props;
    this.setState({ at: this.state.at + 1 });
    await Promise.resolve();
    this.props.onMoved(name, this.props.name, this.state.at);
  };

  render() {
    return <button onClick={this.move}>{this.state.at}</button>;
  }

  componentWillUnmount() {
    clearTimeout(this.timer);
  }
}
