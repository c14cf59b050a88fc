import React, { Component } from 'react';

class Gate extends Component {
  state = { open: false, by: '' };

  render() {
    return (
      <div>
        <button onClick={() => this.setState({ open: true, by: 'crew' })}>open</button>
        <button onClick={() => this.props.ready && this.setState({ open: false, by: '' })}>close</button>
        <i>{String(this.state.open)}{this.state.by}</i>
      </div>
    );
  }
}

export default Gate;
