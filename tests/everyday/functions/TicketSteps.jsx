import { useState } from 'react';
import TicketField from './TicketField';

export default function TicketSteps(props) {
  const { steps = ['route', 'name', 'mail'], onDone } = props;
  const [at, setAt] = useState(0);
  const [answers, setAnswers] = useState({});
  const [wrong, setWrong] = useState(false);

  const step = steps[at];
  const last = at === steps.length - 1;
  const value = answers[step] ?? '';

  function change(text) {
    setAnswers({ ...answers, [step]: text });
    setWrong(false);
  }

  function forward() {
    if (!value) {
      setWrong(true);
      return;
    }
    if (last) {
      onDone?.(answers);
      return;
    }
    setAt(at + 1);
    props.onStep?.(steps[at + 1]);
  }

  const renderStep = (name, index) => (
    <li key={name} className={index === at ? 'here' : index < at ? 'done' : ''}>
      {name}
    </li>
  );

  return (
    <section className="steps">
      <ol>{steps.map(renderStep)}</ol>
      <TicketField value={value} label={step} wrong={wrong} onChange={change} onEnter={forward} />
      <button type="button" disabled={at === 0} onClick={() => setAt(at - 1)}>
        Back
      </button>
      <button type="button" onClick={forward}>
        {last ? 'Done' : 'Next'}
      </button>
    </section>
  );
}
