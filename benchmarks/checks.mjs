// Independent checks of corpus files, by the TypeScript compiler and a linter.
// Input (JSON on standard input): {files: [{path, old, new}]}; output: {components, problems: {path: [text]}}.
import fs from 'node:fs';
import path from 'node:path';
import { createRequire } from 'node:module';

const require = createRequire(path.join(process.argv[2], 'package.json'));
const ts = require('typescript');
const { Linter } = require('eslint');
const react = require('eslint-plugin-react');
const hooks = require('eslint-plugin-react-hooks');

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

function problems({ path: name, old, new: text }) {
  const found = [];
  const file = parse(name, text);
  for (const d of file.parseDiagnostics ?? []) found.push(`does not parse: ${ts.flattenDiagnosticMessageText(d.messageText, ' ')}`);
  if (!/\.tsx?$/.test(name)) {
    const before = complaints(old);
    for (const c of complaints(text)) {
      const at = before.indexOf(c);
      if (at >= 0) before.splice(at, 1);
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

const input = JSON.parse(fs.readFileSync(0, 'utf8'));
const answer = { components: {}, problems: {} };
for (const file of input.files) {
  answer.components[file.path] = components(parse(file.path, file.old));
  if (file.new !== undefined && file.new !== null) answer.problems[file.path] = problems(file);
}
process.stdout.write(JSON.stringify(answer));
