// Runs at most once in so many milliseconds, and once more for the last call
export default function throttle(run, wait) {
  let timer = null;
  let again = null;
  return function throttled(...values) {
    if (timer) {
      again = () => throttled.apply(this, values);
      return;
    }
    run.apply(this, values);
    timer = setTimeout(() => {
      timer = null;
      const next = again;
      again = null;
      if (next) next();
    }, wait);
  };
}
