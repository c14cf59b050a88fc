import React from 'react';
import { flushSync } from 'react-dom';

export default class CargoScale extends React.Component {
  state = { crates: [{ id: 1, weight: 40 }], said: '', busy: false };
  list = React.createRef();
  next = 2;

  componentWillUnmount() {
    clearTimeout(this.timer);
  }

  add = () => {
    const id = this.next++;
    flushSync(() => {
      this.setState({ crates: [...this.state.crates, { id, weight: id * 10 }] });
    });
    this.list.current.lastElementChild.setAttribute('data-new', 'yes');
    this.setState({ said: `${this.state.crates.length} crates, ${this.list.current.children.length} on the list` });
  };

  weigh() {
    this.setState({ busy: true });
    this.timer = setTimeout(() => {
      const total = this.state.crates.reduce((sum, crate) => sum + crate.weight, 0);
      this.setState({ busy: false, said: `${total} kg` });
      if (this.props.onWeigh) this.props.onWeigh(total, this.state.said);
    }, 500);
  }

  remove(id) {
    this.setState(
      ({ crates }) => ({ crates: crates.filter((crate) => crate.id !== id) }),
      () => this.setState({ said: `${this.state.crates.length} left` })
    );
  }

  render() {
    const { crates, said, busy } = this.state;
    return (
      <section aria-busy={busy}>
        <ul ref={this.list}>
          {crates.map(({ id, weight }) => (
            <li key={id}>
              {weight} kg <button onClick={() => this.remove(id)}>off</button>
            </li>
          ))}
        </ul>
        <button onClick={this.add}>add</button>
        <button onClick={() => this.weigh()} disabled={busy}>weigh</button>
        <p>{said}</p>
      </section>
    );
  }
}
