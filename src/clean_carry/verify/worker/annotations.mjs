// Scripts that say by their first comment that they are annotated with Flow types: the types are blanked, so
// that every place stays where it is. A field without a value only says what type something of the runtime's has.
import fs from 'node:fs/promises';

// What stands before the first statement: white space, comments, a directive.
const HEAD = /^\uFEFF?(?:\s|\/\*[^]*?\*\/|\/\/[^\n]*\n|(['"])use strict\1;?)*/;

export function annotations(require) {
  let strip = null;
  const plain = (text) => {
    if (!HEAD.exec(text)[0].includes('@flow')) return text;
    strip ??= require('flow-remove-types');
    return strip(text, { ignoreUninitializedFields: true }).toString();
  };
  return {
    plain,
    /** The same for files that others import. */
    plugin: {
      name: 'annotations',
      setup(build) {
        build.onLoad({ filter: /\.[cm]?jsx?$/ }, async (args) => {
          if (args.namespace !== 'file' || args.path.includes('/node_modules/')) return undefined;
          const text = await fs.readFile(args.path, 'utf8');
          const contents = plain(text);
          return contents === text ? undefined : { contents, loader: 'jsx' };
        });
      },
    },
  };
}
