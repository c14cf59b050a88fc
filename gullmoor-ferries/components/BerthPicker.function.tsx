import React, { useCallback, useLayoutEffect, useReducer, useRef } from 'react';
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
export function BerthPicker({ vesselLength = 10, onReserve, berths }: BerthPickerProps) {
  const [state, setState] = useReducer(
    (state: BerthPickerState, change: Partial<BerthPickerState>) => ({ ...state, ...change }),
    { chosen: null, note: '' },
  );
  const noteInput = useRef<HTMLInputElement>(null);
  const tries = useRef<number>(0);

  const previousProps = useRef<any>(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { vesselLength };
    if (prevProps === null) return;
    // A longer vessel may no longer fit.
    if (prevProps.vesselLength !== vesselLength) {
      setState({ chosen: null });
    }
  });

  const choose = useCallback((id: string) => {
    tries.current += 1;
    setState({ chosen: id });
    if (noteInput.current) noteInput.current.focus();
  }, []);

  function fits(berth: Berth): boolean {
    return berth.free && berth.metres >= vesselLength!;
  }

  function reserve(event: React.FormEvent) {
    event.preventDefault();
    const { chosen, note } = state;
    if (chosen === null) return;
    onReserve?.(chosen, `${note} (${tries.current})`);
    setState({ chosen: null, note: '' });
  }

  const { chosen, note } = state;
  return (
    <form className="berths" onSubmit={reserve}>
      <ul>
        {berths.map((berth) => (
          <BerthRow key={berth.id} berth={berth} fits={fits(berth)} chosen={chosen === berth.id} onChoose={choose} />
        ))}
      </ul>
      <label>
        Note <input ref={noteInput} value={note} onChange={(e) => setState({ note: e.target.value })} />
      </label>
      <button type="submit" disabled={chosen === null}>Reserve</button>
    </form>
  );
}
