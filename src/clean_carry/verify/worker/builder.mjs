// Bundles a component from where it stands, and never runs it.
// One JSON object a line in, one a line out: {id, op: "build", …} → {id, ok, code, css} or {id, ok: false, error}.
import fs from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import readline from 'node:readline';
import zlib from 'node:zlib';
import { annotations } from './annotations.mjs';
import { declaring } from './declaring.mjs';
import { isDecorated } from './decorated-class.mjs';
import { Styles } from './styles.mjs';

const [workbench] = process.argv.slice(2);
const require = createRequire(path.join(workbench, 'package.json'));
const esbuild = require('esbuild');
const { createInstrumenter } = require('istanbul-lib-instrument');
const { plain, plugin: plainImports } = annotations(require);

const SCRIPTS = { '.js': 'jsx', '.jsx': 'jsx', '.mjs': 'jsx', '.cjs': 'jsx', '.ts': 'ts', '.tsx': 'tsx' };
// Styles that need a compiler say nothing in a simulated page.
const LOADED = { '.css': 'css', '.module.css': 'local-css', '.ts': 'ts', '.tsx': 'tsx', '.scss': 'empty', '.sass': 'empty', '.less': 'empty', '.styl': 'empty' };
const FILES = ['.png', '.jpg', '.jpeg', '.gif', '.svg', '.webp', '.avif', '.ico', '.woff', '.woff2', '.ttf', '.eot', '.otf', '.mp3', '.mp4', '.pdf'];

/** The text of one file laid over by new text and instrumented; every other file is read from the disk. */
function overlay(file, text, single, decorated, map, beside, modules) {
  return {
    name: 'overlay',
    setup(build) {
      const exact = new RegExp(`^${file.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`);
      build.onResolve({ filter: exact }, () => ({ path: file }));
      // What the new text imports from the file it stands in for is the old one, as it is on the disk.
      // Where the new text stands beside it, so is what others import from it.
      build.onResolve({ filter: beside ? mayMean(file) : /^\./ }, async (args) => {
        if (!beside && args.importer !== file) return undefined;
        // A module declares the new class in the place of the old one.
        if (modules.includes(args.importer)) return undefined;
        if (args.namespace !== 'file' || args.pluginData === 'beside' || !args.path.startsWith('.')) return undefined;
        const found = await build.resolve(args.path, { resolveDir: args.resolveDir, kind: args.kind, importer: args.importer, pluginData: 'beside' });
        return found.path === file ? { path: file, namespace: 'beside' } : undefined;
      });
      build.onLoad({ filter: exact, namespace: 'beside' }, async () => {
        const old = await fs.readFile(file, 'utf8');
        const resolveDir = path.dirname(file);
        if (file.endsWith('.vue')) return { ...await (await single()).compile(file, old), resolveDir };
        if (isDecorated(file, old)) {
          const { contents, loader } = await (await decorated()).compile(file, old);
          return { contents, loader, resolveDir };
        }
        return { contents: /\.[cm]?jsx?$/.test(file) ? plain(old) : old, loader: SCRIPTS[path.extname(file)] ?? 'jsx', resolveDir };
      });
      build.onLoad({ filter: exact, namespace: 'file' }, async () => {
        const resolveDir = path.dirname(file);
        if (file.endsWith('.html') || file.endsWith('.php')) {
          // A page has no code of its own that could be reached.
          Object.assign(map, { branches: [], functions: [] });
          return { contents: `export default ${JSON.stringify(text)};`, loader: 'js', resolveDir };
        }
        const compiled = file.endsWith('.vue') ? single : isDecorated(file, text) ? decorated : null;
        const read = compiled ? await (await compiled()).compile(file, text) : { contents: /\.[cm]?jsx?$/.test(file) ? plain(text) : text, loader: SCRIPTS[path.extname(file)] ?? 'jsx' };
        const { contents, ...reached } = instrumented(read.contents, file, read.loader, read);
        Object.assign(map, reached);
        return { contents, loader: read.loader, resolveDir };
      });
    },
  };
}

/** What a path that may lead to a file ends in. */
function mayMean(file) {
  const plain = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const stem = plain(path.basename(file).replace(/\.\w+$/, ''));
  const folder = stem === 'index' ? `|(^|/)(\\.{1,2}|${plain(path.basename(path.dirname(file)))})/?$` : '';
  return new RegExp(`(^|/)${stem}(\\.\\w+)?$${folder}`);
}

