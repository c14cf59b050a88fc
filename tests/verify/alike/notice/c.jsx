import React from 'react';

const Button = ({ on, label, onTurn }) => <button onClick={onTurn} aria-expanded={on}>{label}</button>;

function useKey(wanted, act) {
  const latest = React.useRef(act);
  latest.current = act;
  React.useLayoutEffect(() => {
    function listen(event) {
      if (event.key !== wanted) return;
      latest.current();
    }
    document.addEventListener('keydown', listen);
    return () => {
      document.removeEventListener('keydown', listen);
    };
  }, [wanted]);
}

const Notice = (props) => {
  const [shown, turn] = React.useReducer((known, to) => (to === undefined ? !known : to), Boolean(props.open));
  useKey('Escape', () => turn(false));
  return (
    <aside>
      <Button on={shown} label={props.title} onTurn={() => turn()} />
      {shown && <div role="note">{props.children}</div>}
    </aside>
  );
};

export default Notice;
