import React, { ChangeEvent, FormEvent } from 'react';

export interface Passenger {
  name: string;
  age: number;
  bike: boolean;
}

type Props = {
  initial?: Partial<Passenger>;
  classes: string[];
  dense: boolean;
  onSave: (passenger: Passenger) => Promise<void> | void;
  children?: React.ReactNode;
};

interface State extends Passenger {
  errors: Partial<Record<keyof Passenger, string>>;
  saving: boolean;
}

export default class PassengerForm extends React.Component<Props, State> {
  static defaultProps = { classes: ['seat', 'cabin'], dense: false };

  private mounted = false;
  private nameField = React.createRef<HTMLInputElement>();

  constructor(props: Props) {
    super(props);
    this.state = { name: '', age: 30, bike: false, ...props.initial, errors: {}, saving: false };
    this.handleSubmit = this.handleSubmit.bind(this);
  }

  componentDidMount() {
    this.mounted = true;
    this.nameField.current?.focus();
  }

  componentWillUnmount() {
    this.mounted = false;
  }

  handleChange = (event: ChangeEvent<HTMLInputElement>) => {
    const { name, type, checked, value } = event.target;
    this.setState({ [name]: type === 'checkbox' ? checked : value } as unknown as Pick<State, keyof Passenger>);
  };

  validate(): State['errors'] {
    const errors: State['errors'] = {};
    if (!this.state.name.trim()) errors.name = 'A name, please';
    if (Number(this.state.age) < 0) errors.age = 'Not born yet';
    return errors;
  }

  async handleSubmit(event: FormEvent) {
    event.preventDefault();
    const errors = this.validate();
    this.setState({ errors });
    if (Object.keys(errors).length) {
      this.nameField.current?.focus();
      return;
    }
    this.setState({ saving: true });
    const { name, age, bike } = this.state;
    try {
      await this.props.onSave({ name, age: Number(age), bike });
    } finally {
      if (this.mounted) this.setState({ saving: false });
    }
  }

  render() {
    const { classes, dense, children } = this.props;
    const { errors, saving } = this.state;
    return (
      <form onSubmit={this.handleSubmit} className={dense ? 'dense' : undefined} noValidate>
        <input name="name" ref={this.nameField} value={this.state.name} onChange={this.handleChange} />
        {errors.name && <em role="alert">{errors.name}</em>}
        <input name="age" type="number" value={this.state.age} onChange={this.handleChange} />
        {errors.age && <em role="alert">{errors.age}</em>}
        <label>
          <input name="bike" type="checkbox" checked={this.state.bike} onChange={this.handleChange} /> with a bike
        </label>
        <select>{classes.map((one) => <option key={one}>{one}</option>)}</select>
        {children}
        <button disabled={saving}>{saving ? 'Saving…' : 'Save'}</button>
      </form>
    );
  }
}

export const WalkOn = () => <PassengerForm onSave={() => undefined} initial={{ name: 'Walk-on' }} />;
