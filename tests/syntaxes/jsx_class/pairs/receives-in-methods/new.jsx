import React, { useRef, useState } from 'react';

export default function Berth(props) {
  const [note, setNote] = useState('');
  const latestProps = useRef(props);
  const [previousProps, setPreviousProps] = useState(props);

  function compare(ship) {
    const { onChange } = latestProps.current;
    onChange(latestProps.current.ship, ship);
    setNote(`${latestProps.current.ship} left`);
  }

  const tell = (mark) => {
    latestProps.current.onTell(mark, latestProps.current.ship);
  };

  if (previousProps !== props) {
    setPreviousProps(props);
    if (props.ship !== previousProps.ship) {
      compare(props.ship);
      ['a', 'b'].forEach(tell);
    }
    return null;
  }

  latestProps.current = props;

  return <p onClick={() => tell('pressed')}>{props.ship} {note}</p>;
}
