import React, { Component } from 'react';

const withBerth = (Inner, berth) => {
  return class extends React.PureComponent {
    render() {
      return <Inner berth={berth} {...this.props} />;
    }
  };
};

function withTide(Inner, from) {
  class Tide extends Component {
    static displayName = `withTide(${Inner.name})`;
    state = { level: from };

    componentDidMount() {
      this.timer = setInterval(() => this.setState({ level: this.state.level + 1 }), 1000);
    }

    componentWillUnmount() {
      clearInterval(this.timer);
    }

    render() {
      return <Inner {...this.props} level={this.state.level} />;
    }
  }
  Tide.defaultProps = { harbour: 'Gullmoor' };
  return Tide;
}

const Mast = ({ berth, harbour, level, flag }) => <p title={flag}>{harbour} {berth}: {level}</p>;

export default withTide(withBerth(Mast, 'A4'), 2);
