import { createHmac, timingSafeEqual, type BinaryToTextEncoding } from 'node:crypto';

/** What a mark is made for: a key of its own each, so that a mark of one kind is worth nothing as another. */
export type MarkPurpose = 'known device' | 'password link' | 'idempotency';

/** characters of a key that somebody sets by hand: below, it could be guessed */
const LEAST_SECRET = 32;

/**
 * The keys that sign what browsers and letters carry, newest first. The first signs; all of them verify, so that a change of the key
 * signs nobody out, whichever of several servers it reaches first.
 */
export class Secrets {
  private values: readonly string[];
  private readonly keys = new Map<string, Buffer>();

  /** @param values newest first; none: nothing is signed until some come */
  constructor(values: readonly string[] = []) {
    this.values = values;
  }

  get all(): readonly string[] {
    return this.values;
  }

  replace(values: readonly string[]): void {
    if (values.join('\n') === this.values.join('\n')) return;
    this.values = values;
    this.keys.clear();
  }

  private keyOf(secret: string, purpose: MarkPurpose): Buffer {
    const name = `${purpose} ${secret}`;
    const known = this.keys.get(name);
    if (known) return known;
    const key = createHmac('sha256', secret).update(purpose).digest();
    this.keys.set(name, key);
    return key;
  }

  private markWith(secret: string, purpose: MarkPurpose, text: string, encoding: BinaryToTextEncoding): string {
    return createHmac('sha256', this.keyOf(secret, purpose)).update(text).digest(encoding);
  }

  /** What only these servers can make of a text. @throws where there is no key yet */
  mark(purpose: MarkPurpose, text: string, encoding: BinaryToTextEncoding = 'base64url'): string {
    const [newest] = this.values;
    if (newest === undefined) throw new Error('the servers have no key yet');
    return this.markWith(newest, purpose, text, encoding);
  }

  /** Whether a mark was made of this text, by whichever key that still counts. Takes as long for a wrong one. */
  recognises(purpose: MarkPurpose, text: string, given: string, encoding: BinaryToTextEncoding = 'base64url'): boolean {
    const mark = Buffer.from(given);
    const matches = this.values.map((secret) => {
      const wanted = Buffer.from(this.markWith(secret, purpose, text, encoding));
      return wanted.length === mark.length && timingSafeEqual(wanted, mark);
    });
    return matches.includes(true);
  }
}

/**
 * Keys as a setting has them, newest first, with commas between.
 * @throws Error where one is short enough to be guessed
 */
export function readSecrets(setting: string): readonly string[] {
  const values = setting.split(',').map((each) => each.trim());
  if (values.some((value) => value.length < LEAST_SECRET))
    throw new Error(
      `LAVACRUM_SECRET must be one key or several, newest first, with commas between, each of at least ${LEAST_SECRET} characters`,
    );
  return values;
}
