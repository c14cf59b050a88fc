import { useMemo, useState } from 'react';

const Item = ({ item: { name, heavy } }) => <li className={heavy ? 'heavy' : 'light'}>{name}</li>;

export default function CargoFilter({ cargo }) {
  const [text, setText] = useState('');
  const found = useMemo(() => {
    const wanted = text.toLowerCase();
    return cargo.filter(({ name }) => name.toLowerCase().includes(wanted));
  }, [cargo, text]);

  return (
    <section>
      <input placeholder="cargo" value={text} onChange={({ target }) => setText(target.value)} />
      <ul>{found.map((item) => <Item key={item.id} item={item} />)}</ul>
      {found.length ? null : <p>nothing</p>}
    </section>
  );
}
