// Independent checks of single files, by the runtime's own compiler, the TypeScript compiler and a linter.
// node checks-single.mjs TOOLS RUNTIME WORKBENCH; input: {files: [{path, old, new}]}; output: {path: {problems, lost, kept, formatted}}; `formatted`
// is there where the script was clean under a formatter.
import fs from 'node:fs';
import path from 'node:path';
import { createRequire } from 'node:module';
import { formatted } from './formatted.mjs';
import { compiler } from '../src/clean_carry/verify/worker/single-file.mjs';
import { Styles } from '../src/clean_carry/verify/worker/styles.mjs';

const [tools, runtime, workbench] = process.argv.slice(2);
const require = createRequire(path.join(tools, 'package.json'));
const ts = require('typescript');
const { Linter } = require('eslint');
const globals = 'window document navigator setTimeout clearTimeout setInterval clearInterval requestAnimationFrame cancelAnimationFrame console process require module fetch FileReader FormData XMLHttpRequest File Blob Image URL CustomEvent Event MouseEvent KeyboardEvent HTMLElement Element Node getComputedStyle location history global globalThis performance ResizeObserver IntersectionObserver MutationObserver matchMedia isNaN event';
const config = {
  linterOptions: { reportUnusedDisableDirectives: 'off' },
  languageOptions: { ecmaVersion: 'latest', sourceType: 'module', globals: Object.fromEntries(globals.split(' ').map((n) => [n, 'readonly'])) },
  rules: {
    'no-undef': 2, 'no-redeclare': 2, 'no-const-assign': 2, 'no-dupe-keys': 2, 'no-dupe-args': 2, 'no-func-assign': 2,
    'no-import-assign': 2, 'no-unreachable': 2, 'no-this-before-super': 2, 'no-unsafe-finally': 2,
  },
};
const linter = new Linter({ configType: 'flat' });

/** What a file compiles to, as plain JavaScript; or why it does not. */
async function compiled(file, text) {
  try {
    const { contents } = await compiler(runtime, workbench, new Styles({})).compile(file, text);
    return { code: ts.transpileModule(contents, { compilerOptions: { target: 'esnext', module: 'esnext', jsx: 'preserve' } }).outputText };
  } catch (error) {
    return { error: String(error.message ?? error).split('\n')[0] };
  }
}

const complaints = (code) => linter.verify(code, [config], { filename: 'component.js' }).map((m) => `${m.ruleId ?? 'syntax'}: ${m.message}`);

/** The comments of scripts and templates, each as it is written. */
function comments(text) {
  const found = [];
  for (const [, script] of text.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g)) {
    const scanner = ts.createScanner(ts.ScriptTarget.Latest, false, ts.LanguageVariant.Standard, script);
    const file = ts.createSourceFile('x.ts', script, ts.ScriptTarget.Latest, true, ts.ScriptKind.TS);
    const seen = new Set();
    const visit = (node) => {
      for (const range of [...(ts.getLeadingCommentRanges(script, node.getFullStart()) ?? []), ...(ts.getTrailingCommentRanges(script, node.getEnd()) ?? [])]) {
        if (!seen.has(range.pos)) {
          seen.add(range.pos);
          found.push(script.slice(range.pos, range.end).replace(/\s+/g, ' '));
        }
      }
      node.getChildren(file).forEach(visit);
    };
    visit(file);
    scanner.setText('');
  }
  return found;
}

const blocks = (text, tag) => [...text.matchAll(new RegExp(`^<${tag}[\\s\\S]*?^</${tag}>`, 'gm'))].map((m) => m[0]);

/** The scripts of a file, one after the other, each moved to the margin. */
function scripts(text) {
  return [...text.matchAll(/<script[^>]*>\n([\s\S]*?)<\/script>/g)].map(([, script]) => {
    const margin = Math.min(...script.split('\n').filter((l) => l.trim()).map((l) => l.match(/^ */)[0].length));
    return script.split('\n').map((l) => l.slice(Number.isFinite(margin) ? margin : 0)).join('\n').trimEnd() + '\n';
  });
}

/** Whether scripts that were clean under a formatter are, by the path of their file. */
async function stillFormatted(files) {
  const parts = [];
  for (const { path: file, old, new: text } of files) {
    const [before] = scripts(old);
    const kind = /<script[^>]*lang="ts/.test(old) ? 'ts' : 'js';
    for (const [number, after] of scripts(text).entries()) if (before && after.trim()) parts.push({ file, path: `${file}.${number}.${kind}`, old: before, new: after });
  }
  const found = {};
  for (const [name, clean] of Object.entries(await formatted(require, parts))) {
    const { file } = parts.find((part) => part.path === name);
    found[file] = clean && (found[file] ?? true);
  }
  return found;
}

const { files } = JSON.parse(fs.readFileSync(0, 'utf8'));
const answer = {};
const still = await stillFormatted(files);
for (const { path: file, old, new: text } of files) {
  const one = { problems: [], lost: [], kept: true };
  const before = await compiled(file, old);
  const after = await compiled(file, text);
  if (after.error && !before.error) one.problems.push(`does not compile: ${after.error}`);
  if (after.code && before.code) {
    const known = complaints(before.code);
    for (const c of complaints(after.code)) {
      const at = known.indexOf(c);
      if (at >= 0) known.splice(at, 1);
      else one.problems.push(c);
    }
  }
  const there = comments(text);
  for (const comment of comments(old)) {
    const at = there.indexOf(comment);
    if (at >= 0) there.splice(at, 1);
    else one.lost.push(comment);
  }
  one.kept = ['template', 'style'].every((tag) => blocks(old, tag).join('\n') === blocks(text, tag).join('\n'));
  one.formatted = still[file] ?? null;
  answer[file] = one;
}
process.stdout.write(JSON.stringify(answer));
