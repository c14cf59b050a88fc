import React from 'react';

export default class FareCalculator extends React.Component {
  displayName = 'FareCalculator';

  static rates = { adult: 1200, child: 600, bike: 300 };
  static kinds = Object.keys(FareCalculator.rates);
  static defaultProps = { kind: FareCalculator.kinds[0], currency: 'GMF' };

  state = { kind: this.props.kind, amount: 1, history: [], open: false, changes: 0 };

  componentDidUpdate(previousProps, previousState) {
    const changed = previousState.kind !== this.state.kind || previousState.amount !== this.state.amount;
    if (changed && this.props.onFare) {
      this.props.onFare(this.total);
    }
    if (previousState.open !== this.state.open && !this.state.open) {
      this.setState({ changes: this.state.changes + 1 });
    }
    if (previousProps.kind !== this.props.kind) {
      this.kind = this.props.kind;
    }
  }

  get total() {
    return FareCalculator.rates[this.state.kind] * this.state.amount;
  }

  get kind() {
    return this.state.kind;
  }

  set kind(kind) {
    this.setState({ kind, history: [...this.state.history, kind] });
  }

  setAmount(amount) {
    this.setState({ amount: Math.max(1, amount) });
  }

  next = () => {
    const { kinds } = this.constructor;
    this.kind = kinds[(kinds.indexOf(this.kind) + 1) % kinds.length];
  };

  render() {
    const { currency } = this.props;
    const { amount, history, open, changes } = this.state;
    return (
      <section>
        <button onClick={this.next}>{this.kind}</button>
        <button onClick={() => this.setAmount(amount + 1)}>more</button>
        <button onClick={() => this.setAmount(amount - 1)}>fewer</button>
        <button onClick={() => this.setState({ open: !open })}>{open ? 'hide' : 'show'} history</button>
        <p>
          {amount} × {FareCalculator.rates[this.kind]} = {this.total} {currency}
        </p>
        {open && <ul>{history.map((kind, index) => <li key={index}>{kind}</li>)}</ul>}
        <small>{changes} looks at the history</small>
      </section>
    );
  }
}
