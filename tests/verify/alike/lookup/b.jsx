import { useLayoutEffect, useRef, useState } from 'react';

export default function Lookup({ vessel }) {
  const [names, setNames] = useState(null);
  const [failed, setFailed] = useState(false);
  const latest = useRef(vessel);
  latest.current = vessel;
  const gone = useRef(false);

  useLayoutEffect(() => {
    const asked = vessel;
    const current = () => !gone.current && asked === latest.current;
    setNames(null);
    setFailed(false);
    (async () => {
      try {
        const reply = await fetch(`/crew/${asked}`);
        const body = await reply.json();
        if (current()) setNames(body.names.map(String));
      } catch (error) {
        if (current()) setFailed(true);
      }
    })();
  }, [vessel]);

  useLayoutEffect(() => () => {
    gone.current = true;
  }, []);

  if (failed) return <p role="alert">no crew list</p>;
  return names === null ? <p>loading</p> : <ol>{names.map((name, at) => <li key={at}>{name}</li>)}</ol>;
}
