import React from 'react';

// Elements that are named in markup and taken apart all at once.
export default class TideStrip extends React.Component {
  componentDidMount() {
    const { mark, scale: ruler } = this.refs;
    ruler.title = `from ${mark.textContent}`;
  }

  flood = () => {
    const { scale } = this.refs;
    scale.style.width = `${this.props.height}px`;
  };

  render() {
    return (
      <div>
        <b ref="mark">{this.props.mark}</b>
        <i ref="scale" />
        <button onClick={this.flood}>flood</button>
      </div>
    );
  }
}
