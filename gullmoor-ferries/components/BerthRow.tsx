import React, { memo, useEffect, useRef } from 'react';
import type { Berth } from './BerthPicker';

interface BerthRowProps {
  berth: Berth;
  fits: boolean;
  chosen: boolean;
  onChoose: (id: string) => void;
}

/** One berth; it shows how often it was drawn anew because its handler changed. */
export const BerthRow = memo(function BerthRow({ berth, fits, chosen, onChoose }: BerthRowProps) {
  const handlers = useRef(0);
  const output = useRef<HTMLElement>(null);
  useEffect(() => {
    handlers.current += 1;
    if (output.current) output.current.dataset.handlers = String(handlers.current);
  }, [onChoose]);
  return (
    <li>
      <button type="button" disabled={!fits} aria-pressed={chosen} onClick={() => onChoose(berth.id)}>
        {berth.id}
      </button>{' '}
      <small ref={output}>{berth.metres} m</small>
    </li>
  );
});
