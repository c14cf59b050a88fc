import React from 'react';

class Notice extends React.Component {
  state = { open: false, looks: 0 };

  componentDidUpdate(previousProps, previousState) {
    if (previousState.open !== this.state.open && !this.state.open) {
      this.setState({ looks: this.state.looks + 1 });
    }
    if (previousProps.text !== this.props.text) {
      const propsBefore = previousProps.text;
      this.props.onText(propsBefore);
    }
  }

  render() {
    return (
      <button onClick={() => this.setState({ open: !this.state.open })}>
        {this.state.looks} {this.props.text}
      </button>
    );
  }
}

class Tide extends React.Component {
  state = { level: 0 };

  componentDidUpdate(before, stateBefore) {
    if (stateBefore.level !== this.state.level) {
      const previousLevel = stateBefore.level;
      const setLevel = previousLevel + 1;
      this.props.onText(`${previousLevel} ${setLevel}`);
    }
  }

  render() {
    return <button onClick={() => this.setState({ level: this.state.level + 2 })}>{this.state.level}</button>;
  }
}

class Lamp extends React.Component {
  state = { mounted: 0 };

  componentDidUpdate() {
    const mounted = this.state.mounted;
    this.props.onText(mounted);
  }

  render() {
    return <button onClick={() => this.setState({ mounted: this.state.mounted + 1 })}>{this.state.mounted}</button>;
  }
}

export default class Page extends React.Component {
  render() {
    return (
      <div>
        <Notice {...this.props} />
        <Tide {...this.props} />
        <Lamp {...this.props} />
      </div>
    );
  }
}
