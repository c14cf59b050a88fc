// Scripts annotated with Flow types, which say so by their first comment or look like it: the types are blanked,
// so that every place stays where it is. A field without a value only says what type something of the runtime's has.
import fs from 'node:fs/promises';

// What stands before the first statement: white space, comments, a directive.
const HEAD = /^\uFEFF?(?:\s|\/\*[^]*?\*\/|\/\/[^\n]*\n|(['"])use strict\1;?)*/;

// What no script without types can hold: a type behind the first parameter, or between all of them and the body.
const TYPE = '(?:any|mixed|void|string|number|boolean|Object|Function|Array<[^\\n]*>|React\\.\\w+|\\?\\w+)';
const LOOKS = new RegExp(`\\(\\s*\\w+\\??\\s*:\\s*${TYPE}|\\)\\s*:\\s*${TYPE}(?:\\[\\])*\\s*(?:\\{|=>)`);

export function annotations(require) {
  let strip = null;
  const plain = (text) => {
    const said = HEAD.exec(text)[0].includes('@flow');
    if (!said && !LOOKS.test(text)) return text;
    strip ??= require('flow-remove-types');
    try {
      return strip(text, { ignoreUninitializedFields: true, all: !said }).toString();
    } catch (error) {
      // What only looked like it says what is wrong with it where it is built.
      if (said) throw error;
      return text;
    }
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
