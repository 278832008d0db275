import type Joi from 'joi';
import type { Random } from '../../core/base/random/random.js';

/** A schema as Joi describes it; what is not named here is left to chance. */
interface Described {
  readonly type?: string;
  readonly flags?: { readonly presence?: string; readonly only?: boolean; readonly default?: unknown };
  readonly allow?: readonly unknown[];
  readonly keys?: Readonly<Record<string, Described>>;
  /** of an object whose keys are names: what stands under each */
  readonly patterns?: readonly { readonly rule: Described }[];
  readonly items?: readonly Described[];
  readonly ordered?: readonly Described[];
  readonly matches?: readonly { readonly schema?: Described }[];
  readonly rules?: readonly { readonly name: string; readonly args?: { readonly limit?: number; readonly regex?: string } }[];
}

/** Makes documents that a schema is likely to take: real enough to reach what lies behind it. */
export class Instances {
  constructor(
    private readonly random: Random,
    /** an id of something that is there, most often of what the key names */
    private readonly idFor: (key: string) => string,
    /** values that no schema tells how to make, by their key: a loop's file, say */
    private readonly known: Readonly<Record<string, unknown>>,
  ) {}

  of(schema: Joi.Schema): unknown {
    return this.make(schema.describe() as Described, '');
  }

  private make(described: Described, key: string): unknown {
    const own = this.known[key];
    if (typeof own === 'function') return (own as () => unknown)();
    if (own !== undefined) return structuredClone(own);
    const { allow = [], flags = {}, matches } = described;
    const values = allow.filter((each) => typeof each !== 'object' || each === null);
    if (flags.only === true || (values.length > 0 && this.random.next() < 0.3)) return values.length > 0 ? this.random.pick(values) : null;
    if (matches) return this.make(this.random.pick(matches).schema ?? {}, key);
    switch (described.type) {
      case 'object':
        return this.object(described);
      case 'array':
        return this.list(described);
      case 'number':
        return this.number(described);
      case 'boolean':
        return this.random.next() < 0.5;
      case 'string':
        return this.text(described, key);
      default:
        return null;
    }
  }

  private object({ keys = {}, patterns = [] }: Described): Record<string, unknown> {
    const own = Object.entries(keys)
      .filter(([, { flags }]) => flags?.presence === 'required' || this.random.next() < 0.6)
      .map(([key, value]) => [key, this.make(value, key)] as const);
    const named = patterns.flatMap(({ rule }) => ['cpu', 'gpu'].map((name) => [name, this.make(rule, name)] as const));
    return Object.fromEntries([...own, ...named]);
  }

  private list({ items = [], ordered = [] }: Described): unknown[] {
    const first = ordered.map((each) => this.make(each, ''));
    const more = items.length === 0 ? 0 : Math.floor(this.random.next() * 3);
    return [...first, ...Array.from({ length: more }, () => this.make(this.random.pick(items), ''))];
  }

  private limit({ rules = [] }: Described, names: readonly string[]): number | undefined {
    return rules.find(({ name }) => names.includes(name))?.args?.limit;
  }

  private number(described: Described): number {
    const least = this.limit(described, ['min', 'greater']) ?? 0;
    const most = this.limit(described, ['max', 'less']) ?? 1000;
    const value =
      this.random.next() < 0.2 ? this.random.pick([least, most, least + 1]) : this.random.between(least, Math.min(most, least + 100));
    return described.rules?.some(({ name }) => name === 'integer') ? Math.round(value) : value;
  }

  private text(described: Described, key: string): string {
    const { rules = [] } = described;
    if (rules.some(({ name }) => name === 'guid')) return this.idFor(key);
    if (rules.some(({ name }) => name === 'email')) return `somebody${Math.floor(this.random.next() * 1e6)}@fuzz.example`;
    const pattern = rules.find(({ name }) => name === 'pattern')?.args?.regex ?? '';
    if (/\\d\{4\}-/.test(pattern) || /(On|Day|until|from|to|on)$/.test(key))
      return this.random.pick(['2026-03-09', '2026-03-20', '2025-11-02', '2027-01-31']);
    if (pattern.includes('#')) return '#22aa77';
    if (key === 'at') return '2026-03-10T09:00:00Z';
    const most = this.limit(described, ['max']) ?? 40;
    return this.random.pick(['Owl', 'by the window', 'two words', 'x'.repeat(Math.min(most, 60)), 'ten letters too']).slice(0, most);
  }
}
