// Compiles classes with decorators with the runtime's own compiler, for a template that is compiled where it runs.
import fs from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const DECORATED = /@(Component|Directive|Pipe|Injectable|NgModule)\s*\(/;

/** Whether a script holds classes that the runtime compiles. */
export const isDecorated = (file, text) => file.endsWith('.ts') && text.includes('@angular/core') && (DECORATED.test(text) || /\bdecorated\b/.test(text));

/** A compiler over the runtime installed in `runtime`. `extra` are texts of files that are not on the disk. */
export function compiler(runtime, workbench, styles, extra = {}) {
  const require = createRequire(path.join(runtime, 'package.json'));
  const ts = require('typescript');
  const { TraceMap, originalPositionFor } = createRequire(path.join(workbench, 'package.json'))('@jridgewell/trace-mapping');
  let transforms = null;

  const read = async (file) => {
    styles.inputs.add(file);
    return extra[file] ?? fs.readFile(file, 'utf8');
  };

  /** The text with templates and styles of other files written into it; no line moves. */
  async function whole(file, text) {
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true);
    const edits = [];
    const visit = async (node) => {
      if (ts.isDecorator(node) && ts.isCallExpression(node.expression) && node.expression.expression.getText() === 'Component') {
        const [options] = node.expression.arguments;
        for (const one of options?.properties ?? []) await resource(file, one, edits);
      }
      const inside = [];
      ts.forEachChild(node, (child) => { inside.push(child); });
      for (const child of inside) await visit(child);
    };
    await visit(source);
    for (const { start, end, with: by } of edits.sort((a, b) => b.start - a.start)) text = text.slice(0, start) + by + text.slice(end);
    return text;
  }

  async function resource(file, property, edits) {
    const name = property.name?.getText();
    const value = property.initializer;
    const beside = async (literal) => {
      const place = path.resolve(path.dirname(file), literal.text);
      const found = await read(place);
      if (name === 'templateUrl') return JSON.stringify(found);
      return JSON.stringify(await styles.plain(place, found, path.extname(place).slice(1)));
    };
    const replaced = async (key, list) => {
      const lines = '\n'.repeat(property.getText().split('\n').length - 1);
      const texts = [];
      for (const literal of list) texts.push(await beside(literal));
      const given = key === 'template' ? texts[0] : `[${texts.join(', ')}]`;
      edits.push({ start: property.getStart(), end: property.getEnd(), with: `${key}: ${given}${lines}` });
    };
    if (name === 'templateUrl' && ts.isStringLiteralLike(value)) await replaced('template', [value]);
    if (name === 'styleUrl' && ts.isStringLiteralLike(value)) await replaced('styles', [value]);
    if (name === 'styleUrls' && ts.isArrayLiteralExpression(value)) await replaced('styles', value.elements);
  }

  /** {contents, line, loader}; throws the first fault that the language's compiler finds. */
  async function compile(file, given) {
    transforms ??= await import(pathToFileURL(require.resolve('@angular/compiler-cli')));
    const text = await whole(file, given);
    const options = {
      target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext, experimentalDecorators: true, useDefineForClassFields: false,
      noLib: true, noResolve: true, isolatedModules: true, sourceMap: true, types: [], importHelpers: true,
    };
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.ES2022, true);
    const made = {};
    const host = {
      getSourceFile: (name) => (name === file ? source : undefined), writeFile: (name, out) => { made[name.endsWith('.map') ? 'map' : 'code'] = out; },
      getDefaultLibFileName: () => 'lib.d.ts', useCaseSensitiveFileNames: () => true, getCanonicalFileName: (name) => name,
      getCurrentDirectory: () => '', getNewLine: () => '\n', fileExists: (name) => name === file, readFile: () => '',
    };
    const program = ts.createProgram([file], options, host);
    const [fault] = program.getSyntacticDiagnostics(source);
    if (fault) throw new Error(`${ts.flattenDiagnosticMessageText(fault.messageText, ' ')} (line ${source.getLineAndCharacterOfPosition(fault.start).line + 1})`);
    program.emit(undefined, undefined, undefined, false, { before: [transforms.angularJitApplicationTransform(program)] });
    const tracer = new TraceMap(made.map);
    const line = ({ line: at, column }) => originalPositionFor(tracer, { line: at, column: Math.max(0, column) }).line ?? 0;
    return { contents: made.code.replace(/\n\/\/# sourceMappingURL=.*\s*$/, '\n'), line, loader: 'js' };
  }

  return { compile };
}
