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

/** The topmost folder above a file that belongs to its project: what its styles may be made of lies there. */
function top(file) {
  let found = path.dirname(file);
  for (let folder = found; folder !== path.dirname(folder); folder = path.dirname(folder)) {
    if (fs.existsSync(path.join(folder, 'package.json')) || fs.existsSync(path.join(folder, 'node_modules'))) found = folder;
  }
  return found;
}

/** A process that compiles styles of one project. */
function compilerOf(folder) {
  if (compilers.has(folder)) return compilers.get(folder);
  const child = spawn(process.execPath, [
    PERMISSION, `--allow-fs-read=${HERE}${path.sep}*`, `--allow-fs-read=${folder}${path.sep}*`, '--no-warnings', path.join(HERE, 'preprocess.mjs'),
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
    const answer = JSON.parse(line);
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

  /** Plain CSS of a style in a preprocessor's language; empty, and noted, where the project cannot compile it. */
  async plain(file, text, lang) {
    if (!lang || lang === 'css' || lang === 'postcss') return text;
    const answer = await compilerOf(top(file))({ file, text, lang, aliases: this.aliases });
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
