import React, { Component } from 'react';
import './SailingCard.css';

const LABELS = { open: 'On sale', few: 'Few seats left', full: 'Sold out' };

// One sailing; whatever else a page passes on ends up on the article.
export default class SailingCard extends Component {
  static defaultProps = {
    status: 'open',
    tag: 'article',
  };

  state = {
    open: false,
    pinned: this.props.startPinned || false,
  };

  toggle = () => {
    this.setState((prev) => ({ open: !prev.open }));
  };

  pin = (event) => {
    const { pinned } = this.state;
    event.stopPropagation();
    this.setState({ pinned: !pinned });
    if (this.props.onPin) this.props.onPin(this.props.id, !pinned);
  };

  render() {
    const { id, tag: Tag, from, to, status, stops, className, children, onPin, startPinned, ...rest } = this.props;
    const { open, pinned } = this.state;
    const classes = ['sailing', status, pinned && 'pinned', className].filter(Boolean).join(' ');
    return (
      <Tag {...rest} className={classes}>
        <h3>
          {from} <span aria-hidden="true">→</span> {to}
        </h3>
        {/* the state of sales, in words */}
        <p className="status">{LABELS[status]}</p>
        <button type="button" aria-expanded={open} onClick={this.toggle}>
          {open ? 'Hide stops' : 'Show stops'}
        </button>
        <button type="button" aria-pressed={pinned} onClick={this.pin}>Pin</button>
        {open && (
          <ul>
            {stops.map((stop) => <li key={stop}>{stop}</li>)}
          </ul>
        )}
        {children}
      </Tag>
    );
  }
}
