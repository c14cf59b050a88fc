import React from 'react';

const hours = [0, 3, 6, 9, 12, 15, 18, 21];

export default class TideChart extends React.Component {
  static defaultProps = { levels: [1, 3, 5, 3, 1, 2, 4, 3], height: 120 };

  points = new Map();
  svg = React.createRef();
  resizes = 0;

  constructor(props) {
    super(props);
    this.state = { width: 320, at: null, marks: [] };
    this.handleResize = this.handleResize.bind(this);
    this.register = (hour) => (node) => {
      if (node) this.points.set(hour, node);
      else this.points.delete(hour);
    };
  }

  componentDidMount() {
    window.addEventListener('resize', this.handleResize);
    if (this.props.onReady) this.props.onReady(this.points.size);
  }

  componentDidUpdate() {
    if (this.props.onDraw) this.props.onDraw(this.state.marks.length);
  }

  componentWillUnmount() {
    window.removeEventListener('resize', this.handleResize);
  }

  handleResize() {
    this.resizes++;
    this.setState({ width: window.innerWidth > 600 ? 320 : 200 });
  }

  mark(hour) {
    const { marks } = this.state;
    const next = marks.includes(hour) ? marks.filter((one) => one !== hour) : marks.concat(hour);
    this.setState({ marks: next, at: hour });
  }

  renderPoint(level, index) {
    const hour = hours[index];
    const x = (index / (this.props.levels.length - 1)) * this.state.width;
    const y = this.props.height - level * 20;
    return (
      <circle
        key={hour}
        ref={this.register(hour)}
        cx={x}
        cy={y}
        r={this.state.marks.includes(hour) ? 6 : 3}
        onClick={() => this.mark(hour)}
      />
    );
  }

  render() {
    const { levels, height } = this.props;
    return (
      <figure>
        <svg ref={this.svg} viewBox={`0 0 ${this.state.width} ${height}`} role="img" aria-label="Tide">
          {levels.map(this.renderPoint, this)}
        </svg>
        <figcaption>
          {this.state.at === null ? 'Press a point' : `At ${this.state.at}:00`} ({this.state.marks.length} marked)
        </figcaption>
      </figure>
    );
  }
}
