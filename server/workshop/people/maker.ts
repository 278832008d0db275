import { say } from '../../../core/base/words/say.js';
import { eq } from 'drizzle-orm';
import { refuse } from '../../../core/base/checking/input.js';
import type { Scope } from '../../base/database/client.js';
import { person } from '../../base/database/tables/people.js';
import type { Account } from '../../base/http/context.js';

/** Who made what a device delivers. */
export interface Maker {
  readonly personId: string;
  readonly personName: string;
  /** who was signed in, where that was somebody else */
  readonly deliverer: { readonly personId: string; readonly personName: string } | null;
}

/** Who an entry is booked on: its maker, whoever delivers it. */
export async function makerOf(scope: Scope, account: Pick<Account, 'personId' | 'personName'>, madeBy: string | undefined): Promise<Maker> {
  const own = { personId: account.personId, personName: account.personName, deliverer: null };
  if (madeBy === undefined || madeBy === account.personId) return own;
  const [maker] = await scope.select({ name: person.name }).from(person).where(eq(person.id, madeBy));
  if (!maker) refuse('madeBy', say('is nobody of this workshop'));
  return { personId: madeBy, personName: maker.name, deliverer: { personId: account.personId, personName: account.personName } };
}
