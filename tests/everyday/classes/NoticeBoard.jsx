import React from 'react';

export const NoticeContext = React.createContext({ notices: [], post: () => {}, take: () => {} });

let last = 0;

// Holds the notices of all piers and keeps them for the next visit
export class NoticeProvider extends React.Component {
  static defaultProps = { storageKey: 'notices' };

  state = { notices: [] };

  componentDidMount() {
    const stored = window.localStorage.getItem(this.props.storageKey);
    if (stored) {
      this.setState({ notices: JSON.parse(stored) }, () => this.log('restored'));
    }
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.notices !== this.state.notices) {
      window.localStorage.setItem(this.props.storageKey, JSON.stringify(this.state.notices));
    }
  }

  log(word) {
    if (this.props.onLog) this.props.onLog(`${word} ${this.state.notices.length}`);
  }

  post = (text) => {
    this.setState((state) => ({ notices: [...state.notices, { id: ++last, text }] }));
  };

  take = (id) => {
    this.setState({ notices: this.state.notices.filter((notice) => notice.id !== id) });
  };

  render() {
    const value = { notices: this.state.notices, post: this.post, take: this.take };
    return <NoticeContext.Provider value={value}>{this.props.children}</NoticeContext.Provider>;
  }
}

export class NoticeBoard extends React.Component {
  static contextType = NoticeContext;

  state = { draft: '' };

  submit = (event) => {
    event.preventDefault();
    if (!this.state.draft.trim()) return;
    this.context.post(this.state.draft.trim());
    this.setState({ draft: '' });
  };

  render() {
    const { notices, take } = this.context;
    return (
      <form onSubmit={this.submit}>
        <ul>
          {notices.map((notice) => (
            <li key={notice.id}>
              {notice.text} <button type="button" onClick={() => take(notice.id)}>take down</button>
            </li>
          ))}
        </ul>
        <input
          aria-label="Notice"
          value={this.state.draft}
          onChange={(event) => this.setState({ draft: event.target.value })}
        />
        <button>Post</button>
      </form>
    );
  }
}

export default class PierNotices extends React.Component {
  render() {
    return (
      <NoticeProvider onLog={this.props.onLog}>
        <NoticeBoard />
      </NoticeProvider>
    );
  }
}
