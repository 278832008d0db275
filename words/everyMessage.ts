import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parse as parseProgram } from '@babel/parser';
import type { Node as BabelNode } from '@babel/types';
import { parse } from '@vue/compiler-dom';
import { parse as parseComponent } from '@vue/compiler-sfc';
import { templateWords } from './templateWords.js';

/** Every English message of the product, with a place where it stands: what a file of another language has to say anew. */

const filesOf = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((each) => {
    const name = path.join(folder, each.name);
    return each.isDirectory() ? filesOf(name) : [name];
  });
const isSource = (name: string): boolean => /\.(vue|ts)$/.test(name) && !/\.(test|d)\.ts$/.test(name);
/** calls, fields of files and commands of the server speak English alone: programs read them */
const SPOKEN_BY_PROGRAMS = /core\/edge\/calc\/|core\/bench\/trial\/|server\/operations\/|server\/base\/database\/|benchmarks\//;

export function everyMessage(root: string): Map<string, string> {
  const found = new Map<string, string>();
  const add = (message: string, place: string): void => {
    if (!found.has(message)) found.set(message, place);
  };
  for (const floor of ['core', 'server', 'web'])
    for (const name of filesOf(path.join(root, floor)).filter(isSource)) {
      const place = path.relative(root, name);
      if (SPOKEN_BY_PROGRAMS.test(place)) continue;
      const source = readFileSync(name, 'utf8');
      if (name.endsWith('.ts')) ofProgram(source, (message) => add(message, place));
      else ofComponent(source, (message) => add(message, place));
    }
  return found;
}

function ofComponent(source: string, add: (message: string) => void): void {
  const { descriptor } = parseComponent(source);
  if (descriptor.template) void templateWords(add)(parse(descriptor.template.content), undefined as never);
  for (const script of [descriptor.scriptSetup, descriptor.script]) if (script) ofProgram(script.content, add);
}

const IS_CONSTANT = /^[A-Z][A-Z0-9_]+$/;
/** properties that hold words in a constant table */
const WORDS = new Set(
  'label title words hint small big short text name plain question say how why meaning consequence caution lead todo what source unit empty note risk'.split(
    ' ',
  ),
);
const IS_ADDRESS = /^(GET|PUT|POST|DELETE) \//;
const looksLikeWords = (text: string): boolean => /\p{L}{2,}/u.test(text) && (/\s/.test(text) || /^\p{Lu}\p{Ll}/u.test(text));

/** What is said outright in a program, and what stands in its constant tables. */
export function ofProgram(source: string, add: (message: string) => void): void {
  const walk = (node: BabelNode, table: boolean, key: string): void => {
    if (node.type === 'CallExpression' && node.callee.type === 'Identifier' && node.callee.name === 'say') {
      for (const text of textsOf(node.arguments[0])) add(text);
    }
    if (node.type === 'VariableDeclarator' && node.id.type === 'Identifier' && node.init) {
      const typed = node.id.typeAnnotation ? source.slice(node.id.typeAnnotation.start ?? 0, node.id.typeAnnotation.end ?? 0) : '';
      const isTable = IS_CONSTANT.test(node.id.name);
      return walk(node.init, isTable, isTable && /\bMessages</.test(typed) ? 'words' : '');
    }
    // headings of tables that come from elsewhere, and addresses, are read by programs
    if (key === 'headings') return;
    if (
      table &&
      node.type === 'StringLiteral' &&
      !IS_ADDRESS.test(node.value) &&
      (WORDS.has(key) ? /\p{L}{2,}/u.test(node.value) : looksLikeWords(node.value))
    )
      add(node.value);
    for (const [name, child] of Object.entries(node)) {
      if (name === 'loc' || name === 'leadingComments' || name === 'trailingComments' || name === 'typeAnnotation') continue;
      if (node.type === 'ObjectProperty' && name === 'key') continue;
      const own = node.type === 'ObjectProperty' && node.key.type === 'Identifier' && !table ? '' : keyIn(node, key);
      for (const each of Array.isArray(child) ? (child as unknown[]) : [child]) if (isNode(each)) walk(each, table, own);
    }
  };
  walk(parseProgram(source, { sourceType: 'module', plugins: ['typescript'] }).program, false, '');
}

/** `key` of the nearest property whose name says that it holds words; a whole table of messages holds nothing else. */
function keyIn(node: BabelNode, key: string): string {
  if (node.type !== 'ObjectProperty' || key === 'words') return key;
  return node.key.type === 'Identifier' ? node.key.name : node.key.type === 'StringLiteral' ? node.key.value : key;
}
const isNode = (value: unknown): value is BabelNode =>
  typeof value === 'object' && value !== null && typeof (value as { type?: unknown }).type === 'string';
function textsOf(node: unknown): string[] {
  if (!isNode(node)) return [];
  if (node.type === 'StringLiteral') return [node.value];
  if (node.type === 'TemplateLiteral' && node.expressions.length === 0) return [node.quasis[0]?.value.cooked ?? ''];
  if (node.type === 'ConditionalExpression') return [...textsOf(node.consequent), ...textsOf(node.alternate)];
  return [];
}
