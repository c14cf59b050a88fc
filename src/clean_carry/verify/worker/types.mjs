// What a project's own TypeScript compiler says of its files, with some of them as they are and as they would be.
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

const { folder, files } = JSON.parse(fs.readFileSync(0, 'utf8'));
const ts = createRequire(path.join(folder, 'package.json'))('typescript');

/** The options and files of the project: those its tsconfig.json names, else what an editor takes for granted. */
function settings() {
  const place = ts.findConfigFile(folder, ts.sys.fileExists);
  if (!place) return { options: { ...ts.getDefaultCompilerOptions(), allowJs: false, strict: true, jsx: ts.JsxEmit.Preserve, esModuleInterop: true, skipLibCheck: true }, fileNames: [] };
  return ts.parseJsonConfigFileContent(ts.readConfigFile(place, ts.sys.readFile).config, ts.sys, path.dirname(place));
}

const { options, fileNames } = settings();
const meant = files.map((file) => ({ ...file, path: ts.sys.resolvePath(file.path) }));
const names = new Set([...fileNames.map((name) => ts.sys.resolvePath(name)), ...meant.map((file) => file.path)]);
const texts = new Map();
let version = 1;
const text = (name) => texts.get(name) ?? (fs.existsSync(name) ? fs.readFileSync(name, 'utf8') : undefined);
const service = ts.createLanguageService({
  getScriptFileNames: () => [...names],
  getScriptVersion: (name) => (texts.has(name) ? `${version}` : '0'),
  getScriptSnapshot: (name) => { const found = text(name); return found === undefined ? undefined : ts.ScriptSnapshot.fromString(found); },
  getCurrentDirectory: () => folder,
  getCompilationSettings: () => ({ ...options, noEmit: true }),
  getDefaultLibFileName: (given) => ts.getDefaultLibFilePath(given),
  fileExists: ts.sys.fileExists, readFile: ts.sys.readFile, readDirectory: ts.sys.readDirectory,
  directoryExists: ts.sys.directoryExists, getDirectories: ts.sys.getDirectories, realpath: ts.sys.realpath,
});

/** What is wrong with each of the project's own files. */
function errors() {
  const program = service.getProgram();
  const own = program.getSourceFiles().filter((file) => names.has(file.fileName));
  return own.flatMap((file) => [...service.getSyntacticDiagnostics(file.fileName), ...service.getSemanticDiagnostics(file.fileName)].map((found) => {
    const { line, character } = file.getLineAndCharacterOfPosition(found.start ?? 0);
    return { file: file.fileName, line: line + 1, column: character + 1, code: `TS${found.code}`, message: ts.flattenDiagnosticMessageText(found.messageText, ' ') };
  }));
}

const key = (found) => `${found.file}\n${found.message}`;
const before = new Map();
for (const found of errors()) before.set(key(found), (before.get(key(found)) ?? 0) + 1);
for (const file of meant) texts.set(file.path, file.text);
version += 1;
const added = errors().filter((found) => {
  const known = before.get(key(found)) ?? 0;
  before.set(key(found), known - 1);
  return known <= 0;
});
process.stdout.write(JSON.stringify({ version: ts.version, added }));
