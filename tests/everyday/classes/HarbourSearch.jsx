import React from 'react';

const harbours = ['Skail', 'Holm', 'Gullmoor', 'Sandwick', 'North Ness'];

export default class HarbourSearch extends React.Component {
  static defaultProps = { autoFocus: false, text: '', limit: 3 };

  constructor(props) {
    super(props);
    this.state = { open: false, value: '', highlighted: -1, picked: null };
    this.items = {};
    this.close = this.close.bind(this);
  }

  componentDidMount() {
    if (this.props.autoFocus) this.open();
    document.addEventListener('click', this.close);
  }

  componentDidUpdate(before, stateBefore) {
    if (before.text !== this.props.text) {
      this.setState({ value: this.props.text, highlighted: -1 }, () => {
        if (this.field) this.field.select();
      });
    }
    if (stateBefore.highlighted !== this.state.highlighted) {
      const item = this.items[this.state.highlighted];
      if (item && item.scrollIntoView) item.scrollIntoView();
    }
  }

  componentWillUnmount() {
    document.removeEventListener('click', this.close);
  }

  open = () => {
    this.setState({ open: true, value: this.props.text }, () => {
      this.field.focus();
    });
  };

  close(event) {
    if (this.box && !this.box.contains(event.target)) {
      this.setState({ open: false });
    }
  }

  get matches() {
    const value = this.state.value.toLowerCase();
    return harbours.filter((name) => name.toLowerCase().includes(value)).slice(0, this.props.limit);
  }

  handleKey = (event) => {
    const { matches } = this;
    if (event.key === 'ArrowDown') {
      this.setState((state) => ({ highlighted: Math.min(state.highlighted + 1, matches.length - 1) }));
    } else if (event.key === 'ArrowUp') {
      this.setState((state) => ({ highlighted: Math.max(state.highlighted - 1, 0) }));
    } else if (event.key === 'Enter' && matches[this.state.highlighted]) {
      this.pick(matches[this.state.highlighted]);
    }
  };

  pick(name) {
    this.setState({ picked: name, value: name, open: false }, () => {
      if (this.props.onPick) this.props.onPick(this.state.picked);
    });
  }

  render() {
    if (!this.state.open) {
      return <button onClick={this.open}>{this.state.picked || 'Choose a harbour'}</button>;
    }
    return (
      <div ref={(box) => (this.box = box)}>
        <input
          ref={(field) => (this.field = field)}
          value={this.state.value}
          onChange={(event) => this.setState({ value: event.target.value, highlighted: -1 })}
          onKeyDown={this.handleKey}
        />
        <ul>
          {this.matches.map((name, index) => (
            <li
              key={name}
              ref={(item) => { this.items[index] = item; }}
              className={index === this.state.highlighted ? 'on' : undefined}
              onClick={() => this.pick(name)}
            >
              {name}
            </li>
          ))}
        </ul>
      </div>
    );
  }
}
