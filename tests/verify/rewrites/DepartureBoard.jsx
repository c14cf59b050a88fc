import { useLayoutEffect, useReducer, useRef } from 'react';

const START = { loading: true, sailings: [], picked: null };
const nothing = () => {};

function reduce(board, [kind, value]) {
  if (kind === 'asked') return { ...board, loading: true, picked: null };
  if (kind === 'answered') return { ...board, loading: false, sailings: value };
  return { ...board, picked: value };
}

const Row = ({ sailing, picked, onPick }) => (
  <li className={`row${picked ? ' picked' : ''}`}>
    <time>{sailing.at}</time> {sailing.to}
    <button onClick={onPick}>Pick</button>
  </li>
);

export default ({ pier, limit = 3, onPick = nothing }) => {
  const [board, tell] = useReducer(reduce, START);
  const current = useRef();
  const first = useRef(true);
  current.current = pier;

  const ask = () => {
    const asked = current.current;
    return fetch('/api/piers/' + asked + '/sailings')
      .then((reply) => reply.json())
      .then((list) => {
        if (asked === current.current) tell(['answered', list]);
      });
  };

  useLayoutEffect(() => {
    if (!first.current) tell(['asked']);
    first.current = false;
    ask();
  }, [pier]);

  useLayoutEffect(() => {
    const every = setInterval(ask, 30000);
    return () => clearInterval(every);
  }, []);

  return board.loading ? (
    <p className="board">{'Asking the pier…'}</p>
  ) : (
    <ol className="board">
      {board.sailings.filter((_, at) => at < limit).map((sailing) => (
        <Row
          key={sailing.id}
          sailing={sailing}
          picked={sailing.id === board.picked}
          onPick={() => {
            tell(['picked', sailing.id]);
            onPick(sailing.id);
          }}
        />
      ))}
    </ol>
  );
};
