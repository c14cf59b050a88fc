import React from 'react';

const caption = (parts, ...values) => parts.map((part, index) => part + (values[index] ?? '')).join('').trim();

export class WeatherPanel extends React.Component {
  static places = ['Skail', 'Holm'];
  static first = WeatherPanel.places[0];
  static defaultProps = { place: WeatherPanel.first, units: 'knots' };
  static requests = 0;

  state = { wind: null, failed: '', asked: 0, at: this.props.place };

  request = null;
  cache = new Map();
  title = caption` Weather at ${this.props.place} `;

  componentDidMount() {
    this.load(this.state.at);
  }

  componentDidUpdate(prevProps, prevState) {
    if (this.props.place !== prevProps.place) this.setState({ at: this.props.place });
    if (this.state.at !== prevState.at) this.load(this.state.at);
  }

  componentWillUnmount() {
    this.request = null;
  }

  async load(place) {
    if (this.cache.has(place)) {
      this.setState({ wind: this.cache.get(place), failed: '' });
      return;
    }
    const request = {};
    this.request = request;
    WeatherPanel.requests += 1;
    this.setState({ asked: this.state.asked + 1, failed: '' });
    try {
      const reply = await fetch(`/weather?place=${encodeURIComponent(place)}`);
      const { wind } = await reply.json();
      if (this.request !== request) return;
      this.cache.set(place, wind);
      this.setState({ wind });
    } catch (error) {
      if (this.request === request) this.setState({ failed: 'No weather just now', wind: null });
    }
  }

  nextPlace = () => {
    const { places } = WeatherPanel;
    this.setState((state) => ({ at: places[(places.indexOf(state.at) + 1) % places.length] }));
  };

  render() {
    const { units } = this.props;
    const { wind, failed, at, asked } = this.state;
    return (
      <aside title={this.title}>
        <button onClick={this.nextPlace}>{at}</button>
        {failed ? <p role="alert">{failed}</p> : <p>{wind === null ? '…' : `${wind} ${units}`}</p>}
        <small>asked {asked} times</small>
      </aside>
    );
  }
}

WeatherPanel.Title = ({ children }) => <h3>{children}</h3>;

export default WeatherPanel;