/** The text with a counter at each branch and function, and where each is: {contents, branches, functions}. */
function instrumented(text, file, loader, { line: lineOf = ({ line }) => line, drawn = () => false }) {
  const plugins = ['decorators-legacy', 'classProperties', 'classPrivateProperties', 'classPrivateMethods', 'dynamicImport', 'topLevelAwait'];
  if (loader.startsWith('ts')) plugins.push('typescript');
  if (loader.endsWith('x')) plugins.push('jsx');
  try {
    const instrumenter = createInstrumenter({
      esModules: true, compact: false, coverageVariable: '__reach__', coverageGlobalScope: 'globalThis', coverageGlobalScopeFunc: false,
      parserPlugins: plugins,
    });
    const contents = instrumenter.instrumentSync(text, file);
    const { branchMap, fnMap } = instrumenter.lastFileCoverage();
    const rows = text.split('\n');
    const branches = Object.entries(branchMap).filter(([, branch]) => !(drawn(branch.loc.start) && ofCompiler(rows, branch))).flatMap(([key, branch]) =>
      branch.locations.map((place, arm) => ({ id: `b${key}.${arm}`, line: lineOf(place.start.line ? place.start : branch.loc.start), kind: branch.type })));
    const functions = Object.entries(fnMap).map(([key, fn]) => ({ id: `f${key}`, line: lineOf(fn.decl.start), kind: 'function', name: fn.name.startsWith('(') ? '' : fn.name }));
    return { contents, branches, functions };
  } catch {
    // A dialect the instrumenter does not read: the component runs all the same, its reach is not known.
    return { contents: text, branches: null, functions: null };
  }
}

