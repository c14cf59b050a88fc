import React, { Component, PureComponent } from 'react';

function debounce(run, wait) {
  let timer;
  return function (...values) {
    clearTimeout(timer);
    timer = setTimeout(() => run.apply(this, values), wait);
  };
}

class Search extends PureComponent {
  static get defaultProps() {
    return { wait: 300, crew: 'Orla Brin' };
  }

  constructor(props) {
    super(props);
    this.state = { query: '', found: '' };
    this.search = debounce(this.search.bind(this), props.wait);
  }

  search(query) {
    this.setState({ found: this.props.crew.includes(query) ? `${query} of ${this.state.query}` : 'nobody' });
  }

  change = ({ target }) => {
    this.setState({ query: target.value });
    this.search(target.value);
  };

  render() {
    return <label><input value={this.state.query} onChange={this.change} /> {this.state.found}</label>;
  }
}

class Counter extends Component {
  displayName = 'Counter';
  unused = 0;

  state = { count: 0, history: [] };

  componentDidMount = () => {
    this.props.onTold('mounted');
  };

  componentDidUpdate = (before, { count }) => {
    if (count !== this.state.count) this.props.onTold(`${count} ${this.state.count}`);
  };

  componentWillUnmount = () => this.props.onTold('gone');

  get shown() {
    return `${this.state.count} of ${this.props.most}`;
  }

  set shown(text) {
    this.setState({ count: Number(text), history: [...this.state.history, text] });
  }

  more = () => this.setState((state, props) => ({ count: Math.min(state.count + 1, props.most) }));

  reset() {
    const { shown } = this;
    this.shown = '0';
    this.props.onTold(shown);
  }

  render = () => {
    return (
      <p>
        <button onClick={this.more}>{this.shown}</button>
        <button onClick={() => this.reset()}>{this.state.history.length}</button>
      </p>
    );
  };
}

export default class Page extends Component {
  render() {
    return (
      <div>
        <Search />
        <Counter {...this.props} />
      </div>
    );
  }
}
