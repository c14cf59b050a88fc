import { useState } from 'react';
import PropTypes from 'prop-types';

export default function FreightForm({ onSend }) {
  const [what, setWhat] = useState('');
  const [fragile, setFragile] = useState(false);
  const [size, setSize] = useState('small');

  const send = (event) => {
    event.preventDefault();
    if (!what) return;
    onSend?.({ what, fragile, size });
    setWhat('');
  };

  return (
    <form onSubmit={send}>
      <input value={what} onChange={(event) => setWhat(event.target.value)} />
      <label>
        <input type="checkbox" checked={fragile} onChange={(event) => setFragile(event.target.checked)} /> fragile
      </label>
      <select value={size} onChange={(event) => setSize(event.target.value)}>
        <option value="small">small</option>
        <option value="large">large</option>
      </select>
      <p>
        {what} {size}
      </p>
      <button type="submit" disabled={!what}>
        Send
      </button>
    </form>
  );
}

FreightForm.propTypes = { onSend: PropTypes.func };
