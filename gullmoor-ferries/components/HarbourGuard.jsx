import React, { Component } from 'react';

// Keeps the rest of the page up when one part fails.
export default class HarbourGuard extends Component {
  state = { failed: null };

  static getDerivedStateFromError(error) {
    return { failed: error.message };
  }

  componentDidCatch(error) {
    if (this.props.onFail) this.props.onFail(error.message);
  }

  render() {
    if (this.state.failed) return <p role="alert">This part is out of order.</p>;
    return this.props.children;
  }
}
