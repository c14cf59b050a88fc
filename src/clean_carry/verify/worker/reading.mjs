// What the compiler of styles may read: files of the project, links resolved, and packages above it. The permission
// model of Node looks at the path that is asked for, not at what a link leads to.
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { syncBuiltinESMExports } from 'node:module';

const BY_PATH = [
  'readFile', 'open', 'stat', 'lstat', 'access', 'readdir', 'opendir', 'realpath', 'readlink', 'exists', 'createReadStream', 'statfs', 'watch', 'watchFile', 'cp', 'copyFile',
];
const PACKAGES = `${path.sep}node_modules${path.sep}`;

/** Hold reading to some folders, and to folders of packages. */
export function readOnlyIn(folders) {
  const { realpathSync } = fs;
  const real = folders.map((folder) => realpathSync(folder));
  const allowed = (place) => real.some((folder) => place === folder || place.startsWith(folder + path.sep)) || place.includes(PACKAGES) || place.endsWith('node_modules');
  const checked = (given) => {
    if (typeof given === 'number') return;
    const asked = path.resolve(given instanceof URL ? fileURLToPath(given) : String(given));
    let place = asked;
    try { place = realpathSync(asked); } catch { /* there is no such file: what it would be is what is asked for */ }
    // A folder above is asked about on the way to what stands in it.
    if (!allowed(place) && !real.some((folder) => folder.startsWith(place + path.sep) || place === path.sep)) {
      throw Object.assign(new Error(`ENOENT: outside of the project, '${asked}'`), { code: 'ENOENT', path: asked });
    }
  };
  const held = (owner, name, synchronous) => {
    const original = owner[name];
    if (typeof original !== 'function') return;
    const made = function heldToTheProject(given, ...rest) {
      try {
        checked(given);
      } catch (error) {
        if (synchronous) throw error;
        const last = rest.at(-1);
        if (typeof last !== 'function') return Promise.reject(error);
        last(error);
        return undefined;
      }
      return Reflect.apply(original, this, [given, ...rest]);
    };
    owner[name] = Object.assign(made, original);
  };
  for (const name of BY_PATH) {
    held(fs, `${name}Sync`, true);
    held(fs, name, name.startsWith('create') || name.startsWith('watch'));
    held(fs.promises, name, false);
  }
  syncBuiltinESMExports();
}
