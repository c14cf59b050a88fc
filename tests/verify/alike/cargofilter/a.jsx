import React from 'react';

export default class CargoFilter extends React.Component {
  state = { text: '' };

  render() {
    const text = this.state.text.toLowerCase();
    const found = this.props.cargo.filter((item) => item.name.toLowerCase().includes(text));
    return (
      <section>
        <input placeholder="cargo" value={this.state.text} onChange={(event) => this.setState({ text: event.target.value })} />
        <ul>
          {found.map((item) => (
            <li key={item.id} className={item.heavy ? 'heavy' : 'light'}>{item.name}</li>
          ))}
        </ul>
        {found.length === 0 && <p>nothing</p>}
      </section>
    );
  }
}
