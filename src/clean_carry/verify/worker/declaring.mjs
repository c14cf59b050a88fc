// The modules that declare the classes of a script.
import fs from 'node:fs/promises';
import path from 'node:path';

const DECLARED = /\bdeclarations\s*:\s*\[([^\]]*)\]/;
const ALONE = /\bstandalone\s*:\s*false\b/;

/** The scripts in the folder of a file, and in those above it up to the project's, whose modules declare a class of it. */
export async function declaring(file, text) {
  if (!file.endsWith('.ts') || !ALONE.test(text)) return [];
  const names = [...text.matchAll(/\bclass\s+([\w$]+)/g)].map(([, name]) => name);
  const found = [];
  for (let folder = path.dirname(file); ; folder = path.dirname(folder)) {
    const here = await fs.readdir(folder).catch(() => []);
    for (const name of here.filter((one) => one.endsWith('module.ts')).sort()) {
      const place = path.join(folder, name);
      const [, declared] = DECLARED.exec(await fs.readFile(place, 'utf8')) ?? [];
      const listed = (declared ?? '').match(/[\w$]+/g) ?? [];
      if (names.some((one) => listed.includes(one))) found.push(place);
    }
    if (here.includes('package.json') || folder === path.dirname(folder)) return found;
  }
}
