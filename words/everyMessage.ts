import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parse as parseProgram } from '@babel/parser';
import type { Node as BabelNode, VariableDeclarator } from '@babel/types';
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
const SPOKEN_BY_PROGRAMS =
  /core\/edge\/calc\/|core\/bench\/trial\/|importing\/(words|figures)\.ts|generatedLoops|usePush|server\/operations\/|server\/base\/(?:database|pdf)\/|benchmarks\//;

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

export function ofComponent(source: string, add: (message: string) => void): void {
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
const IS_NAMED_WORDS = /(^|_)(WORDS|STATES|KINDS|LABELS|NAMES|ROLES|PARTS|DEVICES|EACH|SKILLS|REASONS|KITS|WHYS)$/;
/** `{ a: 'words', b: 'more words' }`, and nothing else in it */
function holdsTexts(init: BabelNode): boolean {
  const table = init.type === 'TSAsExpression' || init.type === 'TSSatisfiesExpression' ? init.expression : init;
  return (
    table.type === 'ObjectExpression' &&
    table.properties.every((each) => each.type === 'ObjectProperty' && each.value.type === 'StringLiteral')
  );
}
const IS_ADDRESS = /^(GET|PUT|POST|DELETE) \//;
const looksLikeWords = (text: string): boolean => /\p{L}{2,}/u.test(text) && (/\s/.test(text) || /^\p{Lu}\p{Ll}/u.test(text));

/** What is said outright in a program, and what stands in its constant tables. */
export function ofProgram(source: string, add: (message: string) => void): void {
  const walk = (node: BabelNode, table: boolean, key: string): void => {
    if (node.type === 'CallExpression' && node.callee.type === 'Identifier' && node.callee.name === 'say') {
      for (const text of textsOf(node.arguments[0])) add(text);
    }
    if (node.type === 'VariableDeclarator' && node.id.type === 'Identifier' && node.init) {
      const isTable = IS_CONSTANT.test(node.id.name);
      return walk(node.init, isTable, isTable && isAllWords(node, source) ? 'words' : '');
    }
    // headings of tables that come from elsewhere, and addresses, are read by programs
    if (key === 'headings') return;
    if (table && node.type === 'StringLiteral' && isRead(node.value, key)) add(node.value);
    const own = table ? keyIn(node, key) : '';
    for (const each of childrenOf(node)) walk(each, table, own);
  };
  walk(parseProgram(source, { sourceType: 'module', plugins: ['typescript'] }).program, false, '');
}

/** A table of words by its name or by its type holds nothing else. */
function isAllWords({ id, init }: VariableDeclarator, source: string): boolean {
  if (id.type !== 'Identifier' || !init) return false;
  const typed = id.typeAnnotation ? source.slice(id.typeAnnotation.start ?? 0, id.typeAnnotation.end ?? 0) : '';
  return /\bMessages<|, string>>?$/.test(typed) || (IS_NAMED_WORDS.test(id.name) && holdsTexts(init));
}

/** @param key of the property that holds the text */
const isRead = (text: string, key: string): boolean =>
  !IS_ADDRESS.test(text) && !text.startsWith('#') && (WORDS.has(key) ? /\p{L}{2,}/u.test(text) : looksLikeWords(text));

const NOT_WALKED = new Set(['loc', 'leadingComments', 'trailingComments', 'typeAnnotation']);
const childrenOf = (node: BabelNode): BabelNode[] =>
  Object.entries(node)
    .filter(([name]) => !NOT_WALKED.has(name) && !(node.type === 'ObjectProperty' && name === 'key'))
    .flatMap(([, child]) => (Array.isArray(child) ? (child as unknown[]) : [child]))
    .filter(isNode);

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
