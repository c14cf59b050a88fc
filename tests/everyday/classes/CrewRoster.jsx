import React, { PureComponent } from 'react';

function debounce(run, wait) {
  let timer;
  return function (...values) {
    clearTimeout(timer);
    timer = setTimeout(() => run.apply(this, values), wait);
  };
}

const empty = [];

export default class CrewRoster extends PureComponent {
  static get defaultProps() {
    return { crew: empty, wait: 300, placeholder: 'Find a sailor' };
  }

  constructor(props) {
    super(props);
    this.state = { query: '', shown: props.crew, searches: 0 };
    this.search = debounce(this.search.bind(this), props.wait);
    this.handleChange = this.handleChange.bind(this);
  }

  componentDidUpdate(previousProps) {
    if (previousProps.crew !== this.props.crew) {
      this.search(this.state.query);
    }
  }

  search(query) {
    const needle = query.toLowerCase();
    this.setState({
      shown: this.props.crew.filter((one) => one.name.toLowerCase().includes(needle)),
      searches: this.state.searches + 1,
    });
  }

  handleChange(event) {
    const query = event.target.value;
    this.setState({ query });
    this.search(query);
  }

  get heading() {
    const { shown, searches } = this.state;
    return searches === 0 ? `${shown.length} on the roster` : `${shown.length} found`;
  }

  render() {
    return (
      <div className="roster">
        <input value={this.state.query} placeholder={this.props.placeholder} onChange={this.handleChange} />
        <h4>{this.heading}</h4>
        <ol>
          {this.state.shown.map((one) => (
            <li key={one.id}>
              {one.name} <small>{one.rank}</small>
            </li>
          ))}
        </ol>
      </div>
    );
  }
}
