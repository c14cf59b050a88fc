import React from 'react';

// Opens at mount, and focuses what that renders
class Title extends React.Component {
  state = { value: '', open: false };

  componentDidMount() {
    if (this.props.opens) this.open();
  }

  open = () => {
    this.setState({ open: true, value: this.props.text }, () => {
      this.props.onSeen(this.field.value);
    });
  };

  render() {
    return this.state.open ? (
      <input ref={(field) => (this.field = field)} value={this.state.value} readOnly />
    ) : (
      <button onClick={this.open}>open</button>
    );
  }
}

// Measures in two steps whenever the text is another
class Panel extends React.Component {
  state = { height: 'auto', measured: '' };

  componentDidUpdate(before) {
    if (before.text !== this.props.text) {
      this.setState({ height: '1px' }, () => {
        this.setState({ height: 'auto', measured: this.box.style.height });
      });
    }
  }

  render() {
    return (
      <div ref={(box) => { this.box = box; }} style={{ height: this.state.height }}>
        {this.props.text} {this.state.measured}
      </div>
    );
  }
}

// Two writes in one go: each callback sees both
class Log extends React.Component {
  state = { lines: [], count: 0 };

  add = () => {
    this.setState({ lines: [...this.state.lines, 'a'] }, () => this.props.onSeen(this.state.count));
    this.setState({ count: this.state.count + 1 }, function () {
      this.props.onSeen(this.state.lines.length);
    });
  };

  render() {
    return <button onClick={this.add}>{this.state.lines.length} {this.state.count}</button>;
  }
}

export default class Page extends React.Component {
  render() {
    const { text = 'Skail', onSeen } = this.props;
    return (
      <main>
        <Title opens text={text} onSeen={onSeen} />
        <Panel text={text} />
        <Log onSeen={onSeen} />
      </main>
    );
  }
}
