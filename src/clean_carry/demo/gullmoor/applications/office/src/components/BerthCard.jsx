import React from 'react';

export default class BerthCard extends React.Component {
  state = { open: false };

  toggle = () => {
    this.setState({ open: !this.state.open });
  };

  render() {
    const { berth } = this.props;
    return (
      <article>
        <h3>{berth.name}</h3>
        <button type="button" onClick={this.toggle}>
          {this.state.open ? 'Less' : 'More'}
        </button>
        {this.state.open && <p>{berth.depth} m deep, {berth.ship || 'empty'}</p>}
      </article>
    );
  }
}
