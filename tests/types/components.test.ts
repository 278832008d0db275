import path from 'node:path';
import { createParsedCommandLineByJson } from '@vue/language-core';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { componentModules } from './components.js';

const SOURCE = `<script setup lang="ts">
defineProps<{ level: number }>();
const mark: number = 'high';
</script>

<template>
  <p>{{ level }} {{ mark }}</p>
</template>
`;
const { options, vueOptions } = createParsedCommandLineByJson(ts, ts.sys, process.cwd(), {});
const module = componentModules(options, vueOptions)(path.resolve('web', 'level', 'LevelMark.vue'), SOURCE);

/** Line and column of a word in the module, as the compiler counts them. */
function at(word: string): [number, number] {
  const before = module.text.slice(0, module.text.lastIndexOf(word)).split('\n');
  return [before.length, (before.at(-1) as string).length + 1];
}

describe('a component checked as a module', () => {
  it('has its script as it was written, and its template as code', () => {
    expect(module.extension).toBe('.ts');
    expect(module.text).toContain("const mark: number = 'high';");
    expect(module.text).toMatch(/__VLS_ctx\.level/);
  });

  it('finds its helpers wherever it is written to', () => {
    const [, helpers = ''] = /<reference types="([^"]+template-helpers\.d\.ts)"/.exec(module.text) ?? [];
    expect(path.isAbsolute(helpers)).toBe(true);
    expect(ts.sys.fileExists(helpers)).toBe(true);
  });

  it('leads what is said of it back to script and template', () => {
    expect(module.place(...at('mark: number'), 2322)).toEqual({ line: 3, column: 7 });
    const [line, column] = at('__VLS_ctx.level');
    expect(module.place(line, column + '__VLS_ctx.'.length, 2339)).toEqual({ line: 7, column: 9 });
  });

  it('keeps to itself what is said of code that was only added', () => {
    expect(module.place(...at('export default'), 2322)).toBeNull();
  });
});
