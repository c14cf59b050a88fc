import { useLayoutEffect, useRef, useState } from 'react';

export default function WeatherStrip({ island, onForecast, className, ...others }) {
  const [hours, setHours] = useState([]);
  const [state, setState] = useState('loading');
  const [reason, setReason] = useState('');
  const newest = useRef(island);
  newest.current = island;

  async function load() {
    const asked = newest.current;
    setState('loading');
    try {
      const reply = await fetch(`/api/weather/${asked}`);
      if (!reply.ok) throw new Error(`status ${reply.status}`);
      const forecast = await reply.json();
      if (asked !== newest.current) return;
      setHours(forecast.hours);
      setState('there');
    } catch (error) {
      setReason(error.message);
      setState('failed');
    }
  }

  useLayoutEffect(() => {
    load();
  }, [island]);

  const first = useRef(hours);
  useLayoutEffect(() => {
    if (hours !== first.current) onForecast?.(hours.length);
  }, [hours]);

  const strongest = Math.max(0, ...hours.map((hour) => hour.wind));
  const classes = ['weather', `is-${state}`, strongest > 8 && 'stormy', className];
  return (
    <div {...others} className={classes.filter(Boolean).join(' ')}>
      {state === 'loading' && <p>Asking the lighthouse…</p>}
      {state === 'failed' && (
        <p>No forecast: {reason} <button type="button" onClick={load}>Again</button></p>
      )}
      {state === 'there' && (
        <ul>
          {hours.map((hour) => (
            <li key={hour.at}>{hour.at} force {hour.wind}{hour.rain && ', rain'}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
