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
  const latestOnCount = useRef(onCount);
  latestOnCount.current = onCount;
  const latestWord = useRef(wordState);
  latestWord.current = wordState;

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
    return latestWord.current;
  };

  function word() {
    return latestWord.current;
  }

  function count() {
    latestOnCount.current(latestWord.current.length);
  }

  useImperativeHandle(ref, () => ({
    focus,
    clear,
    get word() { return word(); },
  }), []);

  return <input ref={keep} value={wordState} onChange={() => box.current.select()} />;
});
