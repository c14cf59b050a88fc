import React from 'react';
import PropTypes from 'prop-types';

export default class NoticePanel extends React.Component {
  static propTypes = { children: PropTypes.node, header: PropTypes.node, title: PropTypes.string };

  static defaultProps = { title: 'Notice' };

  state = { open: true };

  render() {
    return (
      <section>
        <header>{this.props.header || <h2>{this.props.title}</h2>}</header>
        <button type="button" onClick={() => this.setState({ open: !this.state.open })}>
          {this.state.open ? 'Hide' : 'Show'}
        </button>
        {this.state.open && <div className="body">{this.props.children}</div>}
      </section>
    );
  }
}
