import React, { useReducer, useRef } from 'react';

export default function Loading({ crates }) {
  const weight = useRef(0);
  const list = useRef(null);
  const note = useRef(null);
  const [, rerender] = useReducer((count) => count + 1, 0);

  // All that is on board.
  function total() {
    return crates.length + weight.current;
  }

  function label() {
    return `${total()} crates`;
  }

  const load = () => {
    weight.current += 2;
    rerender();
  };

  function focus() {
    note.current.focus();
    if (list.current) list.current.title = label();
  }

  return (
    <div title={label()}>
      <input ref={note} defaultValue="" />
      {total() > 1 && <ul ref={list} className="crates"><li>{weight.current}</li></ul>}
      <button onClick={load}>load</button>
      <button onClick={() => focus()}>focus</button>
      <button onClick={() => rerender()}>again</button>
    </div>
  );
}
