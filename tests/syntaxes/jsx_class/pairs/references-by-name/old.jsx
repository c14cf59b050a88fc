import React, { Component } from 'react';

export default class YearList extends Component {
  state = { year: 2026 };

  componentDidMount() {
    this.show('displayed');
  }

  componentDidUpdate(prevProps, prevState) {
    if (prevState.year !== this.state.year) this.show('updated');
  }

  show(when) {
    this.props.onShow(when, this.refs.chosen ? this.refs.chosen.textContent : 'none', this.refs.list.tagName);
    if (this.refs.field) this.props.onShow(when, this.refs.field.type, this.refs.shut.textContent);
  }

  pick = (year) => this.setState({ year });

  render() {
    const props = { type: 'text', ref: 'field', defaultValue: this.state.year };
    return (
      <div>
        <ul ref="list">
          {this.props.years.map((year) => (
            <li
              key={year}
              ref={year === this.state.year ? 'chosen' : undefined}
              onClick={this.pick.bind(null, year)}
            >
              {year}
            </li>
          ))}
        </ul>
        {this.state.year > 2026 && <input {...props} />}
        {React.createElement('button', { ref: 'shut', onClick: () => this.pick(0) }, 'Shut')}
      </div>
    );
  }
}
