// Compiles the styles of preprocessors with the project's own compiler, in a process that may read the
// project and the packages above it, and nothing else: no writing, no sockets, no names looked up, no other
// process, no signals. What the compiler says by itself goes nowhere.
// One JSON object a line in, one a line out: {id, file, text, lang, aliases} → {id, css, inputs}, {id, missing} or {id, error}.
import { createRequire } from 'node:module';
import path from 'node:path';
import readline from 'node:readline';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { takePowers, takeSockets } from './isolation.mjs';
import { readOnlyIn } from './reading.mjs';

// The pipes to the builder may be sockets: they are opened before those are taken away.
const requests = readline.createInterface({ input: process.stdin });
const { stdout } = process;
takeSockets();
takePowers();
readOnlyIn([process.cwd(), path.dirname(fileURLToPath(import.meta.url))]);
const write = stdout.write.bind(stdout);
process.stdout.write = process.stderr.write = () => true;
for (const name of Object.keys(console)) if (typeof console[name] === 'function') console[name] = () => {};
// What compiles a language, by package: the first one the project has.
const PACKAGES = { scss: ['sass', 'sass-embedded', 'node-sass'], sass: ['sass', 'sass-embedded', 'node-sass'], less: ['less'], styl: ['stylus'], stylus: ['stylus'] };

function loaded(lang, file) {
  const require = createRequire(file);
  for (const name of PACKAGES[lang] ?? []) {
    try {
      return [name, require(name)];
    } catch (error) {
      if (error.code !== 'MODULE_NOT_FOUND') throw error;
    }
  }
  return null;
}

/** Where an import with a tilde, or an alias of the project, points; null for any other. */
function elsewhere(name, file, aliases) {
  for (const [prefix, target] of Object.entries(aliases)) {
    if (name === prefix || (prefix.endsWith('/') && name.startsWith(prefix))) return path.join(target, name.slice(prefix.length));
  }
  return name.startsWith('~') ? found(name.slice(1), file) : null;
}

/** A path inside a package, from the nearest folder of packages that has it. */
function found(name, file) {
  const require = createRequire(file);
  const [first, second] = name.split('/');
  const owner = name.startsWith('@') ? `${first}/${second}` : first;
  try {
    return path.join(path.dirname(require.resolve(`${owner}/package.json`)), name.slice(owner.length));
  } catch {
    return null;
  }
}

const above = (file) => {
  const folders = [];
  for (let folder = path.dirname(file); ; folder = path.dirname(folder)) {
    folders.push(path.join(folder, 'node_modules'));
    if (folder === path.dirname(folder)) return folders;
  }
};

function sass(compiler, { file, text, lang, aliases }) {
  const loadPaths = [path.dirname(file), ...above(file)];
  if (compiler.compileString) {
    const importer = {
      findFileUrl(name) {
        const place = elsewhere(name, file, aliases);
        return place ? pathToFileURL(place) : null;
      },
    };
    const made = compiler.compileString(text, {
      url: pathToFileURL(file), syntax: lang === 'sass' ? 'indented' : 'scss', loadPaths, importers: [importer],
      logger: { warn() {}, debug() {} }, style: 'expanded',
    });
    return { css: made.css, inputs: made.loadedUrls.filter((url) => url.protocol === 'file:').map((url) => fileURLToPath(url)) };
  }
  const importer = (name) => {
    const place = elsewhere(name, file, aliases);
    return place ? { file: place } : null;
  };
  const made = compiler.renderSync({ data: text, file, includePaths: loadPaths, importer, indentedSyntax: lang === 'sass', outputStyle: 'expanded' });
  return { css: made.css.toString(), inputs: made.stats.includedFiles.filter((name) => path.isAbsolute(name)) };
}

async function less(compiler, { file, text }) {
  const made = await compiler.render(text, { filename: file, paths: [path.dirname(file), ...above(file)], javascriptEnabled: false });
  return { css: made.css, inputs: made.imports.map((name) => path.resolve(name)) };
}

function stylus(compiler, { file, text }) {
  const style = compiler(text, { filename: file, paths: [path.dirname(file), ...above(file)] });
  return { css: style.render(), inputs: style.deps() };
}

const BY = { sass, 'sass-embedded': sass, 'node-sass': sass, less, stylus };

for await (const line of requests) {
  const m = JSON.parse(line);
  let answer;
  try {
    const compiler = loaded(m.lang, m.file);
    answer = compiler ? await BY[compiler[0]](compiler[1].default ?? compiler[1], m) : { missing: (PACKAGES[m.lang] ?? [m.lang])[0] };
  } catch (error) {
    answer = { error: `${m.file}: ${String(error?.message ?? error).split('\n')[0]}` };
  }
  write(`${JSON.stringify({ ...answer, id: m.id })}\n`);
}
process.exit(0);
