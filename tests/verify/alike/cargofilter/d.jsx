import * as React from 'react';

function useText() {
  const [value, set] = React.useState({ text: '' });
  return { value: value.text, onChange: (event) => set({ text: event.target.value }) };
}

const fits = (wanted) => (item) => item.name.toLowerCase().split(wanted.toLowerCase()).length > 1 || wanted === '';

export default React.memo(function CargoFilter(props) {
  const field = useText();
  const found = props.cargo.filter(fits(field.value));
  const lines = found.map(function line(item) {
    return React.createElement('li', { key: item.id, className: ['light', 'heavy'][Number(Boolean(item.heavy))] }, item.name);
  });
  return (
    <section>
      <input placeholder="cargo" {...field} />
      <ul>{lines}</ul>
      {lines.length < 1 ? <p>nothing</p> : ''}
    </section>
  );
});
