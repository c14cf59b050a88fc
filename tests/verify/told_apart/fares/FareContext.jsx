import React from 'react';

export const FareContext = React.createContext({ fares: [] });

export class FareProvider extends React.Component {
  state = { fares: ['Holm 12', 'Skail 15'] };
  render() { return <FareContext.Provider value={this.state}>{this.props.children}</FareContext.Provider>; }
}
