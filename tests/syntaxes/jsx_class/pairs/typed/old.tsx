import React from 'react';

interface Props<T> {
  items: T[];
  label?: string;
  onPick?: (item: T) => void;
}

interface State {
  at: number;
  names: ReadonlyArray<string>;
}

export class Pick<T extends { id: string }> extends React.Component<Props<T>, State> {
  static defaultProps = { label: 'Pick' };

  readonly state: State = { at: 0, names: [] };

  #clicks = 0;
  private timer?: number;

  private pick = (item: T): void => {
    this.#clicks++;
    this.setState({ at: this.#clicks, names: [...this.state.names, item.id] });
    this.props.onPick?.(item);
  };

  protected next(): T | undefined {
    return this.props.items[this.state.at];
  }

  render(): React.ReactNode {
    const { label } = this.props;
    const next = this.next();
    return (
      <div>
        {this.props.items.map((item) => (
          <button key={item.id} onClick={() => this.pick(item)}>{label} {item.id}</button>
        ))}
        <output>{this.state.at} {this.state.names.join()} {next?.id}</output>
      </div>
    );
  }
}
