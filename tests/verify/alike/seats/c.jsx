import React, { useReducer, useRef } from 'react';

const reduce = (seats, by) => seats + by;

const Step = ({ off, children, ...others }) => <button disabled={off} {...others}>{children}</button>;

export default function Seats({ onChange, ...props }) {
  const start = props.start === undefined ? 1 : props.start;
  const most = props.most === undefined ? 4 : props.most;
  const [seats, change] = useReducer(reduce, start);
  const tell = useRef();
  tell.current = onChange;

  const press = (by) => {
    change(by);
    tell.current && tell.current(seats + by);
  };

  return React.createElement(
    'div',
    { className: 'seats' },
    <Step off={seats <= 1} onClick={() => press(-1)}>less</Step>,
    <output>{[seats, ' of ', most]}</output>,
    <Step off={seats >= most} onClick={() => press(+1)}>more</Step>,
    seats === most && <em>full</em>,
  );
}
