// What a project's own TypeScript compiler says of its files, with some of them as they are and as they would be.
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { pathToFileURL } from 'node:url';

const { folder, files, beside } = JSON.parse(fs.readFileSync(0, 'utf8'));
const require = createRequire(path.join(folder, 'package.json'));
const ts = require('typescript');

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
const has = (name) => texts.has(name) || ts.sys.fileExists(name);
const text = (name) => texts.get(name) ?? (fs.existsSync(name) ? fs.readFileSync(name, 'utf8') : undefined);
const service = ts.createLanguageService({
  getScriptFileNames: () => [...names],
  getScriptVersion: (name) => (texts.has(name) ? `${version}` : '0'),
  getScriptSnapshot: (name) => { const found = text(name); return found === undefined ? undefined : ts.ScriptSnapshot.fromString(found); },
  getCurrentDirectory: () => folder,
  getCompilationSettings: () => ({ ...options, noEmit: true }),
  getDefaultLibFileName: (given) => ts.getDefaultLibFilePath(given),
  fileExists: has, readFile: text, readDirectory: ts.sys.readDirectory,
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

/** The compiler of decorated classes, where the project has it and a class is meant; null elsewhere. */
async function compiler() {
  if (!files.some((file) => file.text.includes('@Component('))) return null;
  try {
    return await import(pathToFileURL(require.resolve('@angular/compiler-cli')));
  } catch {
    return null;
  }
}

/** What is wrong with the templates of the project's classes, by the strict rules. */
async function templateErrors(ng) {
  const given = { ...options, noEmit: true, strictTemplates: true };
  const host = ng.createCompilerHost({ options: given });
  const read = host.getSourceFile.bind(host);
  host.fileExists = has;
  host.readFile = text;
  host.getSourceFile = (name, language, ...rest) => (texts.has(name) ? ts.createSourceFile(name, texts.get(name), language, true) : read(name, language, ...rest));
  const program = new ng.NgtscProgram([...names], given, host);
  await program.loadNgStructureAsync();
  const found = [...program.getNgStructuralDiagnostics(), ...program.getNgSemanticDiagnostics()];
  return found.filter((one) => one.file && one.category === ts.DiagnosticCategory.Error).map((one) => {
    const { line, character } = one.file.getLineAndCharacterOfPosition(one.start ?? 0);
    const message = ts.flattenDiagnosticMessageText(one.messageText, ' ').replace(/\s+/g, ' ');
    return { file: one.file.fileName, line: line + 1, column: character + 1, code: one.code < 0 ? `NG${-one.code % 990000}` : `TS${one.code}`, message };
  });
}

const ng = await compiler();
const all = async () => [...errors(), ...(ng ? await templateErrors(ng) : [])];
const key = (found) => `${found.file}\n${found.message}`;
const before = new Map();
for (const found of await all()) before.set(key(found), (before.get(key(found)) ?? 0) + 1);
for (const [name, given] of Object.entries(beside)) texts.set(ts.sys.resolvePath(name), given);
for (const file of meant) texts.set(file.path, file.text);
version += 1;
const added = (await all()).filter((found) => {
  const known = before.get(key(found)) ?? 0;
  before.set(key(found), known - 1);
  return known <= 0;
});
process.stdout.write(JSON.stringify({ version: ts.version, added }));
