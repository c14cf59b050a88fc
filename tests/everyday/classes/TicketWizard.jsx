import React from 'react';

class Step extends React.Component {
  state = { done: false, touched: 0 };

  componentDidMount() {
    this.props.onRegister(this);
  }

  componentWillUnmount() {
    this.props.onLeave(this);
  }

  isDone() {
    return this.state.done;
  }

  finish() {
    this.setState({ done: true });
  }

  render() {
    return (
      <fieldset>
        <legend>{this.props.title}</legend>
        <label>
          <input
            type="checkbox"
            checked={this.state.done}
            onChange={(event) => this.setState({ done: event.target.checked, touched: this.state.touched + 1 })}
          />
          ready
        </label>
        {this.props.children}
      </fieldset>
    );
  }
}

export default class TicketWizard extends React.Component {
  steps = [];
  state = { at: 0, done: 0 };

  register = (step) => {
    this.steps.push(step);
  };

  leave = (step) => {
    this.steps = this.steps.filter((one) => one !== step);
  };

  check = () => {
    this.setState({ done: this.steps.filter((step) => step.isDone()).length });
  };

  finishAll() {
    this.steps.forEach((step) => step.finish());
    this.setState({ at: this.steps.length }, this.check);
  }

  render() {
    const { titles = ['Sailing', 'Passengers', 'Payment'] } = this.props;
    return (
      <form onSubmit={(event) => event.preventDefault()}>
        {titles.map((title) => (
          <Step key={title} title={title} onRegister={this.register} onLeave={this.leave}>
            {title === titles[this.state.at] && <em>now</em>}
          </Step>
        ))}
        <button type="button" onClick={this.check}>check</button>
        <button type="button" onClick={() => this.finishAll()}>finish all</button>
        <p>
          {this.state.done} of {titles.length} done
        </p>
      </form>
    );
  }
}
