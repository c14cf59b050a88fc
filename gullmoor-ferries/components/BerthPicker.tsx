import React, { Component, createRef } from 'react';
import { BerthRow } from './BerthRow';
import './BerthPicker.css';

export interface Berth {
  id: string;
  metres: number;
  free: boolean;
}

interface BerthPickerProps {
  berths: Berth[];
  vesselLength?: number;
  onReserve?: (id: string, note: string) => void;
}

interface BerthPickerState {
  chosen: string | null;
  note: string;
}

/** Reserves one free berth that is long enough for the vessel. */
export class BerthPicker extends Component<BerthPickerProps, BerthPickerState> {
  static defaultProps = { vesselLength: 10 };

  state: BerthPickerState = { chosen: null, note: '' };

  private noteInput = createRef<HTMLInputElement>();
  private tries: number = 0;

  componentDidUpdate(prevProps: BerthPickerProps) {
    // A longer vessel may no longer fit.
    if (prevProps.vesselLength !== this.props.vesselLength) {
      this.setState({ chosen: null });
    }
  }

  choose = (id: string) => {
    this.tries += 1;
    this.setState({ chosen: id });
    if (this.noteInput.current) this.noteInput.current.focus();
  };

  private fits(berth: Berth): boolean {
    const { vesselLength } = this.props;
    return berth.free && berth.metres >= vesselLength!;
  }

  reserve(event: React.FormEvent) {
    event.preventDefault();
    const { chosen, note } = this.state;
    if (chosen === null) return;
    this.props.onReserve?.(chosen, `${note} (${this.tries})`);
    this.setState({ chosen: null, note: '' });
  }

  render() {
    const { chosen, note } = this.state;
    return (
      <form className="berths" onSubmit={this.reserve.bind(this)}>
        <ul>
          {this.props.berths.map((berth) => (
            <BerthRow key={berth.id} berth={berth} fits={this.fits(berth)} chosen={chosen === berth.id} onChoose={this.choose} />
          ))}
        </ul>
        <label>
          Note <input ref={this.noteInput} value={note} onChange={(e) => this.setState({ note: e.target.value })} />
        </label>
        <button type="submit" disabled={chosen === null}>Reserve</button>
      </form>
    );
  }
}
