import React, { Component } from 'react';
import PropTypes from 'prop-types';

const propTypes = { tag: PropTypes.string, tone: PropTypes.string, title: PropTypes.string };
const defaultProps = { tag: 'span', tone: 'calm' };

class Label extends Component {
  render() {
    let { tag: Tag, tone, className, ...rest } = this.props;
    return <Tag {...rest} className={`label ${tone} ${className || ''}`} />;
  }
}

Label.propTypes = propTypes;
Label.defaultProps = defaultProps;

export default Label;
