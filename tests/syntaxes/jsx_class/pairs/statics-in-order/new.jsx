import React, { useState } from 'react';

let orders = 0;
const Head = ({ children }) => <header>{children}</header>;

export function Sizes({
  size: sizeProp = defaultSize,
  from = Sizes.first,
  order = defaultOrder,
  title,
}) {
  const [size, setSize] = useState(sizeProp);
  const [of, setOf] = useState();

  const next = () => {
    const { sizes } = Sizes;
    setSize(Sizes.next(size));
    setOf(sizes.length);
  };

  return (
    <section data-size={size}>
      <Sizes.Head>{title} {from} {order} {Sizes.order} {Sizes.after}</Sizes.Head>
      <button onClick={next}>{size} {of}</button>
    </section>
  );
}

Sizes.Head = Head;

Sizes.sizes = ['s', 'm', 'l'];

Sizes.first = Sizes.sizes[0];

Sizes.order = ++orders;

Sizes.next = function next(size) { return Sizes.sizes[(Sizes.sizes.indexOf(size) + 1) % 3]; };

const defaultSize = Sizes.sizes[1];

const defaultOrder = ++orders;

Sizes.after = ++orders;

Sizes.Foot = Head;

export default Sizes;
