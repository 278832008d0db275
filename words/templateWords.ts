import { parseExpression } from '@babel/parser';
import type { Expression, Node as BabelNode, TemplateLiteral } from '@babel/types';
import {
  createSimpleExpression,
  NodeTypes,
  type AttributeNode,
  type DirectiveNode,
  type ElementNode,
  type InterpolationNode,
  type NodeTransform,
  type RootNode,
  type SimpleExpressionNode,
  type TemplateChildNode,
  type TextNode,
} from '@vue/compiler-dom';

/**
 * Sends every word of a page's template through the one room of words, `core/base/words`, when it is compiled: text, labels and titles, and
 * what an expression between braces says outright. A sentence with values in it becomes one message, `Held until {day}`, so that another
 * language may turn it around. What comes from a constant table (`JOB_KINDS[kind].label`) is looked up as well; what people typed never is.
 */

/** Attributes and properties that are read by people. */
const READ = new Set(
  'label title placeholder aria-label hint alt button no-data-text legend subtitle heading caption warning say how text note problem unit items labels empty what words lead small options'.split(
    ' ',
  ),
);
const HAS_WORDS = /\p{L}{2,}/u;
const IS_CONSTANT = /^[A-Z][A-Z0-9_]+$/;

/** Called with every message that a template holds. */
export type OnMessage = (message: string) => void;

export function templateWords(onMessage: OnMessage = () => undefined): NodeTransform {
  return (node) => {
    if (node.type === NodeTypes.ROOT) new Words(onMessage).within(node, new Set());
  };
}

class Words {
  constructor(private readonly onMessage: OnMessage) {}

  within(node: RootNode | ElementNode, constants: ReadonlySet<string>): void {
    const known = node.type === NodeTypes.ELEMENT ? withAliases(node, constants) : constants;
    if (node.type === NodeTypes.ELEMENT) {
      // code, drawings of keys and what somebody copies out stay as they are
      if (node.tag === 'code' || node.tag === 'style' || node.tag === 'script') return;
      node.props = node.props.map((prop) => this.prop(prop, known));
    }
    node.children = this.children(node.children, known);
    for (const child of node.children) if (child.type === NodeTypes.ELEMENT) this.within(child, known);
  }

  private prop(prop: AttributeNode | DirectiveNode, constants: ReadonlySet<string>): AttributeNode | DirectiveNode {
    if (prop.type === NodeTypes.ATTRIBUTE) {
      if (!READ.has(prop.name) || !prop.value || !HAS_WORDS.test(prop.value.content)) return prop;
      const exp = this.call(escaped(prop.value.content.replace(/\s+/g, ' ').trim()), []);
      return {
        type: NodeTypes.DIRECTIVE,
        name: 'bind',
        rawName: `:${prop.name}`,
        arg: createSimpleExpression(prop.name, true, prop.nameLoc),
        exp: createSimpleExpression(exp, false, prop.loc),
        modifiers: [],
        loc: prop.loc,
      };
    }
    const arg = prop.arg as SimpleExpressionNode | undefined;
    const exp = prop.exp as SimpleExpressionNode | undefined;
    if (prop.name !== 'bind' || !arg?.isStatic || !READ.has(arg.content) || !exp) return prop;
    const said = this.expression(exp.content, constants);
    return said === exp.content ? prop : { ...prop, exp: createSimpleExpression(said, false, exp.loc) };
  }

  /** Runs of text and values become one message each; elements between them part it. */
  private children(children: readonly TemplateChildNode[], constants: ReadonlySet<string>): TemplateChildNode[] {
    const out: TemplateChildNode[] = [];
    let run: (TextNode | InterpolationNode)[] = [];
    const close = (): void => {
      out.push(...this.run(run, constants));
      run = [];
    };
    for (const child of children) {
      if (child.type === NodeTypes.TEXT || child.type === NodeTypes.INTERPOLATION) run.push(child);
      else {
        close();
        out.push(child);
      }
    }
    close();
    return out;
  }

