import React, { Component, PureComponent } from 'react';

class TideMark extends PureComponent {
  static displayName = 'TideMark';

  static scale = 10;

  static heightOf(depth, by) {
    return `${depth * by}px`;
  }

  render() {
    const { depth } = this.props;
    return <i style={{ height: this.constructor.heightOf(depth, this.constructor.scale) }}>{depth}</i>;
  }
}

export default class TideChart extends Component {
  static label = (name) => `Tide at ${name}`;

  state = { depth: this.props.depth };

  deeper = () => this.setState((state) => ({ depth: state.depth + 1 }));

  render() {
    return (
      <p onClick={this.deeper}>
        {this.constructor.label(this.props.name)} <TideMark depth={this.state.depth} />
      </p>
    );
  }
}
