import React, {
  forwardRef,
  useCallback,
  useImperativeHandle,
  useRef,
  useState,
} from 'react';

export default forwardRef(function Field({ onCount }, ref) {
  const [wordState, setWord] = useState('a');
  const box = useRef();
  const elRef = useRef();

  const keep = useCallback((el) => {
    elRef.current = el;
    box.current = el;
  }, []);

  function focus() {
    elRef.current.focus();
  }

  const clear = (to) => {
    setWord(to || '');
    count();
    return wordState;
  };

  function word() {
    return wordState;
  }

  function count() {
    onCount(wordState.length);
  }

  useImperativeHandle(ref, () => ({ focus, clear, get word() { return word(); } }));

  return <input ref={keep} value={wordState} onChange={() => box.current.select()} />;
});