  private run(run: readonly (TextNode | InterpolationNode)[], constants: ReadonlySet<string>): TemplateChildNode[] {
    const hasWords = run.some((node) => node.type === NodeTypes.TEXT && HAS_WORDS.test(node.content));
    if (!hasWords)
      return run.map((node) => {
        if (node.type === NodeTypes.TEXT) return node;
        const { content, loc } = node.content as SimpleExpressionNode;
        const said = this.expression(content, constants);
        return said === content ? node : { ...node, content: createSimpleExpression(said, false, loc) };
      });
    const values: Value[] = [];
    const message = run
      .map((node) => {
        if (node.type === NodeTypes.TEXT) return escaped(node.content);
        const { content } = node.content as SimpleExpressionNode;
        return `{${named(values, content, this.expression(content, constants))}}`;
      })
      .join('')
      .replace(/\s+/g, ' ');
    const trimmed = message.trim();
    const first = run[0] as TextNode | InterpolationNode;
    const said: InterpolationNode = {
      type: NodeTypes.INTERPOLATION,
      content: createSimpleExpression(this.call(trimmed, values), false, first.loc),
      loc: first.loc,
    };
    const space = (content: string): TextNode => ({ type: NodeTypes.TEXT, content, loc: first.loc });
    return [...(message.startsWith(' ') ? [space(' ')] : []), said, ...(message.endsWith(' ') && message.length > 1 ? [space(' ')] : [])];
  }

  private call(message: string, values: readonly Value[]): string {
    this.onMessage(message);
    const given = values.length === 0 ? '' : `, { ${values.map(({ name, code }) => `${name}: ${code}`).join(', ')} }`;
    return `$say(${JSON.stringify(message)}${given})`;
  }

  /** What an expression says outright, or takes from a constant table, is sent through the room of words. */
  expression(code: string, constants: ReadonlySet<string>): string {
    let parsed: Expression;
    try {
      parsed = parseExpression(code, { plugins: ['typescript'] });
    } catch {
      return code;
    }
    const cuts: { from: number; to: number; with: string }[] = [];
    const rest = (node: BabelNode): string => code.slice(node.start ?? 0, node.end ?? 0);
    // eslint-disable-next-line complexity -- one case a kind of expression, each in a line
    const visit = (node: BabelNode): void => {
      const at = { from: node.start ?? 0, to: node.end ?? 0 };
      switch (node.type) {
        case 'StringLiteral':
          if (HAS_WORDS.test(node.value)) cuts.push({ ...at, with: this.call(escaped(node.value), []) });
          return;
        case 'TemplateLiteral':
          return this.template(node, at, cuts, rest, constants);
        case 'ConditionalExpression':
          visit(node.consequent);
          return visit(node.alternate);
        case 'LogicalExpression':
          if (node.operator !== '&&') visit(node.left);
          return visit(node.right);
        case 'BinaryExpression':
          if (node.operator === '+') [node.left, node.right].forEach(visit);
          return;
        case 'TSAsExpression':
        case 'TSNonNullExpression':
          return visit(node.expression);
        case 'ArrayExpression':
          return node.elements.forEach((each) => each && visit(each));
        case 'ObjectExpression':
          for (const each of node.properties)
            if (each.type === 'ObjectProperty' && !each.computed && READ_KEYS.has(keyOf(each.key))) visit(each.value);
          return;
        case 'CallExpression':
          return called(node.callee, node.arguments, visit);
        case 'ArrowFunctionExpression':
          return visit(node.body);
        case 'MemberExpression':
        case 'OptionalMemberExpression':
        case 'Identifier':
          // a whole table as well: `:items="KINDS"`
          if (constants.has(rootOf(node)) || IS_CONSTANT.test(rootOf(node))) cuts.push({ ...at, with: `$say(${rest(node)})` });
      }
    };
    visit(parsed);
    return replaced(code, cuts);
  }

