import React, { Component } from 'react';

export default class BerthList extends Component {
  state = { chosen: 0 };

  kept(berth, index) {
    this.props.onKeep(index, Boolean(berth), this.state.chosen);
  }

  render() {
    return (
      <ul ref={(list) => this.props.onList(Boolean(list), this.props.name)}>
        {this.props.berths.map((berth, index) => (
          <li
            key={berth}
            ref={(item) => this.kept(item, index)}
            onClick={() => this.setState({ chosen: index })}
          >
            {berth}
          </li>
        ))}
      </ul>
    );
  }
}
