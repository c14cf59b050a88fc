import React from 'react';
import PropTypes from 'prop-types';

export default class TideFetch extends React.Component {
  static propTypes = { load: PropTypes.func.isRequired, pier: PropTypes.string.isRequired };

  state = { level: null, failed: false };

  gone = false;

  asked = 0;

  componentDidMount() {
    this.ask();
  }

  componentDidUpdate(before) {
    if (before.pier !== this.props.pier) this.ask();
  }

  componentWillUnmount() {
    this.gone = true;
  }

  ask() {
    this.asked += 1;
    const mine = this.asked;
    Promise.resolve(this.props.load(this.props.pier)).then(
      (level) => {
        if (!this.gone && mine === this.asked) this.setState({ level, failed: false });
      },
      () => {
        if (!this.gone && mine === this.asked) this.setState({ failed: true });
      },
    );
  }

  render() {
    const { level, failed } = this.state;
    if (failed) return <p role="alert">No answer from {this.props.pier}</p>;
    return <p>{level === null ? 'Measuring …' : `${this.props.pier}: ${level}`}</p>;
  }
}
