import React from 'react';

export default class Gates extends React.Component {
  state = { open: {}, log: [], found: '' };

  constructor(props) {
    super(props);
    const self = this;
    this.shutAll = function () {
      self.props.gates.forEach(function (gate) {
        this.toggle(gate, false);
      }, self);
    };
  }

  toggle(gate, open) {
    this.setState(
      function (state) {
        return { open: { ...state.open, [gate]: open === undefined ? !this.state.open[gate] : open } };
      },
      function () {
        this.setState({ log: this.state.log.concat(`${gate} ${this.state.open[gate]}`) });
      }
    );
  }

  later(gate) {
    setTimeout(
      function () {
        this.toggle(gate, true);
      }.bind(this),
      100
    );
  }

  find() {
    const gate = this.props.gates.find(function (one) {
      return this.state.open[one];
    }, this);
    this.setState({ found: String(gate) });
  }

  row(gate) {
    return (
      <li key={gate}>
        <button onClick={this.toggle.bind(this, gate)}>{gate} {String(this.state.open[gate])}</button>
      </li>
    );
  }

  render() {
    return (
      <div>
        <ul>{this.props.gates.map(this.row, this)}</ul>
        <button onClick={() => this.later('B')}>later</button>
        <button onClick={this.shutAll}>shut</button>
        <button onClick={() => this.find()}>find</button>
        <p>{this.state.log.join()} {this.state.found}</p>
      </div>
    );
  }
}
