import React, {
  memo,
  useLayoutEffect,
  useReducer,
  useRef,
  useState,
} from 'react';

function debounce(run, wait) {
  let timer;
  return function (...values) {
    clearTimeout(timer);
    timer = setTimeout(() => run.apply(this, values), wait);
  };
}

const Search = memo(function Search({ wait = 300, crew = 'Orla Brin' }) {
  const [query, setQuery] = useState('');
  const [found, setFound] = useState('');
  const [search] = useState(() => debounce(searchNow, wait));
  const latestCrew = useRef(crew);
  latestCrew.current = crew;
  const latestQuery = useRef(query);
  latestQuery.current = query;

  function searchNow(query) {
    setFound(latestCrew.current.includes(query) ? `${query} of ${latestQuery.current}` : 'nobody');
  }

  const change = ({ target }) => {
    setQuery(target.value);
    search(target.value);
  };

  return <label><input value={query} onChange={change} /> {found}</label>;
});

function Counter(props) {
  // A reducer, since updaters read the props of the render they run in.
  const [state, setState] = useReducer(
    (state, change) => ({
      ...state,
      ...(typeof change === 'function' ? change(state, props) : change),
    }),
    { count: 0, history: [] }
  );
  const latestProps = useRef(props);
  latestProps.current = props;

  useLayoutEffect(() => {
    return () => {
      latestProps.current.onTold('gone');
    };
  }, []);

  useLayoutEffect(() => {
    props.onTold('mounted');
  }, []);

  const previousState = useRef(null);
  useLayoutEffect(() => {
    const stateThen = previousState.current;
    previousState.current = state;
    if (stateThen === null) return;
    const { count } = stateThen;
    if (count !== state.count) props.onTold(`${count} ${state.count}`);
  });

  function getShown() {
    return `${state.count} of ${props.most}`;
  }

  function changeShown(text) {
    setState({ count: Number(text), history: [...state.history, text] });
  }

  const more = () => setState((state, props) => ({ count: Math.min(state.count + 1, props.most) }));

  function reset() {
    const shown = getShown();
    changeShown('0');
    props.onTold(shown);
  }

  return (
    <p>
      <button onClick={more}>{getShown()}</button>
      <button onClick={() => reset()}>{state.history.length}</button>
    </p>
  );
}

export default function Page(props) {
  return (
    <div>
      <Search />
      <Counter {...props} />
    </div>
  );
}
