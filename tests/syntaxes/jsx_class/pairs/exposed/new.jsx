import React, {
  forwardRef,
  useCallback,
  useImperativeHandle,
  useRef,
  useState,
} from 'react';

export default forwardRef(function Field({ onCount }, ref) {
  const [word, setWord] = useState('a');
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
    return word;
  };

  function count() {
    onCount(word.length);
  }

  useImperativeHandle(ref, () => ({ focus, clear }));

  return <input ref={keep} value={word} onChange={() => box.current.select()} />;
});
