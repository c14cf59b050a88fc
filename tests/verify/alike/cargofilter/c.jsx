import React from 'react';

export default class CargoFilter extends React.Component {
  constructor(props) {
    super(props);
    this.state = { wanted: '' };
    this.type = this.type.bind(this);
  }

  type(event) {
    const wanted = event.currentTarget.value;
    this.setState(() => ({ wanted }));
  }

  rows() {
    const rows = [];
    for (const item of this.props.cargo) {
      if (item.name.toLowerCase().indexOf(this.state.wanted.toLowerCase()) < 0) continue;
      let kind = 'light';
      if (item.heavy) kind = 'heavy';
      rows.push(<li className={kind} key={item.id}>{item.name}</li>);
    }
    return rows;
  }

  render() {
    const rows = this.rows();
    return (
      <section>
        <input value={this.state.wanted} onChange={this.type} placeholder="cargo" />
        <ul>{rows}</ul>
        {rows.length > 0 || <p>nothing</p>}
      </section>
    );
  }
}