  private template(
    node: TemplateLiteral,
    at: { from: number; to: number },
    cuts: { from: number; to: number; with: string }[],
    rest: (node: BabelNode) => string,
    constants: ReadonlySet<string>,
  ): void {
    if (!node.quasis.some(({ value }) => HAS_WORDS.test(value.cooked ?? ''))) {
      for (const each of node.expressions) {
        const said = this.expression(rest(each), constants);
        if (said !== rest(each)) cuts.push({ from: each.start ?? 0, to: each.end ?? 0, with: said });
      }
      return;
    }
    const values: Value[] = [];
    const message = node.quasis
      .map(({ value }, index) => {
        const own = node.expressions[index];
        const text = escaped(value.cooked ?? '');
        return own ? `${text}{${named(values, rest(own), this.expression(rest(own), constants))}}` : text;
      })
      .join('');
    cuts.push({ ...at, with: this.call(message, values) });
  }
}

interface Value {
  readonly name: string;
  readonly code: string;
}

/** Keys of objects that hold words: choices of a select, rows of a list. */
const READ_KEYS = new Set(['title', 'label', 'name', 'words', 'text', 'hint', 'small', 'big']);
const keyOf = (key: BabelNode): string => (key.type === 'Identifier' ? key.name : key.type === 'StringLiteral' ? key.value : '');

/** `[…].filter(Boolean).join(' · ')` says what stands in its list; `map` what its function gives. */
function called(callee: BabelNode, args: readonly BabelNode[], visit: (node: BabelNode) => void): void {
  if (callee.type !== 'MemberExpression' || callee.property.type !== 'Identifier') return;
  const { name } = callee.property;
  if (['filter', 'join', 'slice', 'concat', 'replace', 'trim'].includes(name)) visit(callee.object);
  if (name === 'join') args.forEach(visit);
  if (name === 'map') args.filter(({ type }) => type === 'ArrowFunctionExpression').forEach(visit);
}

function rootOf(node: BabelNode): string {
  let at = node;
  while (at.type === 'MemberExpression' || at.type === 'OptionalMemberExpression' || at.type === 'TSNonNullExpression')
    at = at.type === 'TSNonNullExpression' ? at.expression : at.object;
  return at.type === 'Identifier' ? at.name : '';
}

/** What is listed from a constant table is constant too. */
function withAliases(node: ElementNode, constants: ReadonlySet<string>): ReadonlySet<string> {
  const each = node.props.find((prop): prop is DirectiveNode => prop.type === NodeTypes.DIRECTIVE && prop.name === 'for');
  const said =
    each && /^\s*(?:[({]([^)]*?)[)}]|(\w+))\s+(?:in|of)\s+(.+)$/s.exec((each.exp as SimpleExpressionNode | undefined)?.content ?? '');
  if (!said) return constants;
  const source = (said[3] ?? '').replace(/^Object\.(?:values|entries)\(/, '').trim();
  const root = /^\w+/.exec(source)?.[0] ?? '';
  const names: string[] = (said[1] ?? said[2] ?? '').match(/\w+/g) ?? [];
  const isConstant = IS_CONSTANT.test(root) || constants.has(root);
  // a name that is given anew hides the constant of the same name
  return new Set([...[...constants].filter((name) => !names.includes(name)), ...(isConstant ? names : [])]);
}

/** Names a value by the last word of its expression: `dates.day(x)` is a day. */
function named(values: Value[], source: string, code: string): string {
  const known = values.find((each) => each.code === code);
  if (known) return known.name;
  const words: string[] = source.replace(/'[^']*'|"[^"]*"|`[^`]*`/g, '').match(/[A-Za-z_]\w*(?=\s*\()|[A-Za-z_]\w*/g) ?? [];
  const call = /([A-Za-z_]\w*)\s*\(/.exec(source)?.[1];
  const base = (call && call !== 'String' ? call : words.at(-1)) ?? 'value';
  let name = base;
  for (let n = 2; values.some((each) => each.name === name); n += 1) name = `${base}${n}`;
  values.push({ name, code });
  return name;
}

/** Braces of a text are its own. */
const escaped = (text: string): string => text.replace(/[{}]/g, (brace) => `'${brace}'`);
function replaced(code: string, cuts: readonly { from: number; to: number; with: string }[]): string {
  let out = code;
  for (const cut of [...cuts].sort((a, b) => b.from - a.from)) out = out.slice(0, cut.from) + cut.with + out.slice(cut.to);
  return out;
}
