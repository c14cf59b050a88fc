// Links the packages of the decorated-class runtime once, when it is installed: their classes are compiled in part,
// and would else be compiled to the end in every page.
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const [folder] = process.argv.slice(2);
const require = createRequire(path.join(folder, 'package.json'));
const cli = createRequire(require.resolve('@angular/compiler-cli/package.json'));
const babel = cli('@babel/core');
const { createEs2015LinkerPlugin } = await import(pathToFileURL(require.resolve('@angular/compiler-cli/linker/babel')));

const linker = createEs2015LinkerPlugin({
  linkerJitMode: true,
  sourceMapping: false,
  logger: { level: 1, debug() {}, info() {}, warn: console.warn, error: console.error },
  fileSystem: {
    resolve: (...parts) => path.posix.join(...parts), exists: fs.existsSync, dirname: path.dirname,
    relative: path.relative, readFile: (file) => fs.readFileSync(file, 'utf8'),
  },
});

for (const name of ['common', 'forms', 'platform-browser', 'core']) {
  const place = path.join(folder, 'node_modules', '@angular', name, 'fesm2022');
  for (const file of fs.readdirSync(place, { recursive: true }).map((one) => path.join(place, one))) {
    if (!file.endsWith('.mjs')) continue;
    const text = fs.readFileSync(file, 'utf8');
    // The runtime's own core declares what the linker writes.
    if (!text.includes('ɵɵngDeclare') || (name === 'core' && /function ɵɵngDeclare/.test(text))) continue;
    const { code } = babel.transformSync(text, {
      filename: file, configFile: false, babelrc: false, compact: false, sourceMaps: false, plugins: [linker],
    });
    fs.writeFileSync(file, code);
  }
}
