// The styles of a bundle: what a preprocessor makes of them, and the styles of single files.
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import readline from 'node:readline';
import { fileURLToPath } from 'node:url';

const HERE = path.dirname(fileURLToPath(import.meta.url));
const PERMISSION = process.allowedNodeEnvironmentFlags.has('--permission') ? '--permission' : '--experimental-permission';
const PATIENCE = 30_000;
const compilers = new Map();

/** Every folder above a file, the nearest first. */
function* above(file) {
  for (let folder = path.dirname(file); ; folder = path.dirname(folder)) {
    yield folder;
    if (folder === path.dirname(folder)) return;
  }
}

/** The project a file is of: the nearest folder above it with a package of its own, else the file's folder. */
function project(file) {
  for (const folder of above(file)) if (fs.existsSync(path.join(folder, 'package.json'))) return folder;
  for (const folder of above(file)) if (fs.existsSync(path.join(folder, 'node_modules'))) return folder;
  return path.dirname(file);
}

/** A process that compiles styles of one project. */
function compilerOf(folder) {
  if (compilers.has(folder)) return compilers.get(folder);
  const packages = [...above(path.join(folder, 'x'))].map((one) => path.join(one, 'node_modules')).filter((one) => fs.existsSync(one));
  // The permission model looks at real places: packages may be linked in.
  const places = new Set([HERE, folder, ...packages].flatMap((one) => [one, fs.realpathSync(one)]));
  const readable = [...places].map((one) => `--allow-fs-read=${one}${path.sep}*`);
  const child = spawn(process.execPath, [
    PERMISSION, ...readable, '--no-warnings', path.join(HERE, 'preprocess.mjs'),
  ], { cwd: folder, env: {}, stdio: ['pipe', 'pipe', 'ignore'] });
  child.unref();
  for (const pipe of [child.stdin, child.stdout]) pipe.unref();
  const waiting = new Map();
  let asked = 0;
  const end = (error) => {
    compilers.delete(folder);
    for (const resolve of waiting.values()) resolve({ error });
    waiting.clear();
  };
  child.on('exit', () => end('the compiler of styles ended'));
  child.on('error', (error) => end(error.message));
  readline.createInterface({ input: child.stdout }).on('line', (line) => {
    let answer;
    // What is no answer was said by the compiler.
    try { answer = JSON.parse(line); } catch { return; }
    waiting.get(answer.id)?.(answer);
    waiting.delete(answer.id);
  });
  const ask = (request) => new Promise((resolve) => {
    const id = asked++;
    const late = setTimeout(() => { child.kill('SIGKILL'); }, PATIENCE);
    waiting.set(id, (answer) => { clearTimeout(late); resolve(answer); });
    child.stdin.write(`${JSON.stringify({ ...request, id })}\n`);
  });
  compilers.set(folder, ask);
  return ask;
}

/** What is met while one bundle is made: files that styles were made of, and styles that nothing compiled. */
export class Styles {
  constructor(aliases) {
    this.aliases = aliases;
    this.inputs = new Set();
    this.missing = new Map();
  }

  /** Where a style's `src` leads: to a file beside, by an alias of the project, or into a package. */
  placed(filename, src) {
    const folder = path.dirname(filename);
    for (const [prefix, target] of Object.entries(this.aliases)) {
      if (src === prefix || (prefix.endsWith('/') && src.startsWith(prefix))) return path.resolve(folder, target + src.slice(prefix.length));
    }
    const file = path.resolve(folder, src);
    if (src.startsWith('.') || fs.existsSync(file)) return file;
    const inside = [...above(filename)].map((one) => path.join(one, 'node_modules', src.replace(/^~/, '')));
    return inside.find((one) => fs.existsSync(one)) ?? file;
  }

  /** Plain CSS of a style in a preprocessor's language; empty, and noted, where the project cannot compile it. */
  async plain(file, text, lang) {
    if (!lang || lang === 'css' || lang === 'postcss') return text;
    const answer = await compilerOf(project(file))({ file, text, lang, aliases: this.aliases });
    if (answer.error) throw new Error(answer.error);
    if (answer.missing) {
      this.missing.set(file, answer.missing);
      return '';
    }
    for (const input of answer.inputs) this.inputs.add(input);
    return answer.css;
  }

  /** Stylesheets of preprocessors that code imports. */
  get plugin() {
    return {
      name: 'preprocessed',
      setup: (build) => {
        build.onLoad({ filter: /\.(scss|sass|less|styl)$/ }, async (args) => {
          const lang = path.extname(args.path).slice(1);
          const contents = await this.plain(args.path, await fs.promises.readFile(args.path, 'utf8'), lang);
          return { contents, loader: /\.module\.\w+$/.test(args.path) ? 'local-css' : 'css', resolveDir: path.dirname(args.path) };
        });
      },
    };
  }
}
