// Independent checks of corpus files, by the TypeScript compiler and a linter.
// Input (JSON on standard input): {files: [{path, old, new}]}; output: {components, problems: {path: [text]}}.
import { formatted } from './formatted.mjs';
import { annotations } from '../src/clean_carry/verify/worker/annotations.mjs';
import fs from 'node:fs';
import path from 'node:path';
import { createRequire } from 'node:module';

const require = createRequire(path.join(process.argv[2], 'package.json'));
const ts = require('typescript');
const { Linter } = require('eslint');
const react = require('eslint-plugin-react');
const hooks = require('eslint-plugin-react-hooks');
// Neither the compiler nor the linter reads Flow's annotations: they are blanked in both texts of a script.
const { plain: blanked } = annotations(require);
const plain = (name, text) => (/\.tsx?$/.test(name) ? text : blanked(text));

const parse = (name, text) => ts.createSourceFile(name, text, ts.ScriptTarget.Latest, true, name.endsWith('.ts') ? ts.ScriptKind.TS : ts.ScriptKind.TSX);

/** Names of classes with a heritage clause and a render method that returns JSX. */
function components(file) {
  const found = [];
  const holdsMarkup = (node) => ts.isJsxElement(node) || ts.isJsxSelfClosingElement(node) || ts.isJsxFragment(node) || ts.forEachChild(node, holdsMarkup) || false;
  const visit = (node) => {
    if (ts.isClassLike(node) && node.heritageClauses?.some((c) => c.token === ts.SyntaxKind.ExtendsKeyword)) {
      const render = node.members.find((m) => m.name?.getText() === 'render');
      if (render && holdsMarkup(render)) found.push({ name: node.name?.text ?? '', line: file.getLineAndCharacterOfPosition(node.getStart()).line + 1 });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

const linter = new Linter({ configType: 'flat' });
const config = {
  files: ['**/*.jsx'],
  // What a comment switches off is no matter of correctness.
  linterOptions: { reportUnusedDisableDirectives: 'off' },
  languageOptions: {
    ecmaVersion: 'latest', sourceType: 'module',
    parserOptions: { ecmaFeatures: { jsx: true } },
    globals: Object.fromEntries('window document navigator setTimeout clearTimeout setInterval clearInterval requestAnimationFrame cancelAnimationFrame console process require module fetch FileReader CustomEvent Event HTMLElement HTMLInputElement Element Node getComputedStyle location global Promise Set Map'.split(' ').map((n) => [n, 'readonly'])),
  },
  plugins: { react, 'react-hooks': hooks },
  rules: {
    'no-undef': 2, 'no-unused-vars': [2, { args: 'none', ignoreRestSiblings: true }], 'no-redeclare': 2,
    'react/jsx-uses-vars': 2, 'react/jsx-uses-react': 2, 'react/jsx-no-undef': 2, 'react-hooks/rules-of-hooks': 2,
  },
  settings: { react: { version: '18.3' } },
};

const complaints = (text) => linter.verify(text, [config], { filename: 'component.jsx' }).map((m) => `${m.ruleId ?? 'syntax'}: ${m.message}`);

function problems({ path: name, old: before, new: after }) {
  const found = [];
  const [old, text] = [plain(name, before), plain(name, after)];
  const file = parse(name, text);
  for (const d of file.parseDiagnostics ?? []) found.push(`does not parse: ${ts.flattenDiagnosticMessageText(d.messageText, ' ')}`);
  if (!/\.tsx?$/.test(name)) {
    const known = complaints(old);
    for (const c of complaints(text)) {
      const at = known.indexOf(c);
      if (at >= 0) known.splice(at, 1);
      else found.push(c);
    }
  }
  for (const statement of file.statements) {
    if (!ts.isImportDeclaration(statement)) continue;
    const request = statement.moduleSpecifier.text;
    if (!request.startsWith('.')) continue;
    const base = path.resolve(path.dirname(name), request);
    if (!['', '.js', '.jsx', '.ts', '.tsx', '.css', '.scss', '/index.js', '/index.jsx', '/index.ts', '/index.tsx'].some((e) => fs.existsSync(base + e))) found.push(`import does not resolve: ${request}`);
  }
  return found;
}

/** Every comment of a file. */
function comments(name, annotated) {
  const text = plain(name, annotated);
  const file = parse(name, text);
  const found = new Map();
  const note = (list) => { for (const c of list ?? []) found.set(c.pos, { line: file.getLineAndCharacterOfPosition(c.pos).line + 1, text: text.slice(c.pos, c.end) }); };
  const visit = (node) => {
    // In markup the text between two tags is no place for comments.
    if (node.kind !== ts.SyntaxKind.JsxText) {
      note(ts.getLeadingCommentRanges(text, node.getFullStart()));
      note(ts.getTrailingCommentRanges(text, node.getEnd()));
    }
    for (const child of node.getChildren(file)) visit(child);
  };
  visit(file);
  return [...found.values()].filter((c) => c.text.startsWith('/'));
}

/** Comments of the old text that do not stand in the new one. */
function lost(name, old, text) {
  const after = comments(name, text).map((c) => c.text.replace(/\s+/g, ' '));
  return comments(name, old).filter((c) => {
    const at = after.indexOf(c.text.replace(/\s+/g, ' '));
    if (at >= 0) after.splice(at, 1);
    return at < 0;
  });
}

const holdsClass = (node) => ts.isClassLike(node) || ts.forEachChild(node, holdsClass) || false;
const MOVED = /\.(defaultProps|contextType)\s*=/;

/** Statements beside the classes that do not stand in the new text as they were. */
function changed(name, old, text) {
  const file = parse(name, plain(name, old));
  const found = [];
  for (const statement of file.statements) {
    const own = old.slice(statement.getStart(file), statement.end);
    if (holdsClass(statement) || MOVED.test(own)) continue;
    if (ts.isImportDeclaration(statement) && /['"]react(-dom)?['"]/.test(own)) continue;
    if (!text.includes(own)) found.push(own.split('\n')[0].slice(0, 100));
  }
  return found;
}

/** Type errors of the new text that the old one has not, by its messages. */
function typed(files) {
  const found = {};
  const texts = new Map(files.map((f) => [f.path, f.old]));
  let version = 1;
  const options = { jsx: ts.JsxEmit.React, target: ts.ScriptTarget.ES2019, module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Node10, strict: true, experimentalDecorators: true, skipLibCheck: true, noEmit: true, esModuleInterop: true, lib: ['lib.es2019.d.ts', 'lib.dom.d.ts', 'lib.dom.iterable.d.ts'] };
  const host = {
    getScriptFileNames: () => [...texts.keys()], getScriptVersion: (name) => (texts.has(name) ? `${version}` : '1'),
    getScriptSnapshot: (name) => { const text = texts.get(name) ?? (fs.existsSync(name) ? fs.readFileSync(name, 'utf8') : undefined); return text === undefined ? undefined : ts.ScriptSnapshot.fromString(text); },
    getCurrentDirectory: () => path.dirname(files[0].path), getCompilationSettings: () => options,
    getDefaultLibFileName: (o) => ts.getDefaultLibFilePath(o), fileExists: ts.sys.fileExists, readFile: ts.sys.readFile, readDirectory: ts.sys.readDirectory, directoryExists: ts.sys.directoryExists, getDirectories: ts.sys.getDirectories,
  };
  const service = ts.createLanguageService(host);
  const errors = (name) => service.getSemanticDiagnostics(name).map((d) => ts.flattenDiagnosticMessageText(d.messageText, ' '));
  for (const file of files) {
    if (!file.new) continue;
    const before = errors(file.path);
    texts.set(file.path, file.new);
    version += 1;
    const more = errors(file.path).filter((message) => { const at = before.indexOf(message); if (at >= 0) before.splice(at, 1); return at < 0; });
    texts.set(file.path, file.old);
    version += 1;
    if (more.length) found[file.path] = more;
  }
  return found;
}

const input = JSON.parse(fs.readFileSync(0, 'utf8'));
const answer = { components: {}, problems: {}, lost: {}, changed: {}, formatted: await formatted(require, input.files), typed: {} };
for (const file of input.files) {
  answer.components[file.path] = components(parse(file.path, plain(file.path, file.old)));
  if (file.new === undefined || file.new === null) continue;
  answer.problems[file.path] = problems(file);
  answer.lost[file.path] = lost(file.path, file.old, file.new);
  answer.changed[file.path] = changed(file.path, file.old, file.new);
}
const scripts = input.files.filter((file) => /\.tsx?$/.test(file.path));
if (scripts.length) answer.typed = typed(scripts);
process.stdout.write(JSON.stringify(answer));
