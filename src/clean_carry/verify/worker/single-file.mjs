// Compiles single files (template, script, style) with the runtime's own compiler. Runs nothing of them.
import { createHash } from 'node:crypto';
import { createRequire } from 'node:module';
import path from 'node:path';

/** A compiler over the runtime installed in `runtime`; `css()` gives the styles met so far. */
export function compiler(runtime) {
  const require = createRequire(path.join(runtime, 'package.json'));
  const sfc = require('@vue/compiler-sfc');
  const parts = require('vue/package.json').version.startsWith('2.') ? older(sfc) : current(sfc);
  let styles = '';

  function compile(filename, source) {
    const id = createHash('sha256').update(path.basename(filename)).digest('hex').slice(0, 8);
    const descriptor = parts.parse(filename, source);
    for (const block of [descriptor.template, descriptor.script]) {
      if (block?.src) throw new Error(`<${block.type} src> is not compiled`);
    }
    if (descriptor.template?.lang && descriptor.template.lang !== 'html') throw new Error(`a template in ${descriptor.template.lang} is not compiled`);
    const scoped = descriptor.styles.some((style) => style.scoped);
    const script = parts.script(descriptor, id, scoped);
    let code = script?.code ?? 'const __component__ = {};';
    if (descriptor.template && !script?.drawn) code += `\n${parts.template(descriptor, filename, id, scoped, script?.bindings)}`;
    if (scoped) code += `\n__component__.${parts.scope} = 'data-v-${id}';`;
    code += '\nexport default __component__;';
    for (const style of descriptor.styles) {
      // What a preprocessor makes is the same on both sides.
      if (style.src || (style.lang && style.lang !== 'css')) continue;
      styles += sfc.compileStyle({ source: style.content, filename, id: `data-v-${id}`, scoped: Boolean(style.scoped) }).code;
    }
    return { contents: code, loader: descriptor.script?.lang === 'tsx' || descriptor.scriptSetup?.lang === 'tsx' ? 'tsx' : 'ts' };
  }

  return { compile, css: () => styles };
}

/** Version 3: the template of top-level statements is compiled into them. */
function current(sfc) {
  return {
    scope: '__scopeId',
    parse(filename, source) {
      const { descriptor, errors } = sfc.parse(source, { filename });
      if (errors.length) throw errors[0];
      return descriptor;
    },
    script(descriptor, id, scoped) {
      if (!descriptor.script && !descriptor.scriptSetup) return null;
      const drawn = Boolean(descriptor.scriptSetup);
      const { content, bindings } = sfc.compileScript(descriptor, {
        id, inlineTemplate: drawn, genDefaultAs: '__component__', templateOptions: { scoped },
      });
      return { code: content, bindings, drawn };
    },
    template(descriptor, filename, id, scoped, bindings) {
      const found = sfc.compileTemplate({
        id, scoped, filename, source: descriptor.template.content,
        compilerOptions: { scopeId: scoped ? `data-v-${id}` : undefined, bindingMetadata: bindings },
      });
      if (found.errors.length) throw found.errors[0];
      return `${found.code.replace('export function render', 'function render')}\n__component__.render = render;`;
    },
  };
}

/** Version 2.7: a template is always compiled beside its script. */
function older(sfc) {
  return {
    scope: '_scopeId',
    parse: (filename, source) => sfc.parse({ source, filename, sourceMap: false }),
    script(descriptor, id) {
      if (!descriptor.script && !descriptor.scriptSetup) return null;
      const { content, bindings } = sfc.compileScript(descriptor, { id, isProd: true });
      return { code: sfc.rewriteDefault(content, '__component__', ['typescript']), bindings };
    },
    template(descriptor, filename, id, scoped, bindings) {
      const functional = 'functional' in descriptor.template.attrs;
      const found = sfc.compileTemplate({
        source: descriptor.template.content, filename, bindings, isFunctional: functional, isProduction: true, prettify: false,
      });
      if (found.errors.length) throw new Error(String(found.errors[0].msg ?? found.errors[0]));
      const options = '__component__.render = render;\n__component__.staticRenderFns = staticRenderFns;';
      return `${found.code}\n${options}${functional ? '\n__component__.functional = true;' : ''}`;
    },
  };
}
