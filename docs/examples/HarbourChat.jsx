import React from 'react';

const pad = (number) => String(number).padStart(2, '0');

// The line a harbour writes on; who holds a reference to it can focus and clear it
class MessageField extends React.Component {
  static defaultProps = { most: 120, placeholder: 'A message' };

  state = { text: '', history: [], at: -1 };
  node = null;

  focus() {
    this.node.focus();
  }

  clear() {
    this.setState({ text: '', at: -1 });
  }

  isEmpty() {
    return this.state.text.trim() === '';
  }

  handleChange = (event) => {
    const text = event.target.value.slice(0, this.props.most);
    this.setState({ text }, () => {
      if (this.props.onTyping) this.props.onTyping(this.state.text.length);
    });
  };

  handleKey = (event) => {
    const { history, at, text } = this.state;
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      if (this.isEmpty()) return;
      this.setState({ text: '', history: [text, ...history].slice(0, 20), at: -1 });
      this.props.onSend(text.trim());
    } else if (event.key === 'ArrowUp' && at + 1 < history.length) {
      this.setState({ at: at + 1, text: history[at + 1] });
    } else if (event.key === 'ArrowDown' && at > -1) {
      this.setState({ at: at - 1, text: at > 0 ? history[at - 1] : '' });
    }
  };

  render() {
    const { placeholder, most, disabled } = this.props;
    return (
      <label>
        <textarea
          ref={(node) => (this.node = node)}
          value={this.state.text}
          placeholder={placeholder}
          disabled={disabled}
          onChange={this.handleChange}
          onKeyDown={this.handleKey}
        />
        <small>{most - this.state.text.length} left</small>
      </label>
    );
  }
}

/** Messages between the harbours, newest at the bottom; it stays at the bottom unless somebody reads above. */
export default class HarbourChat extends React.Component {
  static defaultProps = { name: 'Skail', every: 5000, messages: [] };

  static getDerivedStateFromProps(props, state) {
    if (props.messages !== state.given) {
      return { given: props.messages, messages: props.messages };
    }
    return null;
  }

  state = { given: this.props.messages, messages: this.props.messages, unread: 0, typing: '', online: true };

  list = React.createRef();
  field = null;
  below = true;
  last = 0;

  componentDidMount() {
    this.poll = setInterval(this.ask, this.props.every);
    window.addEventListener('online', this.handleOnline);
    window.addEventListener('offline', this.handleOnline);
    if (this.field) this.field.focus();
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.messages !== this.state.messages) {
      const more = this.state.messages.length - prevState.messages.length;
      if (this.below) this.toBottom();
      else if (more > 0) this.setState({ unread: this.state.unread + more });
    }
    if (prevProps.every !== this.props.every) {
      clearInterval(this.poll);
      this.poll = setInterval(this.ask, this.props.every);
    }
  }

  componentWillUnmount() {
    clearInterval(this.poll);
    clearTimeout(this.quiet);
    window.removeEventListener('online', this.handleOnline);
    window.removeEventListener('offline', this.handleOnline);
  }

  ask = () => {
    if (!this.state.online) return;
    fetch(`/messages?after=${this.last}`)
      .then((reply) => reply.json())
      .then((found) => {
        if (!Array.isArray(found) || found.length === 0) return;
        this.last = found[found.length - 1].id;
        this.setState((state) => ({ messages: [...state.messages, ...found] }));
      })
      .catch(() => this.setState({ online: false }));
  };

  handleOnline = (event) => {
    this.setState({ online: event.type === 'online' });
    if (event.type === 'online') this.ask();
  };

  handleScroll = () => {
    const { scrollTop, scrollHeight, clientHeight } = this.list.current;
    this.below = scrollHeight - scrollTop - clientHeight < 20;
    if (this.below && this.state.unread > 0) this.setState({ unread: 0 });
  };

  handleTyping = (length) => {
    clearTimeout(this.quiet);
    this.setState({ typing: length > 0 ? `${this.props.name} is writing` : '' });
    this.quiet = setTimeout(() => this.setState({ typing: '' }), 2000);
  };

  send = (text) => {
    const now = new Date();
    const message = {
      id: `${this.props.name}-${this.state.messages.length}`,
      from: this.props.name,
      at: `${pad(now.getHours())}:${pad(now.getMinutes())}`,
      text,
    };
    this.below = true;
    this.setState({ messages: [...this.state.messages, message], typing: '' }, this.toBottom);
    if (this.props.onSend) this.props.onSend(message);
  };

  toBottom = () => {
    const node = this.list.current;
    if (node) node.scrollTop = node.scrollHeight;
  };

  reset() {
    this.setState({ messages: [], unread: 0 });
    this.field.clear();
    this.field.focus();
  }

  renderMessage = (message, index) => {
    const before = this.state.messages[index - 1];
    const same = before && before.from === message.from;
    return (
      <li key={message.id} className={message.from === this.props.name ? 'own' : undefined}>
        {!same && <b>{message.from}</b>} <time>{message.at}</time> {message.text}
      </li>
    );
  };

  render() {
    const { messages, unread, typing, online } = this.state;
    return (
      <div className="chat">
        {!online && <p role="alert">No line to the other harbours</p>}
        <ol ref={this.list} onScroll={this.handleScroll}>
          {messages.map(this.renderMessage)}
        </ol>
        {unread > 0 && <button onClick={this.toBottom}>{unread} new below</button>}
        <p aria-live="polite">{typing}</p>
        <MessageField
          ref={(field) => { this.field = field; }}
          disabled={!online}
          onSend={this.send}
          onTyping={this.handleTyping}
        />
        <button onClick={() => this.reset()}>empty</button>
      </div>
    );
  }
}
