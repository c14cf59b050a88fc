import React, {
  forwardRef,
  useCallback,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';

const Lamp = forwardRef(function Lamp(props, ref) {
  const [lit, setLit] = useState(false);
  const [blinks, setBlinks] = useState(0);
  const latestBlinks = useRef(blinks);
  latestBlinks.current = blinks;
  const latestLit = useRef(lit);
  latestLit.current = lit;

  function blink() {
    setLit(!latestLit.current);
    setBlinks(latestBlinks.current + 1);
  }

  function count() {
    return latestBlinks.current;
  }

  useImperativeHandle(ref, () => ({ blink, count }), []);

  return <em>{lit ? 'lit' : 'dark'} {blinks}</em>;
});

const Field = forwardRef(function Field(props, ref) {
  const [text, setTextState] = useState('ab');
  const inputElement = useRef();

  function setText(text) {
    setTextState(text);
  }

  useImperativeHandle(ref, () => ({
    setText,
    get inputElement() { return inputElement.current; },
  }), []);

  return (
    <input
      ref={(node) => (inputElement.current = node)}
      value={text}
      onChange={(event) => setText(event.target.value)}
    />
  );
});

const Step = forwardRef(function Step({ title }, ref) {
  const [done, setDone] = useState(false);

  function finish() {
    setDone(true);
  }

  useImperativeHandle(ref, () => ({ finish }), []);

  return <li>{title} {String(done)}</li>;
});

// Keeps what its references gave it at the first render
export default function Panel() {
  const [said, setSaid] = useState('');
  const lampRef = useRef(null);
  const steps = useRef([]);
  const blink = useRef();
  const fieldRef = useRef();
  const kept = useRef();

  useLayoutEffect(() => {
    const lamp = lampRef.current;
    blink.current = () => lamp.blink();
    kept.current = lamp;
  }, []);

  const register = useCallback((step) => {
    if (step) steps.current.push(step);
  }, []);

  const look = () => {
    const same = kept.current === lampRef.current;
    setSaid(`${kept.current.count()} ${same} ${fieldRef.current.inputElement.value} ${steps.current.length}`);
  };

  const finish = () => {
    steps.current.forEach((step) => step.finish());
    fieldRef.current.setText('done');
  };

  return (
    <div>
      <Lamp ref={lampRef} />
      <Field ref={(field) => (fieldRef.current = field)} />
      <ol>
        <Step ref={register} title="gate" />
        <Step ref={register} title="ramp" />
      </ol>
      <button onClick={() => blink.current()}>blink</button>
      <button onClick={look}>look</button>
      <button onClick={finish}>finish</button>
      <p>{said}</p>
    </div>
  );
}
