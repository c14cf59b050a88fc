import React from 'react';
import PropTypes from 'prop-types';

const propTypes = { tag: PropTypes.string, tone: PropTypes.string, title: PropTypes.string };

function Label({ tag: Tag = 'span', tone = 'calm', className, ...rest }) {
  return <Tag {...rest} className={`label ${tone} ${className || ''}`} />;
}

Label.propTypes = propTypes;

export default Label;
