// Holds no state of its own: what is typed goes to whoever asks.
export default function TicketField({ label, value = '', wrong, onChange, onEnter }) {
  return (
    <label className="ticket-field">
      <span>{label}</span>
      <input
        value={value}
        aria-invalid={wrong ? true : undefined}
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onEnter();
        }}
      />
      <i>{value.length} letters</i>
      {wrong && <em>Please fill this in</em>}
    </label>
  );
}
