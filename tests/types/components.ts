import path from 'node:path';
import {
  createLanguage,
  createVueLanguagePlugin,
  forEachEmbeddedCode,
  shouldReportDiagnostics,
  SourceMap,
  type CodeInformation,
  type VueCompilerOptions,
} from '@vue/language-core';
import ts from 'typescript';

/** begins the name of the part that holds script and template; its language follows */
const SCRIPT = 'script_';

/** A single-file component as the module that a compiler of plain TypeScript can check, and the way back from it. */
export interface ComponentModule {
  /** what the module's file is called beside the component's: `.ts` behind its name */
  readonly extension: string;
  readonly text: string;
  /** Where in the component a message about the module belongs (lines and columns from 1), or null where it is about what was only added. */
  place(line: number, column: number, number: number): { line: number; column: number } | null;
}

/**
 * Turns components into modules as the framework's own language tools do for an editor.
 * @param options of the compiler and of the framework, as their configuration says
 */
export function componentModules(
  options: ts.CompilerOptions,
  vueOptions: VueCompilerOptions,
): (file: string, source: string) => ComponentModule {
  const plugin = createVueLanguagePlugin<string>(ts, options, vueOptions, (id) => id);
  const language = createLanguage<string>([plugin], new Map(), () => undefined);
  return (file, source) => {
    const root = language.scripts.set(file, ts.ScriptSnapshot.fromString(source), 'vue')?.generated?.root;
    const code = root && [...forEachEmbeddedCode(root)].find(({ id }) => id.startsWith(SCRIPT));
    if (!code) throw new Error(`${file} is no component`);
    const made = code.snapshot.getText(0, code.snapshot.getLength());
    // helpers of types are named from where the component lies; the module lies elsewhere
    const text = made.replace(/^(\/\/\/ <reference types=")(\.[^"]*)(?=")/gm, (_whole: string, head: string, to: string) => `${head}${path.resolve(path.dirname(file), to)}`); // prettier-ignore
    const shift = text.length - made.length;
    const ways = new SourceMap<CodeInformation>(code.mappings);
    const starts = lineStarts(text);
    const sourceStarts = lineStarts(source);
    return {
      extension: `.${code.id.slice(SCRIPT.length)}`,
      text,
      place: (line, column, number) => {
        const at = (starts[line - 1] ?? 0) + column - 1 - shift;
        for (const [offset] of ways.toSourceLocation(at, (data) => shouldReportDiagnostics(data, undefined, String(number)))) {
          const index = sourceStarts.findLastIndex((start) => start <= offset);
          return { line: index + 1, column: offset - (sourceStarts[index] ?? 0) + 1 };
        }
        return null;
      },
    };
  };
}

const lineStarts = (text: string): number[] => [0, ...Array.from(text.matchAll(/\n/g), ({ index }) => index + 1)];