// What a compiler of templates writes around a listener: it keeps it, and asks whether the method is there.
const OF_COMPILER = /^(_cache\[|([\w$.]+) && \2\(\.\.\.args\))/;

function ofCompiler(rows, { type, loc: { start } }) {
  return type === 'binary-expr' && OF_COMPILER.test(rows[start.line - 1]?.slice(start.column) ?? '');
}

/** Single files that others import; the text of those that are not on the disk is in `extra`. */
function singleFiles(single, extra) {
  return {
    name: 'single-files',
    setup(build) {
      build.onLoad({ filter: /\.vue$/ }, async (args) => {
        const { contents, loader } = await (await single()).compile(args.path, extra[args.path] ?? await fs.readFile(args.path, 'utf8'));
        return { contents, loader, resolveDir: path.dirname(args.path) };
      });
    },
  };
}

/** Classes with decorators that others import. */
function decoratedClasses(decorated, extra) {
  return {
    name: 'decorated-classes',
    setup(build) {
      build.onLoad({ filter: /\.ts$/ }, async (args) => {
        if (args.path.includes('/node_modules/')) return undefined;
        const text = extra[args.path] ?? await fs.readFile(args.path, 'utf8');
        if (!isDecorated(args.path, text)) return undefined;
        const { contents, loader } = await (await decorated()).compile(args.path, text);
        return { contents, loader, resolveDir: path.dirname(args.path) };
      });
    },
  };
}

/** Styles of single files whose names are local, as modules: `file.vue?module=N`. */
function moduleStyles(compiler) {
  return {
    name: 'module-styles',
    setup(build) {
      build.onResolve({ filter: /\?module=\d+$/ }, (args) => ({ path: args.path, namespace: 'module-style' }));
      build.onLoad({ filter: /.*/, namespace: 'module-style' }, (args) => ({
        contents: compiler().module(args.path), loader: 'local-css', resolveDir: path.dirname(args.path),
      }));
    },
  };
}

/** Files of a version that are not on the disk. */
function extraFiles(extra) {
  return {
    name: 'extra-files',
    setup(build) {
      for (const [file, contents] of Object.entries(extra)) {
        // An import of a script may leave its ending out.
        const plain = file.replace(/\.[jt]sx?$/, '');
        const named = path.basename(plain).replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
        build.onResolve({ filter: new RegExp(`(^|/)${named}(\\.[jt]sx?)?$`) }, (args) => (
          [file, plain].includes(path.resolve(args.resolveDir, args.path)) ? { path: file, namespace: 'extra' } : undefined));
      }
      build.onLoad({ filter: /.*/, namespace: 'extra' }, (args) => ({
        contents: extra[args.path], loader: LOADED[/(\.module)?\.(css|tsx?|s[ac]ss|less|styl)$/.exec(args.path)?.[0]] ?? 'jsx', resolveDir: path.dirname(args.path),
      }));
    },
  };
}

/** Import aliases of the project: a prefix that stands for a folder (or a file). */
function aliased(aliases) {
  return {
    name: 'aliases',
    setup(build) {
      for (const [prefix, target] of Object.entries(aliases)) {
        const filter = new RegExp(`^${prefix.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}`);
        build.onResolve({ filter }, (args) => {
          if (!prefix.endsWith('/') && args.path !== prefix) return undefined;
          return build.resolve(target + args.path.slice(prefix.length), { resolveDir: args.resolveDir, kind: args.kind });
        });
      }
    },
  };
}

/** The runtime's own packages: the project's first, then the installed runtime's; always one copy. */
function oneRuntime(names, projectFolder, runtimeFolder) {
  const filter = new RegExp(`^(${names.join('|')})(/.*)?$`);
  // A project that has another major version of the runtime is not asked for it.
  const major = (folder) => {
    try {
      return createRequire(path.join(folder, 'package.json'))(`${names[0]}/package.json`).version.split('.')[0];
    } catch {
      return '';
    }
  };
  const same = [major(runtimeFolder), ''].includes(major(projectFolder));
  const folders = same ? [projectFolder, runtimeFolder] : [runtimeFolder];
  return {
    name: 'one-runtime',
    setup(build) {
      build.onResolve({ filter }, async (args) => {
        if (args.pluginData === 'resolving') return undefined;
        for (const resolveDir of folders) {
          const found = await build.resolve(args.path, { resolveDir, kind: args.kind, pluginData: 'resolving' });
          if (found.errors.length === 0) return found;
        }
        return undefined;
      });
    },
  };
}

/** The runtime's scheduler gets a clock that makes it yield after every task, so that the page can be
 *  painted between what is drawn and what runs after paint, on slow and fast machines alike: it looks at
 *  the clock once before a task (3 of its 5 milliseconds) and again after it. */
const yieldingScheduler = {
  name: 'yielding-scheduler',
  setup(build) {
    build.onLoad({ filter: /[\\/]node_modules[\\/]scheduler[\\/].*\.js$/ }, async (args) => {
      const text = await fs.readFile(args.path, 'utf8');
      return { contents: `var performance = { now: ((time) => () => (time += 3))(0) };\n${text}`, loader: 'js' };
    });
  },
};

/** `export X from 'y'`, a form that never became part of the language and that older code bases are written in. */
const exportsFrom = {
  name: 'exports-from',
  setup(build) {
    build.onLoad({ filter: /\.jsx?$/ }, async (args) => {
      if (args.path.includes('/node_modules/') || args.namespace !== 'file') return undefined;
      const text = await fs.readFile(args.path, 'utf8');
      const contents = plain(text.replace(/^export\s+([\w$]+)\s+from(?=\s*['"])/gm, 'export { default as $1 } from'));
      return contents === text ? undefined : { contents, loader: 'jsx' };
    });
  },
};

async function build(m) {
  try {
    return await bundled(m, []);
  } catch (error) {
    if (!error.errors?.some((e) => e.text.startsWith('Unexpected'))) throw error;
    return await bundled(m, [exportsFrom]);
  }
}

/** A module that makes names of an application's scripts global: the runtime, or one of its modules. */
function globals(names) {
  const text = `for (const [name, module] of ${JSON.stringify(Object.entries(names))}) Object.defineProperty(globalThis, name, {
    configurable: true, get: () => (module ? angular.module(module) : angular), set: () => {},
  });`;
  return `data:text/javascript,${encodeURIComponent(text)}`;
}

async function bundled(m, plugins) {
  const map = { branches: null, functions: null };
  const modules = m.file ? await declaring(m.file, m.text) : [];
  const entry = [
    // Stylesheets of the page come before those of the component.
    ...(m.styles ?? []).map((file) => `import ${JSON.stringify(file)};`),
    `export * as adapter from ${JSON.stringify(m.adapter)};`,
    ...(m.application?.globals ? [`import ${JSON.stringify(globals(m.application.globals))};`] : []),
    ...(m.companions ?? []).map((file) => `import ${JSON.stringify(file)};`),
    `export const application = ${JSON.stringify(m.application ?? {})};`,
    m.file ? `export * as subject from ${JSON.stringify(m.file)};` : `export const subject = {};`,
    // A module names the classes that it declares, so it comes after them.
    ...modules.map((file) => `import ${JSON.stringify(file)};`),
    m.uses ? `export { default as uses } from ${JSON.stringify(m.uses)};` : `export const uses = [];`,
    m.setup ? `export * as setup from ${JSON.stringify(m.setup)};` : `export const setup = {};`,
    ...(m.hubs ?? []).map(([, file, name], at) => `import ${name ? `{ ${name} as hub${at} }` : `* as hub${at}`} from ${JSON.stringify(file)};`),
    `export const hubs = { ${(m.hubs ?? []).map(([shown], at) => `${JSON.stringify(shown)}: hub${at}`).join(', ')} };`,
    m.around ? `export { default as around } from ${JSON.stringify(m.around)};` : `export const around = null;`,
  ].join('\n');
  let compiler = null;
  const styles = new Styles(m.aliases ?? {});
  const single = async () => (compiler ??= (await import('./single-file.mjs')).compiler(m.single ?? m.runtime, workbench, styles));
  let classes = null;
  const decorated = async () => (classes ??= (await import('./decorated-class.mjs')).compiler(m.runtime, workbench, styles, m.extra ?? {}));
  const loader = { ...SCRIPTS, '.module.css': 'local-css' };
  for (const ending of FILES) loader[ending] = 'file';
  const result = await esbuild.build({
    stdin: { contents: entry, resolveDir: path.dirname(m.file ?? m.adapter), loader: 'js' },
    bundle: true,
    write: false,
    metafile: true,
    outdir: '/out',
    assetNames: '[name]',
    publicPath: '/',
    format: 'iife',
    globalName: '__bundle',
    platform: 'browser',
    target: 'es2022',
    jsx: 'automatic',
    mainFields: ['browser', 'module', 'main'],
    resolveExtensions: ['.tsx', '.ts', '.jsx', '.js', '.mjs', '.vue', '.json', '.css'],
    nodePaths: [m.runtime, ...(m.bridged ? [m.bridged] : [])].map((folder) => path.join(folder, 'node_modules')),
    loader,
    charset: 'utf8',
    legalComments: 'none',
    logLevel: 'silent',
    define: { 'process.env.NODE_ENV': JSON.stringify(m.mode), 'process.env': '{}', global: 'globalThis',
      __VUE_OPTIONS_API__: 'true', __VUE_PROD_DEVTOOLS__: 'false', __VUE_PROD_HYDRATION_MISMATCH_DETAILS__: 'false', ...m.defines },
    plugins: [
      oneRuntime(m.packages, m.project, m.runtime),
      ...(m.file ? [overlay(m.file, m.text, single, decorated, map, m.beside, modules)] : []),
      singleFiles(single, m.extra ?? {}),
      decoratedClasses(decorated, m.extra ?? {}),
      extraFiles(m.extra ?? {}),
      aliased(m.aliases ?? {}),
      ...plugins,
      plainImports,
      yieldingScheduler,
      styles.plugin,
      moduleStyles(() => compiler),
    ],
  });
  let code = '';
  let css = '';
  for (const file of result.outputFiles) {
    if (file.path.endsWith('.js')) code = file.text;
    if (file.path.endsWith('.css')) css += file.text;
  }
  if (compiler) css += compiler.css();
  const read = Object.keys(result.metafile.inputs).map((name) => path.resolve(name.replace(/^[a-z-]+:/, ''))).filter((name) => name !== path.resolve('<stdin>'));
  const inputs = [...new Set([...read, ...styles.inputs])];
  return { code, css, inputs, uncompiled: [...styles.missing], ...map };
}

/** What a file and what it imports of the project take in a browser: {bytes, compressed}, packages left out. */
async function size(m) {
  let compiler = null;
  const styles = new Styles(m.aliases ?? {});
  const single = async () => (compiler ??= (await import('./single-file.mjs')).compiler(m.runtime, workbench, styles));
  const loader = { ...SCRIPTS, '.module.css': 'local-css' };
  for (const ending of FILES) loader[ending] = 'file';
  const result = await esbuild.build({
    entryPoints: [m.file], bundle: true, write: false, minify: true, outdir: '/out', format: 'esm', platform: 'browser', packages: 'external',
    target: 'es2022', jsx: 'automatic', loader, charset: 'utf8', legalComments: 'none', logLevel: 'silent',
    resolveExtensions: ['.tsx', '.ts', '.jsx', '.js', '.mjs', '.vue', '.json', '.css'],
    define: { 'process.env.NODE_ENV': '"production"', ...m.defines },
    plugins: [singleFiles(single, {}), aliased(m.aliases ?? {}), exportsFrom, plainImports, styles.plugin, moduleStyles(() => compiler)],
  });
  const text = result.outputFiles.filter((file) => /\.(js|css)$/.test(file.path)).map((file) => file.text).join('') + (compiler?.css() ?? '');
  return { bytes: Buffer.byteLength(text), compressed: zlib.gzipSync(text, { level: 9 }).length };
}

function message(error) {
  if (!error.errors?.length) return String(error.message ?? error);
  return error.errors
    .slice(0, 3)
    .map((e) => (e.location ? `${path.resolve(e.location.file.replace(/^[a-z-]+:/, ''))}:${e.location.line}: ${e.text}` : e.text))
    .join('; ');
}

for await (const line of readline.createInterface({ input: process.stdin })) {
  const m = JSON.parse(line);
  let answer;
  try {
    answer = { id: m.id, ok: true, ...(await (m.op === 'size' ? size(m) : build(m))) };
  } catch (error) {
    answer = { id: m.id, ok: false, error: message(error) };
  }
  process.stdout.write(`${JSON.stringify(answer)}\n`);
}
process.exit(0);
