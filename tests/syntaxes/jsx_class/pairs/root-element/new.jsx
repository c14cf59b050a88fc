import React, { useLayoutEffect, useRef } from 'react';

export default function Berth(props) {
  const root = useRef(null);
  const latestProps = useRef(props);
  latestProps.current = props;

  useLayoutEffect(() => {
    root.current.setAttribute('data-seen', '1');
    const timer = setTimeout(() => { root.current.title = 'late'; }, 50);
    return () => {
      clearTimeout(timer);
      latestProps.current.onGone(root.current.tagName);
    };
  }, []);

  const { wide, ...rest } = props;
  if (wide) return <section ref={root} {...rest}>wide</section>;
  return (
    <p ref={root} className="berth" title={rest.title}>
      text
    </p>
  );
}
