import React, { forwardRef, useCallback, useImperativeHandle, useLayoutEffect, useReducer, useRef } from 'react';

const pad = (number) => String(number).padStart(2, '0');

// Calls back once the state written next to it is rendered, as the second argument of setState.
function useAfterRender() {
  const queue = useRef([]);
  const due = queue.current.length;
  useLayoutEffect(() => {
    queue.current.splice(0, due).forEach((run) => run());
  });
  return (run) => {
    if (run) queue.current.push(run);
  };
}

// The line a harbour writes on; who holds a reference to it can focus and clear it
const MessageField = forwardRef(function MessageField({
  most = 120,
  placeholder = 'A message',
  onTyping,
  onSend,
  disabled,
}, ref) {
  // A reducer renders after every write, also an equal one, so that callbacks are called.
  const [state, setState] = useReducer((state, change) => ({ ...state, ...change }), { text: '', history: [], at: -1 });
  const nodeRef = useRef(null);
  const latestOnTyping = useRef(onTyping);
  latestOnTyping.current = onTyping;
  const latestState = useRef(state);
  latestState.current = state;

  function focus() {
    nodeRef.current.focus();
  }

  function clear() {
    setState({ text: '', at: -1 });
  }

  function isEmpty() {
    return state.text.trim() === '';
  }

  const handleChange = (event) => {
    const text = event.target.value.slice(0, most);
    afterRender(() => {
      if (latestOnTyping.current) latestOnTyping.current(latestState.current.text.length);
    });
    setState({ text });
  };

  const handleKey = (event) => {
    const { history, at, text } = state;
    if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      if (isEmpty()) return;
      setState({ text: '', history: [text, ...history].slice(0, 20), at: -1 });
      onSend(text.trim());
    } else if (event.key === 'ArrowUp' && at + 1 < history.length) {
      setState({ at: at + 1, text: history[at + 1] });
    } else if (event.key === 'ArrowDown' && at > -1) {
      setState({ at: at - 1, text: at > 0 ? history[at - 1] : '' });
    }
  };

  const afterRender = useAfterRender();

  useImperativeHandle(ref, () => ({ focus, clear }), []);

  return (
    <label>
      <textarea
        ref={(node) => (nodeRef.current = node)}
        value={state.text}
        placeholder={placeholder}
        disabled={disabled}
        onChange={handleChange}
        onKeyDown={handleKey}
      />
      <small>{most - state.text.length} left</small>
    </label>
  );
});

const defaultMessages = [];

/** Messages between the harbours, newest at the bottom; it stays at the bottom unless somebody reads above. */
export default function HarbourChat({
  name = 'Skail',
  every = 5000,
  messages: messagesProp = defaultMessages,
  onSend,
}) {
  // A reducer keeps what is written while rendering.
  const [ownState, setState] = useReducer(
    (ownState, change) => ({ ...ownState, ...(typeof change === 'function' ? change(ownState) : change) }),
    { given: messagesProp, messages: messagesProp, unread: 0, typing: '', online: true }
  );
  const list = useRef(null);
  const fieldRef = useRef(null);
  const below = useRef(true);
  const last = useRef(0);
  const poll = useRef();
  const quiet = useRef();
  const latestState = useRef(ownState);
  latestState.current = ownState;

  useLayoutEffect(() => {
    poll.current = setInterval(ask, every);
    window.addEventListener('online', handleOnline);
    window.addEventListener('offline', handleOnline);
    if (fieldRef.current) fieldRef.current.focus();
    return () => {
      clearInterval(poll.current);
      clearTimeout(quiet.current);
      window.removeEventListener('online', handleOnline);
      window.removeEventListener('offline', handleOnline);
    };
  }, []);

  const previousProps = useRef(null);
  const previousState = useRef(null);
  useLayoutEffect(() => {
    const prevProps = previousProps.current;
    previousProps.current = { every };
    const prevState = previousState.current;
    previousState.current = ownState;
    if (prevProps === null) return;
    if (prevState.messages !== ownState.messages) {
      const more = ownState.messages.length - prevState.messages.length;
      if (below.current) toBottom();
      else if (more > 0) setState({ unread: ownState.unread + more });
    }
    if (prevProps.every !== every) {
      clearInterval(poll.current);
      poll.current = setInterval(ask, every);
    }
  });

  const ask = () => {
    if (!latestState.current.online) return;
    fetch(`/messages?after=${last.current}`)
      .then((reply) => reply.json())
      .then((found) => {
        if (!Array.isArray(found) || found.length === 0) return;
        last.current = found[found.length - 1].id;
        setState((state) => ({ messages: [...state.messages, ...found] }));
      })
      .catch(() => setState({ online: false }));
  };

  const handleOnline = (event) => {
    setState({ online: event.type === 'online' });
    if (event.type === 'online') ask();
  };

  const handleScroll = () => {
    const { scrollTop, scrollHeight, clientHeight } = list.current;
    below.current = scrollHeight - scrollTop - clientHeight < 20;
    if (below.current && ownState.unread > 0) setState({ unread: 0 });
  };

  const handleTyping = (length) => {
    clearTimeout(quiet.current);
    setState({ typing: length > 0 ? `${name} is writing` : '' });
    quiet.current = setTimeout(() => setState({ typing: '' }), 2000);
  };

  const send = (text) => {
    const now = new Date();
    const message = {
      id: `${name}-${ownState.messages.length}`,
      from: name,
      at: `${pad(now.getHours())}:${pad(now.getMinutes())}`,
      text,
    };
    below.current = true;
    afterRender(toBottom);
    setState({ messages: [...ownState.messages, message], typing: '' });
    if (onSend) onSend(message);
  };

  const toBottom = useCallback(() => {
    const node = list.current;
    if (node) node.scrollTop = node.scrollHeight;
  }, []);

  function reset() {
    setState({ messages: [], unread: 0 });
    fieldRef.current.clear();
    fieldRef.current.focus();
  }

  const renderMessage = (message, index) => {
    const before = ownState.messages[index - 1];
    const same = before && before.from === message.from;
    return (
      <li key={message.id} className={message.from === name ? 'own' : undefined}>
        {!same && <b>{message.from}</b>} <time>{message.at}</time> {message.text}
      </li>
    );
  };

  const afterRender = useAfterRender();

  if (!Object.is(messagesProp, ownState.given)) {
    setState({ given: messagesProp, messages: messagesProp });
    return null;
  }

  const { messages, unread, typing, online } = ownState;
  return (
    <div className="chat">
      {!online && <p role="alert">No line to the other harbours</p>}
      <ol ref={list} onScroll={handleScroll}>
        {messages.map(renderMessage)}
      </ol>
      {unread > 0 && <button onClick={toBottom}>{unread} new below</button>}
      <p aria-live="polite">{typing}</p>
      <MessageField
        ref={(field) => { fieldRef.current = field; }}
        disabled={!online}
        onSend={send}
        onTyping={handleTyping}
      />
      <button onClick={() => reset()}>empty</button>
    </div>
  );
}
