import React, { PureComponent, createRef } from 'react';

const price = { adult: 12, child: 6 };

export default class BookingSummary extends PureComponent {
  static defaultProps = { adults: 1, kids: 0, discount: 0, lines: [] };

  height = 0;
  box = createRef();

  constructor(props) {
    super(props);
    this.state = { adults: props.adults, kids: props.kids, note: '', measured: 'auto', edits: 0 };
  }

  componentDidUpdate(prevProps, prevState) {
    const { adults, kids } = this.state;
    if (prevState.adults !== adults || prevState.kids !== kids) {
      this.setState({ measured: '1px' }, () => {
        this.height = this.box.current.scrollHeight;
        this.setState({ measured: 'auto', note: `was ${this.box.current.style.height}` });
      });
      this.props.onChange && this.props.onChange({ adults, kids, total: this.getTotal() });
    }
    if (prevProps.adults !== this.props.adults) this.setState({ adults: this.props.adults });
  }

  getTotal() {
    const { adults, kids } = this.state;
    const full = adults * price.adult + kids * price.child;
    return Math.round(full * (1 - this.props.discount));
  }

  change = (kind, by) => () => {
    this.setState((state, props) => {
      const amount = state[kind] + by;
      if (amount < 0 || amount > (props.most || 9)) return null;
      return { [kind]: amount, edits: state.edits + 1 };
    });
  };

  render() {
    const { adults, kids, note, measured, edits } = this.state;
    return (
      <div ref={this.box} style={{ height: measured }}>
        <dl>
          <dt>Adults</dt>
          <dd>
            <button onClick={this.change('adults', -1)}>−</button> {adults}{' '}
            <button onClick={this.change('adults', 1)}>+</button>
          </dd>
          <dt>Children</dt>
          <dd>
            <button onClick={this.change('kids', -1)}>−</button> {kids}{' '}
            <button onClick={this.change('kids', 1)}>+</button>
          </dd>
        </dl>
        <strong>{this.getTotal()}</strong>
        <small>
          {edits} edits {note}
        </small>
      </div>
    );
  }
}
