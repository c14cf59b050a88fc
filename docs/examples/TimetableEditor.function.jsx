import React, { useLayoutEffect, useReducer, useRef } from 'react';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const blank = () => ({ time: '', days: [], note: '' });

// Calls back once the state written next to it is rendered, as the second argument of setState.
function useAfterRender() {
  const queue = useRef([]);
  const due = queue.current.length;
  useLayoutEffect(() => {
    queue.current.splice(0, due).forEach((run) => run());
  });
  return (run) => {
    if (run) queue.current.push(run);
  };
}

/**
 * Edits the timetable of a crossing: sailings are added, changed and ordered; what clashes is marked, and
 * nothing is lost when the page is left by mistake.
 */
export default function TimetableEditor({
  crossing = 'Skail – Holm',
  gap = 20,
  storage = 'timetable',
  sailings: sailingsProp,
  onChange,
}) {
  const closeAll = useRef();
  const next = useRef();
  const quiet = useRef();
  const rows = useRef();
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer(
    (state, change) => ({ ...state, ...(typeof change === 'function' ? change(state) : change) }),
    undefined,
    () => {
      const initial = {
        sailings: sailingsProp || [],
        draft: blank(),
        editing: null,
        dirty: false,
        said: '',
        open: {},
      };
      rows.current = {};
      next.current = 1;
      closeAll.current = function () {
        latest.current.state.sailings.forEach(function (sailing) {
          fold(sailing.id, false);
        });
      };
      return initial;
    }
  );
  const latest = useRef({ gap, storage, state });
  latest.current = { gap, storage, state };

  useLayoutEffect(() => {
    const stored = window.localStorage.getItem(storage);
    if (stored) {
      afterRender(function () {
        say(`${latest.current.state.sailings.length} sailings found again`);
      });
      setState({ sailings: JSON.parse(stored), dirty: true });
    }
    window.addEventListener('beforeunload', keep);
    return () => {
      clearTimeout(quiet.current);
      window.removeEventListener('beforeunload', keep);
    };
  }, []);

  const propsBefore = useRef(null);
  const stateBefore = useRef(null);
  useLayoutEffect(() => {
    const previousProps = propsBefore.current;
    propsBefore.current = { crossing };
    const previousState = stateBefore.current;
    stateBefore.current = state;
    if (previousProps === null) return;
    if (previousState.sailings !== state.sailings) {
      keep();
      if (onChange) onChange(state.sailings, getClashes().length);
    }
    if (previousState.editing !== state.editing && state.editing !== null) {
      const row = rows.current[state.editing];
      if (row) row.focus();
    }
    if (previousProps.crossing !== crossing) {
      setState({ draft: blank(), editing: null });
    }
  });

  function getClashes() {
    const { sailings } = latest.current.state;
    const gap = latest.current.gap;
    return sailings.filter((one) =>
      sailings.some(
        (other) =>
          other.id !== one.id &&
          other.days.some((day) => one.days.includes(day)) &&
          Math.abs(minutes(other) - minutes(one)) < gap
      )
    );
  }

  function note() {
    return state.draft.note;
  }

  function changeNote(note) {
    setState({ draft: { ...state.draft, note: note.slice(0, 40) } });
  }

  function minutes({ time }) {
    const [hours, minutes] = time.split(':').map(Number);
    return hours * 60 + (minutes || 0);
  }

  const keep = () => {
    window.localStorage.setItem(latest.current.storage, JSON.stringify(latest.current.state.sailings));
  };

  function say(said) {
    clearTimeout(quiet.current);
    setState({ said });
    quiet.current = setTimeout(
      function () {
        setState({ said: '' });
      },
      4000
    );
  }

  function fold(id, open = !latest.current.state.open[id]) {
    setState((state) => ({ open: { ...state.open, [id]: open } }));
  }

  function toggleDay(day) {
    const { draft } = state;
    const days = draft.days.includes(day) ? draft.days.filter((one) => one !== day) : [...draft.days, day];
    setState({ draft: { ...draft, days } });
  }

  function edit(sailing) {
    const { id, ...draft } = sailing;
    setState({ draft, editing: id });
  }

  const submit = (event) => {
    event.preventDefault();
    const { draft, editing } = state;
    if (!/^\d{1,2}:\d{2}$/.test(draft.time) || draft.days.length === 0) {
      say('A time and a day, please');
      return;
    }
    const id = editing === null ? next.current++ : editing;
    const others = state.sailings.filter((sailing) => sailing.id !== id);
    const sailings = [...others, { ...draft, id }].sort((a, b) => minutes(a) - minutes(b));
    afterRender(() => {
      say(`${latest.current.state.sailings.length} sailings, ${getClashes().length} clash`);
    });
    setState({ sailings, draft: blank(), editing: null, dirty: true });
  };

  function remove(id) {
    setState({ sailings: state.sailings.filter((sailing) => sailing.id !== id), dirty: true });
    if (state.editing === id) setState({ draft: blank(), editing: null });
  }

  function renderDay(day) {
    const chosen = state.draft.days.includes(day);
    return (
      <button key={day} type="button" aria-pressed={chosen} onClick={toggleDay.bind(null, day)}>
        {day}
      </button>
    );
  }

  function renderSailing(sailing) {
    const open = Boolean(state.open[sailing.id]);
    const clashes = getClashes().some((one) => one.id === sailing.id);
    return (
      <li key={sailing.id} className={clashes ? 'clash' : undefined}>
        <button
          type="button"
          ref={(row) => { rows.current[sailing.id] = row; }}
          aria-expanded={open}
          onClick={() => fold(sailing.id)}
        >
          {sailing.time}
        </button>
        {open && (
          <p>
            {sailing.days.join(', ')} {sailing.note}
            <button type="button" onClick={() => edit(sailing)}>change</button>
            <button type="button" onClick={() => remove(sailing.id)}>remove</button>
          </p>
        )}
      </li>
    );
  }

  const afterRender = useAfterRender();

  const { sailings, draft, editing, dirty, said } = state;
  return (
    <form onSubmit={submit}>
      <h3>
        {crossing} {dirty && '•'}
      </h3>
      <ol>{sailings.map(renderSailing)}</ol>
      <fieldset>
        <legend>{editing === null ? 'A new sailing' : 'Change it'}</legend>
        <input
          value={draft.time}
          placeholder="7:30"
          onChange={({ target }) => setState({ draft: { ...state.draft, time: target.value } })}
        />
        {DAYS.map(renderDay)}
        <input value={note()} onChange={(event) => changeNote(event.target.value)} />
        <button>{editing === null ? 'add' : 'change'}</button>
      </fieldset>
      <button type="button" onClick={closeAll.current}>fold all</button>
      <p role="status">{said}</p>
    </form>
  );
}
