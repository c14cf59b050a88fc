import { useEffect, useId, useMemo, useRef, useState } from 'react';

type Hour = { at: string; wind: number; gust?: number };

type Props = {
  hours?: Hour[];
  threshold?: number;
  place: string;
  onWarn?: (gust: number) => void;
};

export function WeatherStrip({ hours = [], threshold = 20, place, onWarn }: Props) {
  const id = useId();
  const [opened, setOpened] = useState<string[]>([]);
  const [width, setWidth] = useState(0);
  const strip = useRef<HTMLDivElement>(null);
  const warned = useRef(0);

  const worst = useMemo(() => {
    const gusts = hours.map((hour) => hour.gust ?? hour.wind);
    return gusts.length ? Math.max(...gusts) : 0;
  }, [hours]);

  useEffect(() => {
    if (worst > threshold && worst !== warned.current) {
      warned.current = worst;
      onWarn?.(worst);
    }
  }, [worst, threshold]);

  useEffect(() => {
    document.body.dataset.weather = `${place}:${worst}`;
    return () => {
      delete document.body.dataset.weather;
    };
  }, [place, worst]);

  useEffect(() => {
    function measure() {
      if (strip.current) setWidth(strip.current.childElementCount);
    }
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);

  const open = (hour: Hour) => {
    if (!opened.includes(hour.at)) setOpened([...opened, hour.at]);
  };

  return (
    <div ref={strip} className="strip" style={{ borderWidth: worst > threshold ? 2 : 1 }}>
      <h4 id={id}>
        {place} ({width})
      </h4>
      {hours.map((hour) => (
        <button key={hour.at} type="button" aria-describedby={id} onClick={() => open(hour)}>
          {hour.at} {hour.wind > threshold ? <b>{hour.wind}!</b> : <span>{hour.wind}</span>}
        </button>
      ))}
      <p>{opened.length ? opened.join(', ') : 'none opened'}</p>
    </div>
  );
}
