import React from 'react';

const BerthRow = React.memo(
  function BerthRow({ berth, chosen, onChoose, onNote }) {
    return (
      <li className={chosen ? 'berth chosen' : 'berth'}>
        <span>{berth.name}</span>
        <em>{berth.notes.length} notes</em>
        <button onClick={() => onChoose(berth.id)}>choose</button>
        <button onClick={() => onNote(berth.id)}>note</button>
      </li>
    );
  },
  (before, now) => before.berth === now.berth && before.chosen === now.chosen
);

export default class BerthPicker extends React.Component {
  static defaultProps = {
    berths: [
      { id: 1, name: 'Skail 1', notes: [] },
      { id: 2, name: 'Skail 2', notes: [] },
      { id: 3, name: 'Holm', notes: ['narrow'] },
    ],
    most: 2,
  };

  constructor(props) {
    super(props);
    this.state = { berths: props.berths, chosen: [], said: '' };
    this.choose = this.choose.bind(this);
  }

  choose(id) {
    const { chosen } = this.state;
    if (chosen.includes(id)) {
      this.setState({ chosen: chosen.filter((one) => one !== id), said: `left ${id}` });
      return;
    }
    if (chosen.length >= this.props.most) {
      this.setState({ said: `only ${this.props.most} berths` });
      return;
    }
    this.setState(
      (state, props) => ({ chosen: [...state.chosen, id].slice(0, props.most), said: `chose ${id}` }),
      () => this.props.onChange && this.props.onChange(this.state.chosen)
    );
  }

  note(id) {
    const text = `note ${this.state.chosen.length}`;
    this.setState({
      berths: this.state.berths.map((berth) =>
        berth.id === id ? { ...berth, notes: [...berth.notes, text] } : berth
      ),
    });
  }

  render() {
    return (
      <div>
        <ul>
          {this.state.berths.map((berth) => (
            <BerthRow
              key={berth.id}
              berth={berth}
              chosen={this.state.chosen.includes(berth.id)}
              onChoose={this.choose}
              onNote={(id) => this.note(id)}
            />
          ))}
        </ul>
        <p role="status">{this.state.said}</p>
      </div>
    );
  }
}
