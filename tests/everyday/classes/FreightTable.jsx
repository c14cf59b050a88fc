import React from 'react';

const collator = new Intl.Collator('en');

class Cell extends React.PureComponent {
  render() {
    const { value, format } = this.props;
    return <td>{format ? format(value) : value}</td>;
  }
}

export default class FreightTable extends React.Component {
  static defaultProps = {
    rows: [
      { id: 'f1', goods: 'Wool', tons: 4 },
      { id: 'f2', goods: 'Barley', tons: 9 },
      { id: 'f3', goods: 'Slate', tons: 2 },
    ],
    locale: 'en',
  };

  state = { sort: 'goods', down: false, checked: new Set(), scale: 1 };

  formats = {
    tons: (value) => `${(value * this.state.scale).toFixed(1)} t`,
    goods: (value) => value.toUpperCase(),
  };

  sortBy = (sort) => {
    this.setState((prev) => ({ sort, down: prev.sort === sort && !prev.down }));
  };

  check(id) {
    const checked = new Set(this.state.checked);
    if (!checked.delete(id)) checked.add(id);
    this.setState({ checked });
    this.props.onCheck && this.props.onCheck(checked.size);
  }

  compare = (a, b) => {
    const { sort, down } = this.state;
    const order = sort === 'tons' ? a.tons - b.tons : collator.compare(a[sort], b[sort]);
    return down ? -order : order;
  };

  renderRow(row) {
    const { checked } = this.state;
    return (
      <tr key={row.id} data-checked={checked.has(row.id)}>
        <td>
          <input type="checkbox" checked={checked.has(row.id)} onChange={() => this.check(row.id)} />
        </td>
        <Cell value={row.goods} format={this.formats.goods} />
        <Cell value={row.tons} format={this.formats.tons} />
      </tr>
    );
  }

  render() {
    const { rows } = this.props;
    const sorted = rows.slice().sort(this.compare);
    return (
      <table>
        <thead>
          <tr>
            <th />
            {['goods', 'tons'].map((name) => (
              <th key={name} onClick={() => this.sortBy(name)} aria-sort={this.state.sort === name ? 'other' : undefined}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{sorted.map((row) => this.renderRow(row))}</tbody>
        <tfoot>
          <tr>
            <td colSpan={3}>
              <button onClick={() => this.setState({ scale: this.state.scale * 2 })}>×{this.state.scale}</button>
            </td>
          </tr>
        </tfoot>
      </table>
    );
  }
}
