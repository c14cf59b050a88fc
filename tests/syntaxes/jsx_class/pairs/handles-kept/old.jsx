import React from 'react';

class Lamp extends React.Component {
  state = { lit: false, blinks: 0 };

  blink() {
    this.setState({ lit: !this.state.lit, blinks: this.state.blinks + 1 });
  }

  count() {
    return this.state.blinks;
  }

  render() {
    return <em>{this.state.lit ? 'lit' : 'dark'} {this.state.blinks}</em>;
  }
}

class Field extends React.Component {
  state = { text: 'ab' };

  setText(text) {
    this.setState({ text });
  }

  render() {
    return (
      <input
        ref={(node) => (this.inputElement = node)}
        value={this.state.text}
        onChange={(event) => this.setText(event.target.value)}
      />
    );
  }
}

class Step extends React.Component {
  state = { done: false };

  finish() {
    this.setState({ done: true });
  }

  render() {
    return <li>{this.props.title} {String(this.state.done)}</li>;
  }
}

// Keeps what its references gave it at the first render
export default class Panel extends React.Component {
  lamp = React.createRef();
  steps = [];
  state = { said: '' };

  componentDidMount() {
    const lamp = this.lamp.current;
    this.blink = () => lamp.blink();
    this.kept = lamp;
  }

  register = (step) => {
    if (step) this.steps.push(step);
  };

  look = () => {
    const same = this.kept === this.lamp.current;
    this.setState({ said: `${this.kept.count()} ${same} ${this.field.inputElement.value} ${this.steps.length}` });
  };

  finish = () => {
    this.steps.forEach((step) => step.finish());
    this.field.setText('done');
  };

  render() {
    return (
      <div>
        <Lamp ref={this.lamp} />
        <Field ref={(field) => (this.field = field)} />
        <ol>
          <Step ref={this.register} title="gate" />
          <Step ref={this.register} title="ramp" />
        </ol>
        <button onClick={() => this.blink()}>blink</button>
        <button onClick={this.look}>look</button>
        <button onClick={this.finish}>finish</button>
        <p>{this.state.said}</p>
      </div>
    );
  }
}
