import React from 'react';

const LOADING = { kind: 'loading' };

function List({ names }) {
  const items = [];
  names.forEach((name, at) => items.push(<li key={at}>{name}</li>));
  return <ol>{items}</ol>;
}

export default function Lookup(props) {
  const [state, setState] = React.useState(LOADING);
  const alive = React.useRef(true);
  const wanted = React.useRef();

  React.useLayoutEffect(() => {
    wanted.current = props.vessel;
    setState(LOADING);
    const own = props.vessel;
    const put = (next) => {
      if (alive.current && wanted.current === own) setState(next);
    };
    fetch('/crew/' + own)
      .then((reply) => reply.json())
      .then((body) => put({ kind: 'there', names: body.names.map((n) => String(n)) }))
      .catch(() => put({ kind: 'failed' }));
  }, [props.vessel]);

  React.useLayoutEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
    };
  }, []);

  switch (state.kind) {
    case 'failed':
      return <p role="alert">no crew list</p>;
    case 'there':
      return <List names={state.names} />;
    default:
      return <p>loading</p>;
  }
}
