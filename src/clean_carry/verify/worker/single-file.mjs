// Compiles a single file (template, script, style) with the runtime's own compiler. Runs nothing of it.
import { createHash } from 'node:crypto';
import { createRequire } from 'node:module';
import path from 'node:path';

/** A compiler over the runtime installed in `runtime`; `css()` gives the styles met so far. */
export function compiler(runtime) {
  const sfc = createRequire(path.join(runtime, 'package.json'))('@vue/compiler-sfc');
  let styles = '';

  function compile(filename, source) {
    const id = createHash('sha256').update(path.basename(filename)).digest('hex').slice(0, 8);
    const { descriptor, errors } = sfc.parse(source, { filename });
    if (errors.length) throw errors[0];
    const scoped = descriptor.styles.some((style) => style.scoped);
    let code = 'const __component__ = {};';
    let bindings;
    if (descriptor.script || descriptor.scriptSetup) {
      const script = sfc.compileScript(descriptor, {
        id,
        inlineTemplate: Boolean(descriptor.scriptSetup),
        genDefaultAs: '__component__',
        templateOptions: { scoped },
      });
      code = script.content;
      bindings = script.bindings;
    }
    if (descriptor.template && !descriptor.scriptSetup) {
      const template = sfc.compileTemplate({
        id,
        scoped,
        filename,
        source: descriptor.template.content,
        compilerOptions: { scopeId: scoped ? `data-v-${id}` : undefined, bindingMetadata: bindings },
      });
      if (template.errors.length) throw template.errors[0];
      code += `\n${template.code.replace('export function render', 'function render')}\n__component__.render = render;`;
    }
    if (scoped) code += `\n__component__.__scopeId = 'data-v-${id}';`;
    code += '\nexport default __component__;';
    for (const style of descriptor.styles) {
      styles += sfc.compileStyle({ source: style.content, filename, id: `data-v-${id}`, scoped: Boolean(style.scoped) }).code;
    }
    return { contents: code, loader: 'ts' };
  }

  return { compile, css: () => styles };
}
