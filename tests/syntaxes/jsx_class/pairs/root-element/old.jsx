import React from 'react';
import ReactDOM, { findDOMNode } from 'react-dom';

export default class Berth extends React.Component {
  componentDidMount() {
    findDOMNode(this).setAttribute('data-seen', '1');
    this.timer = setTimeout(() => { findDOMNode(this).title = 'late'; }, 50);
  }

  componentWillUnmount() {
    clearTimeout(this.timer);
    this.props.onGone(ReactDOM.findDOMNode(this).tagName);
  }

  render() {
    const { wide, ...rest } = this.props;
    if (wide) return <section {...rest}>wide</section>;
    return (
      <p className="berth" title={rest.title}>
        text
      </p>
    );
  }
}
