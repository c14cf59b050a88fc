import React, { Component } from 'react';
import './NoticePanel.css';

// A notice with any content. Escape closes it while it is open.
export class NoticePanel extends Component {
  static KINDS = ['weather', 'repair', 'holiday'];

  state = { open: true, seconds: 0 };

  constructor(props) {
    super(props);
    this.onKey = this.onKey.bind(this);
    this.setBox = this.setBox.bind(this);
  }

  componentDidMount() {
    document.addEventListener('keydown', this.onKey);
    this.ticking = setInterval(() => this.tick(), 1000); // how long it has been up
    if (this.props.onShown) this.props.onShown(this.box ? this.box.className : '');
  }

  componentWillUnmount() {
    document.removeEventListener('keydown', this.onKey);
    clearInterval(this.ticking);
    if (this.props.onGone) this.props.onGone(this.state.seconds);
  }

  onKey(event) {
    if (event.key === 'Escape' && this.state.open) {
      this.close('key');
    }
  }

  setBox(el) {
    if (this.props.onBox) this.props.onBox(el === null);
    this.box = el;
  }

  tick() {
    if (!this.state.open) return;
    this.setState({ seconds: this.state.seconds + 1 });
  }

  close(how) {
    this.setState({ open: false });
    if (this.props.onClose) {
      this.props.onClose(how, this.state.seconds);
    }
  }

  render() {
    const { kind, children, title } = this.props;
    if (!this.state.open) return null;
    return (
      <aside className={`notice ${kind}`} ref={this.setBox}>
        <header>
          <strong>{title}</strong>
          <button aria-label="Close" onClick={() => this.close('button')}>×</button>
        </header>
        {children || <p>No details.</p>}
        <small>{this.state.seconds} s</small>
      </aside>
    );
  }
}
