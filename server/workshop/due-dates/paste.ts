import { and, eq } from 'drizzle-orm';
import type { PasteLayer } from '../../../core/workshop/due-dates/facts.js';
import { pasteRenewal, renewed } from '../../../core/workshop/due-dates/paste.js';
import type { Scope } from '../../base/database/client.js';
import { dueItem } from '../../base/database/tables/due-dates.js';
import type { Cleaned } from './cleaned.js';
import { refreshCondition } from '../../machine/condition/condition.js';

interface Renewed extends Cleaned {
  readonly layers: readonly Omit<PasteLayer, 'since'>[];
  /** parts that are out of the loop: nothing lies under them */
  readonly gone?: readonly string[];
}

/** What lies under the blocks of a loop, as its open date knows it. */
async function layersOf(scope: Scope, loopId: string): Promise<readonly PasteLayer[]> {
  const [open] = await scope
    .select({ reason: dueItem.reason })
    .from(dueItem)
    .where(and(eq(dueItem.loopId, loopId), eq(dueItem.kind, 'paste-renewal'), eq(dueItem.state, 'open')));
  return open?.reason.why === 'paste' ? open.reason.layers : [];
}

/** Blocks lie on something new: what was due is answered, and the layer that ends first gives the next day. One open item a loop. */
export async function restartPaste(scope: Scope, done: Renewed): Promise<void> {
  const { workshopId, systemId, loopId, on, personId, at, layers, gone = [], outcome = { why: 'in-service' } } = done;
  if (layers.length === 0 && gone.length === 0) return;
  const before = await layersOf(scope, loopId);
  const after = renewed(before, layers.map((layer) => ({ ...layer, since: on })), gone); // prettier-ignore
  if (layers.length === 0 && after.length === before.length) return;
  await scope
    .update(dueItem)
    .set({ state: 'closed', outcome, closedAt: at, closedBy: personId })
    .where(and(eq(dueItem.loopId, loopId), eq(dueItem.kind, 'paste-renewal'), eq(dueItem.state, 'open')));
  const next = pasteRenewal(after);
  if (next)
    await scope
      .insert(dueItem)
      .values({ workshopId, systemId, loopId, kind: 'paste-renewal', sinceOn: on, ...next, estimated: true, clocks: [], createdAt: at });
  await refreshCondition(scope, systemId);
}

/** Somebody renewed it without a job: every layer that is known begins anew. */
export async function pasteDone(scope: Scope, done: Omit<Renewed, 'layers' | 'gone'>): Promise<void> {
  await restartPaste(scope, { ...done, layers: await layersOf(scope, done.loopId) });
}
