import React, { useState } from 'react';

export default function Tabs({ tab: tabProp }) {
  const [tab, setTab] = useState(tabProp);
  const [seen, setSeen] = useState(0);

  // The tab follows the input.
  if (!Object.is(tab, tabProp)) {
    setTab(tabProp);
    setSeen(seen + 1);
    return null;
  }

  return <p onClick={() => setSeen(0)}>{tab} {seen} <Layer isOpen={tabProp !== "tides"} /></p>;
}

export function Layer({ isOpen: isOpenProp }) {
  const [isOpen, setIsOpen] = useState(isOpenProp);

  if (isOpenProp && !isOpen) {
    setIsOpen(isOpenProp);
    return null;
  }

  return <b onClick={() => setIsOpen(false)}>{String(isOpen)}</b>;
}
