import React, { Component } from 'react';

export default class Keys extends Component {
  state = { last: '' };

  componentDidMount() {
    if (this.props.on) this.attach();
  }

  componentDidUpdate(prevProps) {
    if (prevProps.on !== this.props.on) {
      this.detach();
      if (this.props.on) this.attach();
    }
  }

  componentWillUnmount() {
    this.detach();
  }

  attach() {
    document.addEventListener('keydown', this.press);
  }

  detach() {
    document.removeEventListener('keydown', this.press);
  }

  press = ({ key }) => {
    this.setState({ last: key });
    this.props.onKey(key, this.state.last);
  };

  render() {
    return <input defaultValue={this.state.last} />;
  }
}
