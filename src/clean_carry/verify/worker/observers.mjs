// What the simulated page lacks: observers of sizes and of what is in view (Resize Observer, Intersection
// Observer), told as a browser tells them: once when they begin, then when what they watch has changed.
// Sizes are those of the made-up boxes. What is in view goes out of it and comes back with each scroll.

/**
 * Give a window both observers. `page.notice()` tells them of changes; `seen(node)` says whether an element is
 * in view, where the page knows.
 */
export function observers(page, seen = null) {
  const w = page.window;
  const watching = new Set();
  let number = 0;
  let inView = true;

  class Observer {
    #run;
    #targets = new Map();
    #due = false;
    #key = `observer ${++number}`;

    constructor(run) {
      if (typeof run !== 'function') throw new w.TypeError('An observer needs a function to call.');
      this.#run = run;
    }

    observe(target) {
      if (!(target instanceof w.Element)) throw new w.TypeError('Only elements can be observed.');
      this.#targets.set(target, null);
      watching.add(this);
      page.listeners.set(this.#key, `window ${this.told}`);
      this.tell();
    }

    unobserve(target) {
      this.#targets.delete(target);
      if (!this.#targets.size) this.disconnect();
    }

    disconnect() {
      this.#targets.clear();
      watching.delete(this);
      page.listeners.delete(this.#key);
    }

    takeRecords() { return []; }

    /** Call the function for what has changed since it was called last, in a task of its own. */
    tell() {
      if (this.#due) return;
      const entries = () => {
        const found = [];
        for (const [target, before] of this.#targets) {
          const now = this.state(target);
          const text = JSON.stringify(now);
          if (text !== before) found.push([target, text, this.entry(target, now)]);
        }
        return found;
      };
      if (!entries().length) return;
      this.#due = true;
      page.tasks.push(() => {
        this.#due = false;
        const found = entries();
        for (const [target, text] of found) this.#targets.set(target, text);
        if (found.length) this.#run.call(this, found.map(([, , entry]) => entry), this);
      });
    }
  }

  const size = (node) => {
    const { width, height } = page.box(node);
    return { width, height };
  };
  const rect = (node) => node.getBoundingClientRect();

  w.ResizeObserver ??= class ResizeObserver extends Observer {
    get told() { return 'resize'; }

    state(target) { return size(target); }

    entry(target, { width, height }) {
      const box = [{ inlineSize: width, blockSize: height }];
      return {
        target, borderBoxSize: box, contentBoxSize: box, devicePixelContentBoxSize: box,
        contentRect: { x: 0, y: 0, left: 0, top: 0, width, height, right: width, bottom: height },
      };
    }
  };
  w.IntersectionObserver ??= class IntersectionObserver extends Observer {
    constructor(run, options = {}) {
      super(run);
      this.root = options.root ?? null;
      this.rootMargin = options.rootMargin ?? '0px 0px 0px 0px';
      this.thresholds = [options.threshold ?? 0].flat();
    }

    get told() { return 'scroll'; }

    state(target) { return seen ? seen(target) : inView; }

    entry(target, shown) {
      const whole = rect(target);
      return {
        target, isIntersecting: shown, intersectionRatio: shown ? 1 : 0, time: page.now,
        boundingClientRect: whole, intersectionRect: whole, rootBounds: null,
      };
    }
  };
  w.addEventListener('scroll', () => { inView = !inView; });
  page.notice = () => { for (const observer of watching) observer.tell(); };
  page.unwatch = () => {
    for (const observer of [...watching]) observer.disconnect();
    number = 0;
    inView = true;
  };
}
