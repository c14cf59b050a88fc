// Compiles single files (template, script, style) with the runtime's own compiler. Runs nothing of them.
import { createHash } from 'node:crypto';
import fs from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';

let TraceMap;
let originalPositionFor;

/** A compiler over the runtime installed in `runtime`; `css()` gives the styles met so far, `module(path)` one whose names are local. */
export function compiler(runtime, workbench, styles) {
  const require = createRequire(path.join(runtime, 'package.json'));
  const sfc = require('@vue/compiler-sfc');
  ({ TraceMap, originalPositionFor } = createRequire(path.join(workbench, 'package.json'))('@jridgewell/trace-mapping'));
  const parts = require('vue/package.json').version.startsWith('2.') ? older(sfc) : current(sfc);
  const sheets = new Map();
  const modules = new Map();

  async function compile(filename, source) {
    const id = createHash('sha256').update(path.basename(filename)).digest('hex').slice(0, 8);
    const descriptor = parts.parse(filename, source);
    for (const block of [descriptor.template, descriptor.script]) {
      if (block?.src) throw new Error(`<${block.type} src> is not compiled`);
    }
    if (descriptor.template?.lang && descriptor.template.lang !== 'html') throw new Error(`a template in ${descriptor.template.lang} is not compiled`);
    const scoped = descriptor.styles.some((style) => style.scoped);
    const script = parts.script(descriptor, id, scoped);
    let code = script?.code ?? 'const __component__ = {};';
    const pieces = [{ from: 1, line: script ? placed(source, script) : () => 0 }];
    if (descriptor.template && !script?.drawn) {
      const template = parts.template(descriptor, filename, id, scoped, script?.bindings);
      pieces.unshift({ from: code.split('\n').length + 1, line: traced(template.map) });
      code += `\n${template.code}`;
    }
    if (scoped) code += `\n__component__.${parts.scope} = 'data-v-${id}';`;
    const own = [];
    let imports = '';
    for (const [at, style] of descriptor.styles.entries()) {
      const file = style.src ? styles.placed(filename, style.src) : filename;
      const text = style.src ? await fs.readFile(file, 'utf8') : style.content;
      if (style.src) styles.inputs.add(file);
      const plain = await styles.plain(file, text, style.lang ?? (style.src ? path.extname(file).slice(1) : 'css'));
      const made = sfc.compileStyle({ source: plain, filename, id: `data-v-${id}`, scoped: Boolean(style.scoped) });
      if (made.errors.length) throw made.errors[0];
      if (!style.module) {
        own.push(made.code);
        continue;
      }
      const name = `${filename}?module=${at}`;
      modules.set(name, made.code);
      imports += `import __style${at} from ${JSON.stringify(name)};\n`;
      code += `\n${parts.locals(style.module === true ? '$style' : style.module, `__style${at}`)}`;
    }
    sheets.set(filename, own.join('\n'));
    // Imports are lifted wherever they stand; behind the code they move no line of it.
    code += `\nexport default __component__;\n${imports}`;
    const line = ({ line: at, column }) => {
      const piece = pieces.find(({ from }) => at >= from);
      return piece.line(at - piece.from + 1, column);
    };
    const markup = descriptor.template && lines(source, parts.range(descriptor.template));
    const drawn = (at) => line(at) === 0 || Boolean(markup && line(at) >= markup[0] && line(at) <= markup[1]);
    return { contents: code, line, drawn, loader: descriptor.script?.lang === 'tsx' || descriptor.scriptSetup?.lang === 'tsx' ? 'tsx' : 'ts' };
  }

  return { compile, css: () => [...sheets.values()].join('\n'), module: (name) => modules.get(name) };
}

/** The first and the last line of a range of the file. */
function lines(source, range) {
  return range.map((at) => source.slice(0, at).split('\n').length);
}

/** Lines of the file for places in a script: those of an object are where they were, those of statements are traced. */
function placed(source, { map, start, length }) {
  if (map) return traced(map);
  const [first] = lines(source, [start]);
  return (line) => (line <= length ? line + first - 1 : 0);
}

/** Lines of the file by a source map; 0 where nothing stands there. */
function traced(map) {
  if (!map) return () => 0;
  const tracer = new TraceMap(map);
  return (line, column) => originalPositionFor(tracer, { line, column: Math.max(0, column) }).line ?? 0;
}

/** Version 3: the template of top-level statements is compiled into them. */
function current(sfc) {
  return {
    scope: '__scopeId',
    locals: (name, from) => `(__component__.__cssModules ??= {})[${JSON.stringify(name)}] = ${from};`,
    range: ({ loc }) => [loc.start.offset, loc.end.offset],
    parse(filename, source) {
      const { descriptor, errors } = sfc.parse(source, { filename });
      if (errors.length) throw errors[0];
      return descriptor;
    },
    script(descriptor, id, scoped) {
      if (!descriptor.script && !descriptor.scriptSetup) return null;
      const drawn = Boolean(descriptor.scriptSetup);
      const { content, bindings, map } = sfc.compileScript(descriptor, {
        id, inlineTemplate: drawn, genDefaultAs: '__component__', templateOptions: { scoped },
      });
      const { loc } = descriptor.script ?? descriptor.scriptSetup;
      return { code: content, bindings, drawn, map: drawn ? map : null, start: loc.start.offset, length: loc.source.split('\n').length };
    },
    template(descriptor, filename, id, scoped, bindings) {
      const found = sfc.compileTemplate({
        id, scoped, filename, source: descriptor.template.content, inMap: descriptor.template.map,
        compilerOptions: { scopeId: scoped ? `data-v-${id}` : undefined, bindingMetadata: bindings },
      });
      if (found.errors.length) throw found.errors[0];
      return { code: `${found.code.replace('export function render', 'function render')}\n__component__.render = render;`, map: found.map };
    },
  };
}

/** Version 2.7: a template is always compiled beside its script. */
function older(sfc) {
  return {
    scope: '_scopeId',
    locals: (name, from) => `__component__.beforeCreate = [].concat(__component__.beforeCreate ?? [], function () { this[${JSON.stringify(name)}] = ${from}; });`,
    range: ({ start, end }) => [start, end],
    parse: (filename, source) => sfc.parse({ source, filename, sourceMap: false }),
    script(descriptor, id) {
      if (!descriptor.script && !descriptor.scriptSetup) return null;
      const { content, bindings, map } = sfc.compileScript(descriptor, { id, isProd: true });
      const { start, content: text } = descriptor.script ?? descriptor.scriptSetup;
      const code = sfc.rewriteDefault(content, '__component__', ['typescript']);
      return { code, bindings, map: descriptor.scriptSetup ? map : null, start, length: text.split('\n').length };
    },
    template(descriptor, filename, id, scoped, bindings) {
      const functional = 'functional' in descriptor.template.attrs;
      const found = sfc.compileTemplate({
        source: descriptor.template.content, filename, bindings, isFunctional: functional, isProduction: true, prettify: false,
      });
      if (found.errors.length) throw new Error(String(found.errors[0].msg ?? found.errors[0]));
      const options = '__component__.render = render;\n__component__.staticRenderFns = staticRenderFns;';
      return { code: `${found.code}\n${options}${functional ? '\n__component__.functional = true;' : ''}`, map: null };
    },
  };
}
