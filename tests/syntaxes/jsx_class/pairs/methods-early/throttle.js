// Calls at most once in a while, the last time later.
export default (run, wait) => {
  let timer = null;
  return () => {
    if (timer) return;
    timer = setTimeout(() => {
      timer = null;
      run();
    }, wait);
  };
};
