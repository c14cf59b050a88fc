import React from 'react';

export default class Notice extends React.Component {
  state = { open: Boolean(this.props.open) };

  componentDidMount() {
    document.addEventListener('keydown', this.key);
  }

  componentWillUnmount() {
    document.removeEventListener('keydown', this.key);
  }

  key = (event) => {
    if (event.key === 'Escape') this.setState({ open: false });
  };

  render() {
    return (
      <aside>
        <button aria-expanded={this.state.open} onClick={() => this.setState({ open: !this.state.open })}>
          {this.props.title}
        </button>
        {this.state.open && <div role="note">{this.props.children}</div>}
      </aside>
    );
  }
}
