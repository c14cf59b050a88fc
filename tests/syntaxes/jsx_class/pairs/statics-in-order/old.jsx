import React from 'react';

let orders = 0;
const Head = ({ children }) => <header>{children}</header>;

export class Sizes extends React.Component {
  static Head = Head;
  static sizes = ['s', 'm', 'l'];
  static first = Sizes.sizes[0];
  static order = ++orders;
  static next(size) { return Sizes.sizes[(Sizes.sizes.indexOf(size) + 1) % 3]; }
  static defaultProps = { size: Sizes.sizes[1], from: Sizes.first, order: ++orders };
  static after = ++orders;

  state = { size: this.props.size };

  next = () => {
    const { sizes } = this.constructor;
    this.setState({ size: this.constructor.next(this.state.size), of: sizes.length });
  };

  render() {
    return (
      <section data-size={this.state.size}>
        <Sizes.Head>{this.props.title} {this.props.from} {this.props.order} {Sizes.order} {Sizes.after}</Sizes.Head>
        <button onClick={this.next}>{this.state.size} {this.state.of}</button>
      </section>
    );
  }
}

Sizes.Foot = Head;

export default Sizes;
