import React from 'react';

export default class GateList extends React.Component {
  static defaultProps = { gates: ['A', 'B', 'C'], pause: 400 };

  constructor(props) {
    super(props);
    this.state = { open: {}, log: [], filter: '' };
    this.timers = [];
    const self = this;
    this.closeAll = function () {
      self.props.gates.forEach(function (gate) {
        this.toggle(gate, false);
      }, self);
    };
  }

  componentWillUnmount() {
    this.timers.forEach(clearTimeout);
    this.timers.length = 0;
  }

  toggle(gate, open = !this.state.open[gate]) {
    this.setState(
      function (state) {
        return { open: { ...state.open, [gate]: open } };
      },
      function () {
        this.setState({ log: this.state.log.concat(`${gate} ${open ? 'open' : 'shut'}`) });
      }
    );
  }

  openLater(gate) {
    this.timers.push(
      setTimeout(
        function () {
          this.toggle(gate, true);
        }.bind(this),
        this.props.pause
      )
    );
  }

  rows() {
    return this.props.gates
      .filter(function (gate) {
        return gate.indexOf(this.state.filter) >= 0;
      }, this)
      .map((gate) => {
        const open = Boolean(this.state.open[gate]);
        return (
          <tr key={gate} className={open ? 'open' : 'shut'}>
            <th scope="row">{gate}</th>
            <td>
              <button onClick={this.toggle.bind(this, gate, !open)}>{open ? 'shut' : 'open'}</button>
              <button onClick={() => this.openLater(gate)}>open soon</button>
            </td>
          </tr>
        );
      });
  }

  render() {
    return (
      <div>
        <input
          aria-label="Gate"
          value={this.state.filter}
          onChange={({ target }) => this.setState({ filter: target.value.toUpperCase() })}
        />
        <table>
          <tbody>{this.rows()}</tbody>
        </table>
        <button onClick={this.closeAll}>shut all</button>
        <ol>
          {this.state.log.map((line, index) => (
            <li key={index}>{line}</li>
          ))}
        </ol>
      </div>
    );
  }
}
