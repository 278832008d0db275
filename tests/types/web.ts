import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { createParsedCommandLine } from '@vue/language-core';
import ts from 'typescript';
import { componentModules, type ComponentModule } from './components.js';

// The types of the web application, components and templates included, checked by the compiler in machine code. That one reads no
// single-file components, so they are written down as modules first (as vue-tsc does in memory, with the same tools; it takes three times
// as long), and what is said about a module is said of its component.

const root = process.cwd();
const config = path.join(root, 'tsconfig.web.json');
const web = path.join(root, 'web');
const modules = path.join(root, 'node_modules', '.cache', 'lavacrum-web-types');

function writeModules(): ReadonlyMap<string, { file: string; module: ComponentModule }> {
  const { options, vueOptions } = createParsedCommandLine(ts, ts.sys, config);
  const moduleOf = componentModules(options, vueOptions);
  const written = new Map<string, { file: string; module: ComponentModule }>();
  rmSync(modules, { recursive: true, force: true });
  for (const file of ts.sys.readDirectory(web, ['.vue'])) {
    const module = moduleOf(file, readFileSync(file, 'utf8'));
    const to = path.join(modules, `${path.relative(web, file)}${module.extension}`);
    mkdirSync(path.dirname(to), { recursive: true });
    writeFileSync(to, module.text);
    written.set(to, { file, module });
  }
  const up = path.relative(modules, root);
  const project = {
    extends: `${up}/tsconfig.web.json`,
    // a module is found where its component would be
    compilerOptions: { rootDirs: [`${up}/web`, '.'] },
    include: [`${up}/core`, `${up}/web`, './**/*'],
    exclude: [`${up}/core/**/*.test.ts`],
  };
  writeFileSync(path.join(modules, 'tsconfig.json'), JSON.stringify(project));
  return written;
}

const written = writeModules();
const compiler = path.join('node_modules', 'typescript-native', 'bin', 'tsc');
const run = spawnSync(compiler, ['-p', modules, '--noEmit', '--pretty', 'false', '--singleThreaded'], {
  cwd: root,
  encoding: 'utf8',
  maxBuffer: 2 ** 28,
});
let failures = 0;
let isShown = true;
for (const line of run.stdout.split('\n').filter(Boolean)) {
  const [, at = '', row, column, code, words] = /^(\S.*?)\((\d+),(\d+)\): error TS(\d+): (.*)$/.exec(line) ?? [];
  const known = written.get(path.resolve(root, at));
  const place = known?.module.place(Number(row), Number(column), Number(code));
  // further lines of a message are set in
  if (!line.startsWith(' ')) {
    isShown = !known || !!place;
    if (isShown) failures += 1;
  }
  if (!isShown) continue;
  process.stdout.write(known && place ? `${path.relative(root, known.file)}(${place.line},${place.column}): error TS${code}: ${words}\n` : `${line}\n`); // prettier-ignore
}
// a compiler that did not come to its end has found nothing
if (run.error || run.status === null || run.status > 2 || (run.status !== 0 && !run.stdout)) {
  process.stderr.write(`${run.error?.message ?? run.stderr}\n`);
  failures += 1;
}
process.exit(failures === 0 ? 0 : 1);
