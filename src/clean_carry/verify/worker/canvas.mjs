// What the simulated page lacks: a canvas to draw on in two dimensions (HTML, section 4.12.5). Nothing is
// painted; what is drawn, with the colours and the font at that time, is noted like a call.

const DRAWS = ['fillRect', 'strokeRect', 'clearRect', 'fillText', 'strokeText', 'fill', 'stroke', 'drawImage', 'putImageData'];
const QUIET = [
  'save', 'restore', 'scale', 'rotate', 'translate', 'transform', 'setTransform', 'resetTransform', 'beginPath',
  'closePath', 'moveTo', 'lineTo', 'bezierCurveTo', 'quadraticCurveTo', 'arc', 'arcTo', 'ellipse', 'rect', 'clip',
  'setLineDash',
];
// A letter of a text that is measured is so wide.
const LETTER = 7;

/** Give the canvases of a window their context; `note(name, values)` hears of what is drawn. */
export function canvas(w, note) {
  const contexts = new WeakMap();
  w.HTMLCanvasElement.prototype.getContext = function getContext(kind) {
    if (kind !== '2d') return null;
    if (!contexts.has(this)) contexts.set(this, context(w, this, note));
    return contexts.get(this);
  };
  w.HTMLCanvasElement.prototype.toDataURL = () => 'data:,';
}

function context(w, element, note) {
  const made = { canvas: element, fillStyle: '#000000', strokeStyle: '#000000', font: '10px sans-serif', lineWidth: 1 };
  for (const name of DRAWS) {
    made[name] = (...given) => {
      const { fillStyle, strokeStyle, font } = made;
      note(`canvas ${name}`, [...given.map((value) => (typeof value === 'object' ? 'an object' : value)), fillStyle, strokeStyle, font].map(String));
    };
  }
  for (const name of QUIET) made[name] = () => {};
  const gradient = () => ({ addColorStop() {} });
  return Object.assign(made, {
    measureText: (text) => ({ width: LETTER * String(text).length }),
    getImageData: (x, y, width, height) => ({ width, height, data: new w.Uint8ClampedArray(4 * width * height) }),
    createLinearGradient: gradient, createRadialGradient: gradient, createPattern: () => ({}),
    isPointInPath: () => false, getLineDash: () => [],
  });
}
