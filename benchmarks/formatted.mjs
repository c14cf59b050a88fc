// Whether what was clean under a formatter stays so, with the options most files of a corpus keep to.
const OPTIONS = [{ useTabs: true }, { tabWidth: 2 }, { tabWidth: 4 }].flatMap((indent) =>
  [true, false].flatMap((singleQuote) => ['none', 'es5', 'all'].flatMap((trailingComma) =>
    [80, 100, 120].flatMap((printWidth) => ['always', 'avoid'].map((arrowParens) =>
      ({ ...indent, singleQuote, trailingComma, printWidth, arrowParens }))))));

async function clean(prettier, text, options, name) {
  try { return await prettier.check(text, { ...options, parser: /\.tsx?$/.test(name) ? 'typescript' : 'babel' }); } catch { return false; }
}

/** Files {path, old, new} that are clean under the options most of them are clean under: whether the new text is. */
export async function formatted(require, files) {
  const prettier = await import(require.resolve('prettier/index.mjs'));
  const sample = files.slice(0, 24);
  let best = { count: 0, options: null };
  for (const options of OPTIONS) {
    let count = 0;
    for (const file of sample) count += await clean(prettier, file.old, options, file.path);
    if (count > best.count) best = { count, options };
  }
  const found = {};
  if (!best.options) return found;
  for (const file of files) {
    if (file.new && await clean(prettier, file.old, best.options, file.path)) found[file.path] = await clean(prettier, file.new, best.options, file.path);
  }
  return found;
}
